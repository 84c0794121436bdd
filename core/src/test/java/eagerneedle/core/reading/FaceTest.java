package eagerneedle.core.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Every face writes what it reads, takes it apart again, and sees of a truth what its reading allows. */
class FaceTest {
    private static Quantity read(String text) {
        return Written.quantity(text, "id", "reading", "eye");
    }

    static Stream<Arguments> usual() {
        return Stream.of(
                Arguments.of(Face.RULE, 842, 0.5 / 2 * Math.sqrt(2) / Math.sqrt(3), "mm"),
                Arguments.of(Face.VERNIER, 23.35, 0.025 / Math.sqrt(3), "mm"),
                Arguments.of(Face.MICROMETER, 7.734, 0.001 / Math.sqrt(3), "mm"),
                Arguments.of(Face.DIAL, 12.345, 0.0025 / Math.sqrt(3), "mm"),
                Arguments.of(Face.DIAL_AND_VERNIER, 12 + 34.4 / 60, 1 / 600.0 / 2 / Math.sqrt(3), "deg"),
                Arguments.of(Face.ANGLE, 23.5, 0.25 * Math.sqrt(2) / Math.sqrt(3), "deg"),
                Arguments.of(Face.MENISCUS, 23.42, 0.01 * Math.sqrt(2) / Math.sqrt(3), "ml"),
                Arguments.of(Face.METER, 3.42, Math.hypot(0.0125, 0.075) / Math.sqrt(3), "V"),
                Arguments.of(Face.BALANCE, 120, Math.sqrt(1 + 1 + 4) * 1e-3 / Math.sqrt(3), "g"),
                Arguments.of(Face.STOPWATCH, 12.42, Math.sqrt(2 * 0.1 * 0.1 + 1e-4 / 12), "s"),
                Arguments.of(Face.DISPLAY, 5.0, 0.2 / Math.sqrt(3), "V"),
                Arguments.of(Face.SEVERAL, 9.81, Math.sqrt(0.0004 / 3 + 1e-4 / 12), "s"));
    }

    /** Values and uncertainties worked out by hand from what usually stands in the gaps. */
    @ParameterizedTest
    @MethodSource("usual")
    void whatUsuallyStandsThereIsWorkedOutRight(Face face, double value, double u, String unit) {
        Quantity q = read(face.written(face.usual())).to(LabUnit.parse(unit));
        assertThat(q.value()).isCloseTo(value, within(1e-9 * value));
        assertThat(q.u()).isCloseTo(u, within(1e-9));
    }

    @ParameterizedTest
    @EnumSource(Face.class)
    void whatIsWrittenIsTakenApartAgain(Face face) {
        Map<String, String> values = new HashMap<>(face.usual());
        String text = face.written(values);
        assertThat(face.taken(text)).hasValue(values);
        assertThat(face.taken(text.replace(", ", ","))).isPresent();
        String first = face.gaps().get(0).name();
        values.put(first, " ");
        assertThatThrownBy(() -> face.written(values))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(face.gaps().get(0).says());
        assertThat(face.taken("sqrt(2)")).isEmpty();
    }

    /** Of 2000 truths near the usual one, 95 % intervals of what is seen hold at least nine in ten, and limits all. */
    @ParameterizedTest
    @EnumSource(value = Face.class, mode = EnumSource.Mode.EXCLUDE, names = "SEVERAL")
    void whatIsSeenIsWrongByWhatItSays(Face face) {
        Random random = new Random(7);
        Map<String, String> like = face.usual();
        Quantity usual = read(face.written(like));
        int inside = 0;
        int n = 2000;
        double squares = 0;
        for (int i = 0; i < n; i++) {
            Eyesight eye = new Eyesight(
                    () -> 2 * random.nextDouble() - 1, random::nextGaussian, name -> 2 * random.nextDouble() - 1);
            Quantity truth = Quantity.exact(usual.value() * (0.8 + 0.4 * random.nextDouble()), usual.unit());
            Quantity seen = read(face.written(eye.seen(face, like, truth)));
            double error = seen.in(usual.unit()) - truth.value();
            squares += error * error / (seen.u() * seen.u());
            inside += Math.abs(error) <= 1.96 * seen.u() ? 1 : 0;
        }
        assertThat((double) inside / n).isBetween(0.93, 1.0);
        assertThat(Math.sqrt(squares / n)).isBetween(0.75, 1.05);
    }

