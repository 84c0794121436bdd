/**
 * Files from elsewhere as columns of numbers: delimited text, JSON, WAV. {@link eagerneedle.store.foreign.ForeignFile}
 * is the door.
 */
@NullMarked
package eagerneedle.store.foreign;

import org.jspecify.annotations.NullMarked;
