/** Plan: what is to be found, with which instruments, and which uncertainty that will give. */
@NullMarked
package eagerneedle.app.plan;

import org.jspecify.annotations.NullMarked;
