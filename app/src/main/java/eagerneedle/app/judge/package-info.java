/** Judge: results against references, shares of uncertainty, mistakes looked for. */
@NullMarked
package eagerneedle.app.judge;

import org.jspecify.annotations.NullMarked;
