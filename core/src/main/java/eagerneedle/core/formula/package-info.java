/**
 * The formula language of method sheets: parsed with ANTLR into {@link eagerneedle.core.formula.Expr}, evaluated over
 * {@link eagerneedle.core.formula.Value values} that carry units and uncertainty.
 *
 * <p>{@link eagerneedle.core.formula.Formula} is the door: {@code Formula.parse(text).evaluate(scope)}. Formulas have
 * no side effects; every error is a {@link eagerneedle.core.formula.FormulaException} with a column and one sentence.
 */
@NullMarked
package eagerneedle.core.formula;

import org.jspecify.annotations.NullMarked;
