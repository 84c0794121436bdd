package eagerneedle.core.function;

import eagerneedle.core.arithmetic.Program;
import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.Points;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A formula of quantities as a curve in plain numbers: everything is turned into coherent units on the way in and back
 * on the way out, and worked out there by a {@link Program}.
 *
 * <p>A fit asks for the curve hundreds of times at every point, and through the language each time costs a hundred
 * times as much. What the language knows beyond arithmetic (units that do not fit, temperatures with a zero of their
 * own, exponents with a unit) is not known here; so the program is held against the language first, value and
 * derivatives, at several points and for two sets of parameters, and is used only where both say the same.
 */
final class UnitCurve implements Curve {
    private static final int PROBES = 5;
    private static final double SAME = 1e-9;

    private final Program program;
    private final List<LabUnit> units;
    private final LabUnit xUnit;
    private final LabUnit yUnit;

    private UnitCurve(Program program, List<LabUnit> units, LabUnit xUnit, LabUnit yUnit) {
        this.program = program;
        this.units = units;
        this.xUnit = xUnit;
        this.yUnit = yUnit;
    }

    /**
     * The curve of a formula of {@code x} and parameters.
     *
     * @param start starting values, which give each parameter its unit, in order
     * @param careful the same curve through the language
     * @return empty where only the language itself can work it out
     */
    static Optional<Curve> of(Formula formula, Map<String, Quantity> start, Points points, Curve careful) {
        Optional<Program> program =
                Program.inCoherentUnits(formula.expression(), List.copyOf(start.keySet()), List.of("x"));
        if (program.isEmpty()) {
            return Optional.empty();
        }
        List<LabUnit> units = start.values().stream().map(Quantity::unit).toList();
        UnitCurve curve = new UnitCurve(program.get(), units, points.xUnit(), points.yUnit());
        double[] at = start.values().stream().mapToDouble(Quantity::value).toArray();
        double[] moved = at.clone();
        for (int k = 0; k < moved.length; k++) {
            moved[k] = at[k] == 0 ? 0.21 + 0.1 * k : at[k] * (1.13 + 0.03 * k);
        }
        double[] x = points.xValues();
        boolean same = curve.agrees(careful, x, at) && curve.agrees(careful, x, moved);
        return same ? Optional.of(curve) : Optional.empty();
    }

    private boolean agrees(Curve careful, double[] x, double[] parameters) {
        int p = parameters.length;
        int finite = 0;
        for (int i = 0; i < x.length; i += Math.max(1, x.length / PROBES)) {
            double[] own = new double[p + 1];
            double[] other = new double[p + 1];
            double value;
            try {
                value = careful.at(x[i], parameters, other);
            } catch (FormulaException e) {
                return false;
            }
            double mine = at(x[i], parameters, own);
            if (!Double.isFinite(value)) {
                if (Double.isFinite(mine)) {
                    return false;
                }
                continue;
            }
            finite++;
            if (!same(mine, value)) {
                return false;
            }
            for (int k = 0; k <= p; k++) {
                if (!same(own[k], other[k])) {
                    return false;
                }
            }
        }
        return finite > 1;
    }

    private static boolean same(double a, double b) {
        return Math.abs(a - b) <= SAME * Math.max(Math.abs(a), Math.abs(b));
    }

    @Override
    public double at(double x, double[] parameters, double[] gradient) {
        double[] value = new double[1];
        double[][] by = new double[parameters.length][1];
        double[] byX = new double[1];
        all(new double[] {x}, parameters, value, by, byX);
        for (int k = 0; k < by.length; k++) {
            gradient[k] = by[k][0];
        }
        gradient[by.length] = byX[0];
        return value[0];
    }

    @Override
    public void all(
            double[] x,
            double[] parameters,
            double[] value,
            double @Nullable [][] byParameter,
            double @Nullable [] byX) {
        int p = parameters.length;
        double[] scalars = new double[p];
        for (int k = 0; k < p; k++) {
            scalars[k] = units.get(k).convert(parameters[k], units.get(k).coherent());
        }
        double[] column = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            column[i] = xUnit.convert(x[i], xUnit.coherent());
        }
        double[][] out = new double[p + 2][];
        out[0] = value;
        for (int k = 0; k < p && byParameter != null; k++) {
            out[1 + k] = byParameter[k];
        }
        out[p + 1] = byX;
        program.run(scalars, new double[][] {column}, 0, x.length, out);
        LabUnit coherent = yUnit.coherent();
        for (int i = 0; i < x.length; i++) {
            value[i] = coherent.convert(value[i], yUnit);
        }
        for (int k = 0; k < p && byParameter != null; k++) {
            scale(byParameter[k], units.get(k).factor() / yUnit.factor());
        }
        if (byX != null) {
            scale(byX, xUnit.factor() / yUnit.factor());
        }
    }

    private static void scale(double[] v, double by) {
        for (int i = 0; i < v.length; i++) {
            v[i] *= by;
        }
    }
}
