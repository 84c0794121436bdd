/**
 * Files from elsewhere as columns of numbers: delimited text, JSON, WAV. {@link eagerneedle.store.foreign.ForeignFile}
 * is the door.
 */
package eagerneedle.store.foreign;
