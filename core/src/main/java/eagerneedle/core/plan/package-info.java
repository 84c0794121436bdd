/**
 * What is worked out before anything is switched on: levels, times, instruments, and what a target uncertainty would
 * take.
 */
package eagerneedle.core.plan;
