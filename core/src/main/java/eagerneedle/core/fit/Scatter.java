package eagerneedle.core.fit;

/**
 * Where the uncertainty of a fit's independent part comes from.
 *
 * <p>The scatter of the points about the curve already shows every influence that acts on one point alone. So either the
 * residuals speak for all of those together, or the points' own stated uncertainties do; never both, which would count them
 * twice. Influences that several points share are propagated in either case, because no residual can show them.
 */
public enum Scatter {
    /** The residuals speak; influences of single points are left to them. */
    FROM_RESIDUALS,
    /** The stated uncertainties speak; they also weight the points, in both coordinates. Residuals only test them (chi-square). */
    FROM_UNCERTAINTIES,
    /** As stated uncertainties, and what points share correlates their weights too (generalised least squares). */
    GENERALISED
}
