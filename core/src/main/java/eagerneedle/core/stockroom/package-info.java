/**
 * The laboratory's instruments, sensors, converters, references and specimens: what each is specified to do, and its
 * history.
 */
@NullMarked
package eagerneedle.core.stockroom;

import org.jspecify.annotations.NullMarked;
