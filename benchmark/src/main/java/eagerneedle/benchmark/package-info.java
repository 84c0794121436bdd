/** Benchmarks, each against a plain baseline in the same run. {@code ./needle bench} prints them as ratios. */
@NullMarked
package eagerneedle.benchmark;

import org.jspecify.annotations.NullMarked;
