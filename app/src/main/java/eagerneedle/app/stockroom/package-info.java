/** The stockroom: the instruments of the laboratory with their specifications and dates. */
@NullMarked
package eagerneedle.app.stockroom;

import org.jspecify.annotations.NullMarked;
