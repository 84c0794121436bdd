/**
 * Reading delimited text of any dialect: guess, preview, read. {@link eagerneedle.store.delimited.DelimitedText} is the
 * door.
 */
@NullMarked
package eagerneedle.store.delimited;

import org.jspecify.annotations.NullMarked;
