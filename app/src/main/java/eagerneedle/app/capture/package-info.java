/** Capture: runs in every mode, live traces and watches, and files brought in. */
@NullMarked
package eagerneedle.app.capture;

import org.jspecify.annotations.NullMarked;
