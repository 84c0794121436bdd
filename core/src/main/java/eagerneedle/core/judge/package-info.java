/** Comparing a result with a reference under a stated rule, and saying it in a sentence. */
package eagerneedle.core.judge;
