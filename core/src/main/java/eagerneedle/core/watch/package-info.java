/** Rules that look at live or stored samples and warn, each with a likely cause and a remedy. */
@NullMarked
package eagerneedle.core.watch;

import org.jspecify.annotations.NullMarked;
