package eagerneedle.core.judge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Several routes, candidates, targets and circular comparisons. */
class RoutesTest {
    private static final LabUnit V = LabUnit.parse("V");

    private static Quantity q(String id, double value, double u) {
        return Quantity.of(value, u, V, Leaf.typeB(id, id, "test", Distribution.NORMAL));
    }

    @Test
    void independentRoutesAreWeightedByTheirVariance() {
        Routes r = Routes.of(List.of("a", "b", "c"), List.of(q("a", 10.0, 0.1), q("b", 10.4, 0.2), q("c", 10.1, 0.4)));
        double w = 1 / 0.01 + 1 / 0.04 + 1 / 0.16;
        double mean = (10.0 / 0.01 + 10.4 / 0.04 + 10.1 / 0.16) / w;
        assertThat(r.mean().value()).isCloseTo(mean, within(1e-12));
        assertThat(r.mean().u()).isCloseTo(Math.sqrt(1 / w), within(1e-12));
        double chi =
                Math.pow((10 - mean) / 0.1, 2) + Math.pow((10.4 - mean) / 0.2, 2) + Math.pow((10.1 - mean) / 0.4, 2);
        assertThat(r.chiSquare()).isCloseTo(chi, within(1e-9));
        assertThat(r.birgeRatio()).isCloseTo(Math.sqrt(chi / 2), within(1e-9));
        assertThat(r.sentence()).contains("agree");
    }

    @Test
    void whatRoutesShareIsNotAveragedAway() {
        Quantity shared = q("scale", 0, 0.3);
        Routes r = Routes.of(
                List.of("a", "b"),
                List.of(q("a", 10, 0.1).plus(shared), q("b", 10.1, 0.1).plus(shared)));
        assertThat(r.mean().u()).isCloseTo(Math.sqrt(0.09 + 0.005), within(1e-12));
        assertThat(r.chiSquare()).isCloseTo(0.01 / 0.02, within(1e-9));
    }

    @Test
    void theOddOneOutIsNamed() {
        Routes r = Routes.of(
                List.of("spool", "rolling", "swing"),
                List.of(q("a", 10.0, 0.1), q("b", 11.5, 0.1), q("c", 10.05, 0.1)));
        assertThat(r.oddOneOut()).isEqualTo(1);
        assertThat(r.sentence()).contains("do not agree").contains("rolling stands out");
    }

    @Test
    void routesThatAreFunctionsOfEachOtherAreNamedAndNotAveraged() {
        Quantity a = q("a", 10, 0.1);
        Quantity b = q("b", 10.2, 0.2);
        Routes r = Routes.of(
                List.of("one", "two", "half of both"), List.of(a, b, a.plus(b).scaled(0.5)));
        assertThat(r.isRedundant()).isTrue();
        assertThat(r.mean()).isNull();
        assertThat(r.sentence()).contains("one, two and half of both").contains("not averaged");
        assertThatThrownBy(() -> Routes.of(List.of("a", "x"), List.of(a, Quantity.exact(1, V))))
                .hasMessageContaining("no uncertainty");
    }

    @Test
    void candidatesShareTheLikelihood() {
        Map<String, Quantity> refs = new LinkedHashMap<>();
        refs.put("brass", Quantity.exact(8.48, V));
        refs.put("bronze", Quantity.exact(8.8, V));
        refs.put("steel", Quantity.exact(7.85, V));
        assertThat(Candidates.of(q("x", 8.5, 0.05), refs).sentence()).contains("fits brass best");
        assertThat(Candidates.of(q("x", 8.64, 0.2), refs).sentence()).contains("cannot be told apart");
        assertThat(Candidates.of(q("x", 6, 0.05), refs).sentence())
                .contains("none of the candidates")
                .contains("steel");
        assertThat(Candidates.of(q("x", 8.64, 0.2), refs).entries().stream()
                        .mapToDouble(Candidates.Entry::share)
                        .sum())
                .isCloseTo(1, within(1e-12));
    }

    @Test
    void theCheapestWayToATargetMeetsItExactly() {
        Quantity x = q("large", 10, 0.4).plus(q("middle", 0, 0.3)).plus(q("small", 0, 0.05));
        for (double target : new double[] {0.45, 0.32, 0.2, 0.1, 0.06, 0.01}) {
            Target t = Target.of(x, target);
            double left = x.u() * x.u();
            for (Target.Change c : t.changes()) {
                left += c.to() * c.to() - c.from() * c.from();
                assertThat(c.factor()).isGreaterThan(1);
            }
            assertThat(Math.sqrt(left)).as("target " + target).isCloseTo(target, within(1e-12));
        }
        assertThat(Target.of(x, 0.45).single())
                .get()
                .extracting(Target.Change::label)
                .isEqualTo("large");
        assertThat(Target.of(x, 0.2).changes()).hasSize(2);
        assertThat(Target.of(x, 0.6).sentence()).contains("is met");
    }

    @Test
    void aComparisonWithItsOwnReferenceIsCircular() {
        Quantity mass = q("check mass", 1, 0.01);
        Quantity result = mass.scaled(3).plus(q("own", 0, 0.001));
        assertThat(Circularity.remark("The force", result, "the check mass", mass))
                .get()
                .asString()
                .contains("circular")
                .contains("check mass");
        assertThat(Circularity.remark("The force", q("other", 3, 0.1), "the check mass", mass))
                .isEmpty();
        assertThat(Circularity.remark("TH-CM-1", List.of("TH-CM-1", "TH-CM-2"))).isPresent();
    }

    @Test
    void percentagesAreNamedAndNotMixed() {
        assertThat(Percent.error(q("a", 9.7, 0.1), q("b", -10, 0.1)).value()).isCloseTo(197, within(1e-9));
        assertThat(Percent.difference(q("a", 9.7, 0.1), q("b", 9.9, 0.1)).value())
                .isCloseTo(100 * 0.2 / 9.8, within(1e-9));
        assertThat(Percent.difference(q("b", 9.9, 0.1), q("a", 9.7, 0.1)).value())
                .isCloseTo(100 * 0.2 / 9.8, within(1e-9));
    }
}
