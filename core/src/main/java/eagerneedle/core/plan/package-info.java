/**
 * What is worked out before anything is switched on: levels, times, instruments, and what a target uncertainty would
 * take.
 */
@NullMarked
package eagerneedle.core.plan;

import org.jspecify.annotations.NullMarked;
