/** Training: instruments to be read, and faults to be found at the simulated bench. */
@NullMarked
package eagerneedle.app.training;

import org.jspecify.annotations.NullMarked;
