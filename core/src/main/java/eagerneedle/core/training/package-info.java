/**
 * Practice without harm: {@link eagerneedle.core.training.Drill} asks for readings of drawn instruments and judges
 * value and uncertainty; {@link eagerneedle.core.training.Hunt} judges what was said of a fault that was hidden at the
 * bench.
 */
@NullMarked
package eagerneedle.core.training;

import org.jspecify.annotations.NullMarked;
