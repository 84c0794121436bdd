/** Files from elsewhere as columns of numbers: delimited text, JSON, WAV. {@link eagerneedle.store.brought.Brought} is the door. */
package eagerneedle.store.brought;
