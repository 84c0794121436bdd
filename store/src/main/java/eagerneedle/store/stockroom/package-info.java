/** The stockroom kept in one SQLite file, and its JSON. {@link eagerneedle.store.stockroom.Stockroom} is the door. */
@NullMarked
package eagerneedle.store.stockroom;

import org.jspecify.annotations.NullMarked;
