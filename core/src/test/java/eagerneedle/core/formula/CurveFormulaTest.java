package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

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
class CurveFormulaTest {
    private static final List<String> NAMES = List.of("a", "b", "x");
    private final SplittableRandom random = new SplittableRandom(41);

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
            CurveFormula.of(f.expression(), NAMES).orElseThrow().at(at, out);
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
    void whatNeedsTheWholeLanguageHasNoLayout(String text) {
        assertThat(CurveFormula.of(Formula.parse(text).expression(), NAMES)).isEmpty();
    }

    @Test
    void powersAtZeroAndOfNegativeBases() {
        double[] out = new double[4];
        CurveFormula.of(Formula.parse("x^2 + a * x^1 + x^0").expression(), NAMES)
                .orElseThrow()
                .at(new double[] {3, 0, 0}, out);
        assertThat(out).containsExactly(1, 0, 0, 3);
        CurveFormula.of(Formula.parse("x^3").expression(), NAMES).orElseThrow().at(new double[] {0, 0, -2}, out);
        assertThat(out).containsExactly(-8, 0, 0, 12);
        CurveFormula.of(Formula.parse("2^a").expression(), NAMES).orElseThrow().at(new double[] {3, 0, 0}, out);
        assertThat(out[1]).isCloseTo(8 * Math.log(2), within(1e-12));
    }
}
