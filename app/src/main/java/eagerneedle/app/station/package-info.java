/** What all stations have in common: their names and order, what a view owes the window, and what it may ask of it. */
@NullMarked
package eagerneedle.app.station;

import org.jspecify.annotations.NullMarked;
