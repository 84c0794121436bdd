package eagerneedle.picture;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;

/**
 * The unit in which an axis carries its numbers: with the prefix that keeps powers of ten away, where the unit takes
 * one.
 *
 * @param factor what a value in the unit of the plot is multiplied by
 * @param unit as it is set in print
 */
record AxisScale(double factor, String unit) {
    private static final double LARGE = 1e5;
    private static final double SMALL = 1e-3;

    /** For an axis whose numbers reach to {@code from} and {@code to}. */
    static AxisScale of(Plot.Axis axis, double from, double to) {
        double size = Math.max(Math.abs(from), Math.abs(to));
        AxisScale own = new AxisScale(1, axis.unit());
        if (axis.logarithmic() || axis.unit().isEmpty() || size == 0 || size >= SMALL && size < LARGE) {
            return own;
        }
        try {
            LabUnit unit = LabUnit.parse(axis.unit());
            if (unit.isAffine()) {
                return own;
            }
            return unit.otherPrefixes().stream()
                    .map(other -> new AxisScale(unit.scaleTo(other), other.pretty()))
                    .filter(s -> s.factor * size >= 1 && s.factor * size < LARGE)
                    .findFirst()
                    .orElse(own);
        } catch (UnitException e) {
            // What is no unit, such as a count of something, stays as it is written.
            return own;
        }
    }

    /** Name and unit of the axis. */
    String label(Plot.Axis axis) {
        return unit.isEmpty() ? axis.name() : axis.name() + ", " + unit;
    }
}
