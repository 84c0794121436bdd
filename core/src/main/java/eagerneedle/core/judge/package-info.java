/** Comparing a result with a reference under a stated rule, and saying it in a sentence. */
@NullMarked
package eagerneedle.core.judge;

import org.jspecify.annotations.NullMarked;
