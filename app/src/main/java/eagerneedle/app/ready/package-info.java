/** The check before a class: instruments, one known point, one run, held against last term, signed by staff. */
@NullMarked
package eagerneedle.app.ready;

import org.jspecify.annotations.NullMarked;
