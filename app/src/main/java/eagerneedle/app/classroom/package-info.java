/**
 * A class: data sets of their own given out, what comes back marked. Knows no widget: the command line and the marking
 * view both stand on it.
 */
@NullMarked
package eagerneedle.app.classroom;

import org.jspecify.annotations.NullMarked;
