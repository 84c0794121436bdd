/** The one canvas plot of the window, and the surface that all pictures paint on. */
@NullMarked
package eagerneedle.app.plot;

import org.jspecify.annotations.NullMarked;
