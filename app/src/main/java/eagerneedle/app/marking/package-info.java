/** The classroom in the window: data given out, and what comes back marked. The stations know nothing of it. */
@NullMarked
package eagerneedle.app.marking;

import org.jspecify.annotations.NullMarked;
