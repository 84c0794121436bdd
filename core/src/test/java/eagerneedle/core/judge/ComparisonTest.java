package eagerneedle.core.judge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.quantity.UnitException;
import org.junit.jupiter.api.Test;

class ComparisonTest {
    private static Quantity q(String text, String id) {
        return Reading.parse(text).toQuantity(id, id, "test");
    }

    private static Comparison compare(Quantity a, Quantity b, double threshold) {
        return Comparison.of("c", "test", a, b, Coverage.DEFAULT, threshold);
    }

    @Test
    void theNormalisedDifferenceAndItsChance() {
        Comparison c = compare(q("9.784(55) m/s^2", "g"), q("9.8126 m/s^2", "r"), 1);
        assertThat(c.normalised()).isCloseTo(-0.0286 / 0.055, within(1e-9));
        assertThat(c.factor()).isCloseTo(1.95996, within(1e-4));
        assertThat(c.chance()).isCloseTo(0.603, within(1e-3));
        assertThat(c.percent()).isCloseTo(-0.29146, within(1e-4));
        assertThat(c.agrees(School.STANDARD)).isTrue();
        assertThat(c.agrees(School.PERCENT)).isTrue();
        assertThat(c.verdict(School.STANDARD))
                .startsWith("9.784(55) m/s² agrees with 9.8126 m/s²")
                .endsWith(".");
    }

    @Test
    void whatBothShareCancels() {
        Quantity shared = Quantity.of(1, 0.5, LabUnit.ONE, Leaf.typeA("s", "s", "", 1e9));
        Quantity a = q("10.0(1)", "a").plus(shared);
        Quantity b = q("10.3(1)", "b").plus(shared);
        assertThat(compare(a, b, Double.NaN).difference().u()).isCloseTo(0.1 * Math.sqrt(2), within(1e-12));
        assertThat(compare(a, b, Double.NaN).agrees(School.STANDARD)).isFalse();
    }

    @Test
    void limitsOverlapOrLeaveAGap() {
        Comparison near = compare(q("10.0 limit 0.3 mm", "a"), q("10.4 limit 0.2 mm", "b"), Double.NaN);
        assertThat(near.overlap()).isCloseTo(0.1, within(1e-12));
        assertThat(near.agrees(School.LIMITS)).isTrue();
        assertThat(near.verdict(School.LIMITS)).contains("overlap by 0.1 mm");
        Comparison far = compare(q("10.0 limit 0.1 mm", "a"), q("10.4 limit 0.2 mm", "b"), Double.NaN);
        assertThat(far.agrees(School.LIMITS)).isFalse();
        assertThat(far.verdict(School.LIMITS)).contains("gap of 0.1 mm");
    }

    @Test
    void percentKnowsOnlyItsThresholdAndSaysSo() {
        Comparison c = compare(q("105(1)", "a"), q("100", "b"), 3);
        assertThat(c.agrees(School.PERCENT)).isFalse();
        assertThat(c.verdict(School.PERCENT)).contains("beyond the 3 %").contains("says nothing of how well");
        assertThat(compare(q("105(1)", "a"), q("100", "b"), Double.NaN).agrees(School.PERCENT))
                .isTrue();
    }

    @Test
    void fewDegreesOfFreedomWidenTheBand() {
        Quantity a = Quantity.of(5, 0.1, LabUnit.ONE, Leaf.typeA("a", "a", "", 2));
        assertThat(compare(a, Quantity.number(5.4), Double.NaN).factor()).isCloseTo(4.303, within(1e-3));
        assertThat(compare(a, Quantity.number(5.4), Double.NaN).agrees(School.STANDARD))
                .isTrue();
    }

    @Test
    void exactValuesAgreeOnlyWhenEqual() {
        assertThat(compare(Quantity.number(2), Quantity.number(2), Double.NaN).agrees(School.STANDARD))
                .isTrue();
        Comparison c = compare(Quantity.number(2), Quantity.number(3), Double.NaN);
        assertThat(c.agrees(School.STANDARD)).isFalse();
        assertThat(c.chance()).isZero();
    }

    @Test
    void theReferenceComesInTheResultsUnitOrNotAtAll() {
        assertThat(compare(q("100(1) mm", "a"), q("0.1 m", "b"), Double.NaN)
                        .difference()
                        .value())
                .isCloseTo(0, within(1e-12));
        assertThatThrownBy(() -> compare(q("100(1) mm", "a"), q("1 s", "b"), Double.NaN))
                .isInstanceOf(UnitException.class);
    }

    @Test
    void theBandCoversAsOftenAsItSays() {
        java.util.Random r = new java.util.Random(2);
        int agree = 0;
        for (int i = 0; i < 4000; i++) {
            Quantity a = Quantity.of(
                    7 + 0.3 * r.nextGaussian(), 0.3, LabUnit.ONE, Leaf.typeA("a", "a", "", Double.POSITIVE_INFINITY));
            Quantity b = Quantity.of(
                    7 + 0.4 * r.nextGaussian(), 0.4, LabUnit.ONE, Leaf.typeA("b", "b", "", Double.POSITIVE_INFINITY));
            agree += compare(a, b, Double.NaN).agrees(School.STANDARD) ? 1 : 0;
        }
        assertThat(agree / 4000.0).isBetween(0.94, 0.96);
    }

