package eagerneedle.core.arithmetic;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The layout for fits gives the same value and the same derivatives as the language itself. */
class ProgramTest {
    private static final List<String> NAMES = List.of("a", "b", "x");
    private final SplittableRandom random = new SplittableRandom(41);

    /** Value and derivatives at one place, the last name taken for a column and the others for scalars. */
    private static void at(Expr e, double[] in, double[] out) {
        Program p = Program.of(e, NAMES.subList(0, 2), NAMES.subList(2, 3)).orElseThrow();
        double[][] rows = new double[out.length][1];
        p.run(in, new double[][] {{in[2]}}, 0, 1, rows);
        for (int k = 0; k < out.length; k++) {
            out[k] = rows[k][0];
        }
        double[] one = new double[out.length];
        p.one(in, new double[] {in[2]}, new double[p.room()], one);
        assertThat(one).as("one row by itself").isEqualTo(out);
    }

    private String formula(int depth) {
        switch (random.nextInt(depth == 0 ? 2 : 8)) {
            case 0:
                return NAMES.get(random.nextInt(3));
            case 1:
                return String.valueOf(1 + random.nextInt(5));
            case 2:
                return "(" + formula(depth - 1) + " + " + formula(depth - 1) + ")";
            case 3:
                return "(" + formula(depth - 1) + " - " + formula(depth - 1) + ")";
            case 4:
                return formula(depth - 1) + " * " + formula(depth - 1);
            case 5:
                return formula(depth - 1) + " / (3 + " + formula(depth - 1) + "^2)";
            case 6:
                return "exp(-" + formula(depth - 1) + "^2 / 20)";
            default:
                return new String[] {"sin", "cos", "tanh", "atan"}[random.nextInt(4)] + "(" + formula(depth - 1) + ")";
        }
    }

    @Test
    void fiveHundredRandomFormulasAgree() {
        for (int i = 0; i < 500; i++) {
            String text = formula(3);
            Formula f = Formula.parse(text);
            double[] at = {0.5 + random.nextDouble(), 0.5 + random.nextDouble(), 0.5 + random.nextDouble()};
            double[] out = new double[4];
            at(f.expression(), at, out);
            Map<String, Value> names = new HashMap<>();
            for (int k = 0; k < 3; k++) {
                names.put(
                        NAMES.get(k),
                        new Value.Scalar(Quantity.of(
                                at[k],
                                1,
                                LabUnit.ONE,
                                Leaf.typeA(NAMES.get(k), NAMES.get(k), "", Double.POSITIVE_INFINITY))));
            }
            Quantity q = ((Value.Scalar) f.evaluate(Scope.over("t", names))).quantity();
            double size = 1 + Math.abs(q.value());
            assertThat(out[0]).as(text).isCloseTo(q.in(LabUnit.ONE), within(1e-12 * size));
            for (int k = 0; k < 3; k++) {
                double d = q.contribution(Leaf.typeA(NAMES.get(k), NAMES.get(k), "", Double.POSITIVE_INFINITY));
                assertThat(out[k + 1]).as(text + " by " + NAMES.get(k)).isCloseTo(d, within(1e-10 * (1 + Math.abs(d))));
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"a * 3 m", "a + 2.0(1)", "if(a < b, 1, 2)", "mean(column(a, b))", "unknown * a", "a < b"})
    void whatNeedsTheWholeLanguageHasNoProgram(String text) {
        assertThat(Program.of(Formula.parse(text).expression(), NAMES, List.of()))
                .isEmpty();
    }

    @Test
    void powersAtZeroAndOfNegativeBases() {
        double[] out = new double[4];
        at(Formula.parse("x^2 + a * x^1 + x^0").expression(), new double[] {3, 0, 0}, out);
        assertThat(out).containsExactly(1, 0, 0, 3);
        at(Formula.parse("x^3").expression(), new double[] {0, 0, -2}, out);
        assertThat(out).containsExactly(-8, 0, 0, 12);
        at(Formula.parse("2^a").expression(), new double[] {3, 0, 0}, out);
        assertThat(out[1]).isCloseTo(8 * Math.log(2), within(1e-12));
    }

    /** Blocks, their ends and rows from the middle on give what single rows give, whoever of the names is a column. */
    @Test
    void manyRowsAreTheSameAsOneByOne() {
        Expr e = Formula.parse("a * exp(-x / b) + sqrt(a * x) - ln(b) / (x + 1)^1.5 + sin(x)^2")
                .expression();
        Program p = Program.of(e, List.of("a", "b"), List.of("x")).orElseThrow();
        int n = 1337;
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = 0.01 * i;
        }
        double[][] all = new double[p.outputs()][n];
        p.run(new double[] {2, 3}, new double[][] {x}, 0, 700, all);
        p.run(new double[] {2, 3}, new double[][] {x}, 700, n, all);
        Program q = Program.of(e, List.of(), List.of("x", "a", "b")).orElseThrow();
        double[] a = new double[n];
        double[] b = new double[n];
        java.util.Arrays.fill(a, 2);
        java.util.Arrays.fill(b, 3);
        double[][] other = new double[q.outputs()][n];
        q.run(new double[0], new double[][] {x, a, b}, 0, n, other);
        double[][] one = new double[p.outputs()][1];
        for (int i = 0; i < n; i++) {
            p.run(new double[] {2, 3}, new double[][] {{x[i]}}, 0, 1, one);
            for (int k = 0; k < one.length; k++) {
                assertThat(all[k][i]).isEqualTo(one[k][0]);
            }
            assertThat(other[0][i]).isEqualTo(all[0][i]);
            assertThat(other[1][i]).isEqualTo(all[3][i]);
            assertThat(other[2][i]).isCloseTo(all[1][i], within(1e-14));
            assertThat(other[3][i]).isCloseTo(all[2][i], within(1e-14));
        }
    }

    /** What is not wanted is not computed, and what is wanted does not depend on it. */
    @Test
    void theValueAloneIsTheSame() {
        Program p = Program.of(Formula.parse("a * tanh(x / b) + pi").expression(), List.of("a", "b"), List.of("x"))
                .orElseThrow();
        double[] x = {0, 0.5, 1, 2};
        double[][] all = new double[p.outputs()][4];
        p.run(new double[] {2, 3}, new double[][] {x}, 0, 4, all);
        double[][] alone = new double[p.outputs()][];
        alone[0] = new double[4];
        p.run(new double[] {2, 3}, new double[][] {x}, 0, 4, alone);
        assertThat(alone[0]).isEqualTo(all[0]);
        assertThat(all[0][0]).isEqualTo(Math.PI);
    }

    /** A steep slope under a derivative of nothing is nothing, as at the root of 0. */
    @Test
    void aRootStartsUpright() {
        double[] out = new double[4];
        at(Formula.parse("sqrt(a * x)").expression(), new double[] {2, 0, 0}, out);
        assertThat(out[0]).isZero();
        assertThat(out[1]).isZero();
        assertThat(out[3]).isInfinite();
    }
}
