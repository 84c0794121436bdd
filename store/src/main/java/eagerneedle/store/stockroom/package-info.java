/** The stockroom kept in one SQLite file, and its JSON. {@link eagerneedle.store.stockroom.Stockroom} is the door. */
package eagerneedle.store.stockroom;