    @Test
    void whereFirstOrderFailsTheVerdictIsByDraws() {
        Quantity square = q("0.02(100) V", "x").power(2);
        Comparison inside = compare(square, q("1.0 V^2", "r"), Double.NaN);
        assertThat(inside.drawn()).isNotNull();
        assertThat(Math.abs(inside.normalised()))
                .as("first order alone would be sure they differ")
                .isGreaterThan(10);
        assertThat(inside.agrees(School.STANDARD)).isTrue();
        assertThat(inside.verdict(School.STANDARD))
                .contains("by Monte Carlo")
                .contains("agrees with")
                .contains("first order is not good enough");
        assertThat(compare(square, q("9 V^2", "r"), Double.NaN).agrees(School.STANDARD))
                .isFalse();
        Quantity mild = q("5.00(1) V", "y").power(2);
        assertThat(compare(mild, q("25 V^2", "r"), Double.NaN).drawn()).isNull();
        Comparison outside = compare(q("0.02(2)", "z").power(0.5), q("0.1", "r"), Double.NaN);
        assertThat(outside.agrees(School.STANDARD)).isFalse();
        assertThat(outside.verdict(School.STANDARD)).startsWith("No verdict: in 1");
    }

    @Test
    void limitsOfACurvedResultLieUnevenly() {
        Quantity ratio = q("2 limit 1", "a").dividedBy(q("5 limit 1", "b"));
        Comparison c = compare(ratio, q("0.74", "r"), Double.NaN);
        assertThat(c.agrees(School.LIMITS)).isTrue();
        assertThat(c.verdict(School.LIMITS)).contains("0.16667 to 0.75");
        assertThat(compare(ratio, q("0.76", "r"), Double.NaN).agrees(School.LIMITS))
                .isFalse();
    }

    private static Comparison asked(String a, String b, double matters, Demand.Side bound) {
        return Comparison.of(
                "c", "test", q(a, "a"), q(b, "b"), Coverage.DEFAULT, Double.NaN, new Demand(matters, bound));
    }

    /** What is known no better than what matters neither agrees nor does not. */
    @Test
    void whatIsTooUncertainCannotTell() {
        Comparison wide = asked("9.6(8) m", "10 m", 0.5, null);
        assertThat(wide.conclusion(School.STANDARD)).isEqualTo(Conclusion.CANNOT_TELL);
        assertThat(wide.agrees(School.STANDARD)).isFalse();
        assertThat(wide.isAmiss(School.STANDARD)).isFalse();
        assertThat(wide.verdict(School.STANDARD))
                .startsWith("Nobody can tell whether")
                .contains("0.5 m");
        assertThat(asked("9.9(1) m", "10 m", 0.5, null).conclusion(School.STANDARD))
                .isEqualTo(Conclusion.AGREES);
        assertThat(asked("8.0(2) m", "10 m", 0.1, null).conclusion(School.STANDARD))
                .as("a difference that is certain is one, however wide")
                .isEqualTo(Conclusion.DIFFERS);
        assertThat(asked("9(9) m", "10 m", Double.NaN, null).conclusion(School.STANDARD))
                .as("nothing said: the reference itself matters")
                .isEqualTo(Conclusion.CANNOT_TELL);
        assertThat(asked("0.2(9) m", "0 m", Double.NaN, null).conclusion(School.STANDARD))
                .as("against nothing, nothing is said")
                .isEqualTo(Conclusion.AGREES);
        assertThat(asked("0.2(9) m", "0.3(6) m", Double.NaN, null).conclusion(School.STANDARD))
                .as("nor against what cannot be told from nothing")
                .isEqualTo(Conclusion.AGREES);
    }

    /** One-sided: Phi(2) and Phi(-2), and neither within 95 %. */
    @Test
    void boundsAreKeptBrokenOrNobodyCanTell() {
        Comparison kept = asked("1.0(1) V", "1.2 V", Double.NaN, Demand.Side.BELOW);
        assertThat(kept.chanceOfKeeping()).isCloseTo(0.97725, within(1e-5));
        assertThat(kept.conclusion(School.STANDARD)).isEqualTo(Conclusion.KEEPS);
        assertThat(kept.verdict(School.STANDARD)).contains("lies below").contains("97.7 %");
        assertThat(asked("1.0(1) V", "1.2 V", Double.NaN, Demand.Side.ABOVE).conclusion(School.STANDARD))
                .isEqualTo(Conclusion.BREAKS);
        assertThat(asked("1.0(1) V", "1.1 V", Double.NaN, Demand.Side.BELOW).conclusion(School.STANDARD))
                .isEqualTo(Conclusion.CANNOT_TELL);
        assertThat(asked("1 V", "1 V", Double.NaN, Demand.Side.BELOW).chanceOfKeeping())
                .isEqualTo(1);
    }

    /**
     * The square of a standard normal is below 1/2 with probability erf(1/2) = 0.5205; to first order it is certain.
     */
    @Test
    void aBoundOfACurvedResultIsJudgedByDraws() {
        Quantity x = q("0.0(10)", "x");
        Comparison c = Comparison.of(
                "c",
                "test",
                x.times(x),
                q("0.5", "r"),
                Coverage.DEFAULT,
                Double.NaN,
                new Demand(Double.NaN, Demand.Side.BELOW));
        assertThat(c.chanceOfKeeping()).isCloseTo(0.5205, within(0.02));
        assertThat(c.conclusion(School.STANDARD)).isEqualTo(Conclusion.CANNOT_TELL);
        assertThat(c.verdict(School.LIMITS)).startsWith("Nobody can tell whether");
    }
}
