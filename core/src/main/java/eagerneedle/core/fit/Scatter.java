package eagerneedle.core.fit;

/**
 * Where the uncertainty of a fit's independent part comes from.
 *
 * <p>The scatter of the points about the curve already shows every influence that acts on one point alone. Where the
 * residuals speak, they tell what there is beyond the points' own uncertainties, which is counted beside these
 * ({@link PointScatter}). Influences that several points share are propagated in either case, because no residual can
 * show them.
 */
public enum Scatter {
    /** The residuals speak, beside what the points carry of their own. */
    FROM_RESIDUALS,
    /**
     * The stated uncertainties speak; they also weight the points, in both coordinates. Residuals only test them
     * (chi-square).
     */
    FROM_UNCERTAINTIES,
    /** As stated uncertainties, and what points share correlates their weights too (generalised least squares). */
    GENERALISED
}
