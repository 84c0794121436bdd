/**
 * Fits whose parameters are quantities with lineage.
 *
 * <p>{@link eagerneedle.core.fit.PolynomialFit} fits straight lines and polynomials to traces and to points that carry
 * uncertainty, {@link eagerneedle.core.fit.CurveFit} any smooth model by non-linear least squares. Both give a
 * {@link eagerneedle.core.fit.Fit}.
 */
@NullMarked
package eagerneedle.core.fit;

import org.jspecify.annotations.NullMarked;
