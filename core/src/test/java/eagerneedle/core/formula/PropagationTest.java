package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** The propagated uncertainty of random formulas against numerical differentiation of their values. */
class PropagationTest {
    private static final String[] NAMES = {"a", "b", "c", "d"};
    private static final Leaf[] LEAVES = new Leaf[NAMES.length];

    static {
        for (int i = 0; i < NAMES.length; i++) {
            LEAVES[i] = Leaf.typeA(NAMES[i], NAMES[i], "test", Double.POSITIVE_INFINITY);
        }
    }

    @Test
    void twoHundredRandomFormulasAgreeWithNumericalDifferentiation() {
        Random random = new Random(20261123);
        int tried = 0;
        while (tried < 200) {
            String text = expression(random, 4);
            Formula formula = Formula.parse(text);
            double[] at = new double[NAMES.length];
            double[] u = new double[NAMES.length];
            for (int i = 0; i < at.length; i++) {
                at[i] = 0.5 + 2 * random.nextDouble();
                u[i] = 0.01 * (1 + random.nextDouble());
            }
            Quantity q = value(formula, at, u);
            double variance = 0;
            for (int i = 0; i < at.length; i++) {
                double d = derivative(formula, at, i);
                variance += d * d * u[i] * u[i];
            }
            double numerical = Math.sqrt(variance);
            if (!Double.isFinite(q.value()) || Math.abs(q.value()) > 1e4 || numerical < 1e-6) {
                continue;
            }
            tried++;
            assertThat(q.u()).as(text).isBetween(numerical * (1 - 1e-6), numerical * (1 + 1e-6));
        }
    }

    /** Five-point stencil. */
    private static double derivative(Formula f, double[] at, int i) {
        double h = 1e-3 * at[i];
        return (-plain(f, at, i, 2 * h) + 8 * plain(f, at, i, h) - 8 * plain(f, at, i, -h) + plain(f, at, i, -2 * h)) / (12 * h);
    }

    private static double plain(Formula f, double[] at, int i, double step) {
        double[] moved = at.clone();
        moved[i] += step;
        return value(f, moved, new double[at.length]).value();
    }

    private static Quantity value(Formula f, double[] at, double[] u) {
        Map<String, Value> names = new HashMap<>();
        for (int i = 0; i < at.length; i++) {
            names.put(NAMES[i], new Value.Scalar(Quantity.of(at[i], u[i], LabUnit.ONE, LEAVES[i])));
        }
        return ((Value.Scalar) f.evaluate(FormulaTest.scope(names))).quantity();
    }

    private static String expression(Random r, int depth) {
        if (depth == 0 || r.nextInt(6) == 0) {
            return r.nextInt(5) == 0 ? String.format(java.util.Locale.ROOT, "%.2f", 0.5 + 2 * r.nextDouble()) : NAMES[r.nextInt(NAMES.length)];
        }
        String x = expression(r, depth - 1);
        String y = expression(r, depth - 1);
        return switch (r.nextInt(12)) {
            case 0, 1 -> "(" + x + " + " + y + ")";
            case 2 -> "(" + x + " - " + y + ")";
            case 3, 4 -> x + " * " + y;
            case 5 -> x + " / (1.5 + (" + y + ")^2)";
            case 6 -> "sin(" + x + ")";
            case 7 -> "exp(-(" + x + ")^2 / 4)";
            case 8 -> "sqrt(1 + (" + x + ")^2)";
            case 9 -> "atan(" + x + ")";
            case 10 -> "ln(2 + (" + x + ")^2)";
            default -> "(0.5 + (" + x + ")^2)^(" + y + " / 3)";
        };
    }

    @Test
    void anUncertainExponentIsPropagatedToo() {
        Quantity q = value(Formula.parse("a^b"), new double[] {2, 1.5, 1, 1}, new double[] {0.01, 0.02, 0, 0});
        double byBase = 1.5 * Math.sqrt(2) * 0.01;
        double byExponent = Math.pow(2, 1.5) * Math.log(2) * 0.02;
        assertThat(q.u()).isBetween(Math.hypot(byBase, byExponent) * (1 - 1e-12), Math.hypot(byBase, byExponent) * (1 + 1e-12));
    }
}
