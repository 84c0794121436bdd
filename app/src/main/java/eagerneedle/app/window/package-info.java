/** The frame of the window: course dial, ledger, watch strip, finder, start page. It alone knows all stations. */
@NullMarked
package eagerneedle.app.window;

import org.jspecify.annotations.NullMarked;
