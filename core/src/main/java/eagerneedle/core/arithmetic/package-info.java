/**
 * Formulas of plain numbers compiled to arithmetic on arrays, with their derivatives: what fits, and everything else
 * that evaluates one formula at very many points, runs on. {@link eagerneedle.core.arithmetic.Program} is the door.
 */
@NullMarked
package eagerneedle.core.arithmetic;

import org.jspecify.annotations.NullMarked;
