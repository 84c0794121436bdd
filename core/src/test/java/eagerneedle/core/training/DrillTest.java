package eagerneedle.core.training;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reading.Face;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class DrillTest {
    static Stream<Face> faces() {
        return Drill.FACES.stream();
    }

    private static Drill some(Face face, long seed) {
        return Drill.of(face, new Random(seed));
    }

    @ParameterizedTest
    @MethodSource("faces")
    void whatIsReadRightlyIsRightAndWhatIsNotIsSaid(Face face) {
        for (long seed = 0; seed < 200; seed++) {
            Drill d = some(face, seed);
            double v = d.right().value();
            double u = d.right().u();
            assertThat(u).as(d.toString()).isPositive();
            assertThat(v).isPositive();
            assertThat(d.judge(v, u).isRight()).isTrue();
            assertThat(d.judge(v + 1.7 * u, 1.5 * u).isRight()).isTrue();
            assertThat(d.judge(v + 3 * u, u).value()).isFalse();
            assertThat(d.judge(v, u / 10).u()).isFalse();
            assertThat(d.judge(v, u / 10).says().get(1)).startsWith("The uncertainty is too small: u = ");
            assertThat(d.judge(v, 10 * u).says().get(1)).startsWith("The uncertainty is too large: u = ");
            assertThat(d.judge(v, Double.NaN).says().get(1)).startsWith("An uncertainty belongs to it: u = ");
            assertThat(d.known()).endsWith(".").doesNotContain("null");
        }
    }

    @Test
    void slipsHaveTheirNames() {
        Drill micrometer = some(Face.MICROMETER, 3);
        assertThat(micrometer
                        .judge(micrometer.right().value() - 0.5, 0.001)
                        .says()
                        .get(0))
                .contains("a turn of the thimble is missing");
        Drill vernier = some(Face.VERNIER, 3);
        assertThat(vernier.judge(vernier.right().value() + 1, 0.01).says().get(0))
                .contains("one division of the main scale");
        Drill meter = some(Face.METER, 3);
        assertThat(meter.judge(meter.right().value() * 10, 0.05).says().get(0)).contains("the power of ten is not");
    }

    /** Half the digits of a vernier as a limit: by hand, for one of each kind. */
    @Test
    void theUncertaintyIsThatOfTheFace() {
        for (long seed = 0; seed < 50; seed++) {
            Drill d = some(Face.VERNIER, seed);
            double marks = Double.parseDouble(d.values().get("marks"));
            assertThat(d.right().u()).isCloseTo(0.5 / marks / Math.sqrt(3), org.assertj.core.data.Offset.offset(1e-9));
        }
    }

    @Test
    void drawingsDifferAndComeAgainWithTheirSeed() {
        List<String> all = Stream.iterate(0L, i -> i + 1)
                .limit(100)
                .map(i -> some(Face.MICROMETER, i).right().toString())
                .toList();
        assertThat(all.stream().distinct().count()).isGreaterThan(90);
        assertThat(some(Face.MICROMETER, 5).values())
                .isEqualTo(some(Face.MICROMETER, 5).values());
    }
}
