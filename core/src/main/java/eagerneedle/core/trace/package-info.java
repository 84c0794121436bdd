/**
 * Time series of one channel: samples with their clock, windows on them, their statistics and where they change.
 *
 * <p>{@link eagerneedle.core.trace.Trace} is the door. Times are in seconds from the start of the run, values in the
 * trace's unit.
 */
@NullMarked
package eagerneedle.core.trace;

import org.jspecify.annotations.NullMarked;
