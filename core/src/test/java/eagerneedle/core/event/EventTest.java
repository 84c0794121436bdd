package eagerneedle.core.event;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** Gate edges, periods and counts. */
class EventTest {
    private static double[] train(int n, double period, double jitter, SplittableRandom random, int... missing) {
        List<Double> out = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            int at = i;
            if (java.util.Arrays.stream(missing).noneMatch(m -> m == at)) {
                out.add(1 + i * period + jitter * random.nextGaussian());
            }
        }
        return out.stream().mapToDouble(Double::doubleValue).toArray();
    }

    @Test
    void missedAndDoubleEdgesAreFoundAndAllowedFor() {
        SplittableRandom random = new SplittableRandom(4);
        Edges missed = Edges.of(train(30, 0.5, 0.002, random, 7, 15, 16));
        assertThat(missed.suspects())
                .extracting(Edges.Suspect::kind)
                .containsExactly(Edges.Kind.MISSED, Edges.Kind.MISSED);
        assertThat(missed.suspects()).extracting(Edges.Suspect::count).containsExactly(1, 2);
        assertThat(missed.suspects().get(1).sentence()).contains("2 edges seem");
        Period p = Period.of(missed, 0, "p");
        assertThat(p.value().value()).isCloseTo(0.5, within(3e-4));
        assertThat(p.periods()).isEqualTo(29);
        assertThat(p.remarks()).hasSize(2);
        double[] clean = train(20, 0.5, 0.001, random);
        double[] twice = new double[21];
        System.arraycopy(clean, 0, twice, 0, 10);
        twice[10] = clean[9] + 0.02;
        System.arraycopy(clean, 10, twice, 11, 10);
        Edges doubled = Edges.of(twice);
        assertThat(doubled.suspects()).anyMatch(s -> s.kind() == Edges.Kind.DOUBLE && s.index() == 10);
        assertThat(Period.of(doubled, 0, "p").value().value()).isCloseTo(0.5, within(3e-4));
        assertThat(Edges.of(clean).suspects()).isEmpty();
        assertThatThrownBy(() -> Edges.of(new double[] {1, 2, 2})).hasMessageContaining("edge 3 does not come after");
        assertThatThrownBy(() -> Period.of(Edges.of(new double[] {1, 2}), 0, "p"))
                .hasMessageContaining("at least 3 edges");
    }

    @Test
    void periodsAreCoveredAsStatedWithJitterOfTheEdges() {
        SplittableRandom random = new SplittableRandom(11);
        int covered = 0;
        for (int s = 0; s < 2000; s++) {
            Quantity p =
                    Period.of(Edges.of(train(12, 0.8, 0.003, random)), 0, "p").value();
            covered += Math.abs(p.value() - 0.8) <= Coverage.DEFAULT.expanded(p) ? 1 : 0;
        }
        System.out.println("gate period covered in " + covered / 20.0 + " %");
        assertThat(covered / 2000.0).isBetween(0.93, 0.97);
    }

    @Test
    void periodsThatWanderAreCoveredToo() {
        SplittableRandom random = new SplittableRandom(12);
        int covered = 0;
        for (int s = 0; s < 400; s++) {
            double[] t = new double[60];
            for (int i = 1; i < t.length; i++) {
                t[i] = t[i - 1] + 0.8 + 0.02 * random.nextGaussian();
            }
            Quantity p = Period.of(Edges.of(t), 0, "p").value();
            covered += Math.abs(p.value() - 0.8) <= Coverage.DEFAULT.expanded(p) ? 1 : 0;
        }
        assertThat(covered / 400.0).isBetween(0.90, 0.98);
    }

    @Test
    void poissonRatesAreCoveredAsStated() {
        SplittableRandom random = new SplittableRandom(13);
        int covered = 0;
        for (int s = 0; s < 2000; s++) {
            int n = 0;
            for (double t = -Math.log(1 - random.nextDouble()) / 25;
                    t < 8;
                    t += -Math.log(1 - random.nextDouble()) / 25) {
                n++;
            }
            Quantity r = Counting.rate(n, 1, Quantity.exact(8, LabUnit.SECOND), Quantity.exact(0, LabUnit.SECOND), "r");
            covered += Math.abs(r.value() - 25) <= Coverage.DEFAULT.expanded(r) ? 1 : 0;
        }
        System.out.println("Poisson rate covered in " + covered / 20.0 + " %");
        assertThat(covered / 2000.0).isBetween(0.93, 0.97);
    }

    @Test
    void deadTimeAndPrescaler() {
        Quantity time = Quantity.exact(10, LabUnit.SECOND);
        Quantity dead = Quantity.exact(20e-6, LabUnit.SECOND);
        SplittableRandom random = new SplittableRandom(14);
        int seen = 0;
        double free = 0;
        for (double t = 0; t < 10; t += -Math.log(1 - random.nextDouble()) / 8000) {
            if (t >= free) {
                seen++;
                free = t + 20e-6;
            }
        }
        Quantity r = Counting.rate(seen, 1, time, dead, "r");
        assertThat(Math.abs(r.value() - 8000)).isLessThan(4 * r.u());
        assertThat(seen / 10.0).isLessThan(7200);
        Quantity scaled = Counting.rate(125, 64, time, Quantity.exact(0, LabUnit.SECOND), "r");
        assertThat(scaled.value()).isCloseTo(800, within(1e-9));
        assertThat(scaled.u()).isCloseTo(Math.sqrt(8000 + 64 * 64 / 12.0) / 10, within(1e-9));
        assertThatThrownBy(() -> Counting.rate(1e6, 1, time, dead, "r")).hasMessageContaining("dead all the time");
    }

    @Test
    void theDispersionTestKnowsRandomFromDisturbed() {
        SplittableRandom random = new SplittableRandom(15);
        int alarms = 0;
        for (int s = 0; s < 1000; s++) {
            double[] counts = new double[20];
            for (int i = 0; i < 20; i++) {
                for (double t = -Math.log(1 - random.nextDouble()); t < 60; t += -Math.log(1 - random.nextDouble())) {
                    counts[i]++;
                }
            }
            alarms += Counting.dispersion(counts).chance() < 0.05 ? 1 : 0;
        }
        assertThat(alarms).isBetween(25, 80);
        assertThat(Counting.dispersion(new double[] {50, 100, 60, 140, 90}).sentence())
                .contains("more than random");
        assertThat(Counting.dispersion(new double[] {100, 100, 101, 100, 100, 100})
                        .sentence())
                .contains("less than random");
    }
}
