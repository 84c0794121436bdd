/** Calibrate: by points, by adjusting, by closing circles, and actual values of inputs. */
@NullMarked
package eagerneedle.app.calibrate;

import org.jspecify.annotations.NullMarked;
