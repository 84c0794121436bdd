/** Benchmarks, each against a plain baseline in the same run. {@code ./needle bench} prints them as ratios. */
package eagerneedle.benchmark;
