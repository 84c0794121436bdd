/**
 * Reading delimited text of any dialect: guess, preview, read. {@link eagerneedle.store.delimited.DelimitedText} is the
 * door.
 */
package eagerneedle.store.delimited;