    @Test
    void aReadingFromOutsideItsScaleIsRefused() {
        for (String bad : Arrays.asList(
                "micrometer(7.5 mm, 51)",
                "micrometer(7.5 mm, -1)",
                "dial(12 mm, 34, turn: -1 mm)",
                "dial(12 mm, 34, marks: 10, mark: 11)",
                "dial(12 mm, 34, judged: 2)",
                "vernier(23 mm, 21)",
                "balance(100 g, tolerance: -1 mg)",
                "balance(100 g, 20 mm)",
                "picked_length(1, 1, 1, 1, 0, 0, 9, 0, 300 mm)",
                "picked_length(1, 1, 5, 1, 0, 0, 0, 0, 300 mm)",
                "picked_angle(1, 1, 1, 1, 0, 5)",
                "picked_length(1, 1, 5, 1, 0, 0, 9, 0, 300 mm, pick: -1)",
                "9.79; x; 9.81 s",
                "9.79 mm; 9.81 s",
                ";")) {
            assertThatThrownBy(() -> read(bad)).as(bad).isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void aMicrometerKnowsItsUnit() {
        assertThat(read("micrometer(0.75 cm, 23.4)").value()).isCloseTo(0.7734, within(1e-12));
        assertThat(read("micrometer(0.75 cm, 23.4)").u()).isCloseTo(1e-4 / Math.sqrt(3), within(1e-12));
    }

    @Test
    void weightsOfOneSetAreTheSameInEveryWeighing() {
        Quantity full = read("balance(100 g, 20 g, tolerance: 1 mg, sensitivity: 0 mg, set: \"A\")");
        Quantity less =
                Written.quantity("balance(100 g, tolerance: 1 mg, sensitivity: 0 mg, set: \"A\")", "b", "b", "b");
        assertThat(full.minus(less).u()).isCloseTo(1e-3 / Math.sqrt(3), within(1e-12));
        Quantity other =
                Written.quantity("balance(100 g, tolerance: 1 mg, sensitivity: 0 mg, set: \"B\")", "b", "b", "b");
        assertThat(full.minus(other).u()).isCloseTo(1e-3, within(1e-12));
        // Two weights of one nominal mass are two weights.
        assertThat(read("balance(20 g, 20 g, tolerance: 1 mg, sensitivity: 0 mg)")
                        .u())
                .isCloseTo(Math.sqrt(2) * 1e-3 / Math.sqrt(3), within(1e-12));
    }

    @Test
    void severalReadingsAreTheirMean() {
        Quantity q = read("9.79; 9.83; 9.81 s");
        assertThat(q.value()).isCloseTo(9.81, within(1e-12));
        // Scatter 0.0004/3 and a display of 1e-4/12: their sum is 1.0625 times the first (Welch and Satterthwaite).
        assertThat(q.dof()).isCloseTo(2 * 1.0625 * 1.0625, within(1e-9));
        // All on one digit: what is left is the display's.
        assertThat(read("9.8; 9.8; 9.8 s").u()).isCloseTo(0.1 / Math.sqrt(12), within(1e-12));
        assertThat(read("5.00 V;").u()).isZero();
        // A unit without a dimension is a unit: all three are percent, and all three are degrees.
        assertThat(read("5.0; 6.0; 7.0 %").in(LabUnit.parse("%"))).isCloseTo(6, within(1e-9));
        assertThat(read("12.0; 13.0 deg").in(LabUnit.parse("deg"))).isCloseTo(12.5, within(1e-9));
        // The step of each display is its own: 0.1 cm is a millimetre.
        assertThat(read("31.3 cm; 313 mm").u()).isCloseTo(1 / Math.sqrt(12) / 10, within(1e-6));
        Quantity built = read("vernier(23 mm, 7); vernier(23 mm, 8); vernier(23 mm, 9)");
        assertThat(built.value()).isCloseTo(23.4, within(1e-12));
        assertThat(read("21.3 degC; 21.5 degC; 21.4 degC").value()).isCloseTo(21.4, within(1e-9));
    }

    /** A division of 0.2 K is a fifth of a degree on a thermometer, written as a difference or not. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "reading(21.4 degC, division: 0.2 K, edges: 1) | 21.4 | 0.05",
                "reading(21.4 degC, division: 0.2 degC, edges: 1) | 21.4 | 0.05",
                "accuracy(21.4 degC, fixed: 0.5 K) | 21.4 | 0.5",
                "accuracy(21.4 degC, fixed: 0.5 degC) | 21.4 | 0.5",
                "accuracy(21.4 degC, digits: 2, digit: 0.1 K) | 21.4 | 0.2",
                "accuracy(21.4 degC, of_range: 1 %, range: 100 degC) | 21.4 | 1",
                "accuracy(70 degF, fixed: 1 K) | 70 | 1.8",
                "vernier(20 degC, 7, division: 1 K) | 20.35 | 0.025",
                "dial(20 degC, 34, turn: 10 K, judged: 0.5) | 23.4 | 0.025",
                "repeats(21.4 degC, 21.4 degC, resolution: 0.1 K) | 21.4 | 0.05",
                "21.4; 21.4 degC | 21.4 | 0.05"
            })
    void stepsOfAThermometerAreDifferences(String text, double value, double limit) {
        Quantity q = read(text);
        assertThat(q.value()).isCloseTo(value, within(1e-9));
        assertThat(q.unit().isAffine()).isTrue();
        assertThat(q.u()).isCloseTo(limit / Math.sqrt(3), within(1e-9));
    }
}
