package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.reading.Face;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Faces look as the instrument does at a reading. */
class FacesTest {
    private record Stroke(double x1, double y1, double x2, double y2, Ink ink) {}

    /** Keeps the strokes and the words. */
    private static final class Kept implements Surface {
        private final List<Stroke> strokes = new ArrayList<>();
        private final List<String> words = new ArrayList<>();

        @Override
        public void line(double x1, double y1, double x2, double y2, Ink ink, double width) {
            strokes.add(new Stroke(x1, y1, x2, y2, ink));
        }

        @Override
        public void polyline(double[] x, double[] y, int n, Ink ink, double width, double... dash) {
            for (int i = 1; i < n; i++) {
                strokes.add(new Stroke(x[i - 1], y[i - 1], x[i], y[i], ink));
            }
        }

        @Override
        public void polygon(double[] x, double[] y, Ink fill) {
            assertThat(x).hasSameSizeAs(y);
        }

        @Override
        public void rectangle(double x, double y, double width, double height, Ink fill, Ink stroke, double corner) {
            assertThat(width).isPositive();
            assertThat(height).isPositive();
        }

        @Override
        public void circle(double x, double y, double radius, Ink fill, Ink stroke, double width) {
            assertThat(radius).isPositive();
        }

        @Override
        public void text(String text, double x, double y, Align align, Lettering lettering, Ink ink) {
            words.add(text);
        }

        @Override
        public double textWidth(String text, Lettering lettering) {
            return 7.0 * text.length();
        }

        @Override
        public void clipped(double x, double y, double width, double height, Runnable painting) {
            painting.run();
        }

        List<Stroke> of(Ink ink) {
            return strokes.stream().filter(s -> s.ink() == ink).toList();
        }
    }

    private static Kept painted(Face face, Map<String, String> values) {
        Kept kept = new Kept();
        Faces.paint(kept, 500, 190, face, values);
        return kept;
    }

    @ParameterizedTest
    @EnumSource(Face.class)
    void everyFaceIsPainted(Face face) {
        for (int[] size : new int[][] {{500, 190}, {160, 80}, {1400, 600}}) {
            Kept kept = new Kept();
            Faces.paint(kept, size[0], size[1], face, face.usual());
            assertThat(kept.words).isNotEmpty();
        }
        Map<String, String> broken = new HashMap<>(face.usual());
        broken.put(face.gaps().get(0).name(), "about there");
        if (face != Face.STOPWATCH && face != Face.DISPLAY) {
            assertThatThrownBy(() -> painted(face, broken)).isInstanceOf(IllegalArgumentException.class);
        }
    }

    /** The mark of a vernier that is said to meet one of the main scale does so, and no other comes as near. */
    @Test
    void theMarkOfAVernierMeetsOneAbove() {
        for (int mark = 1; mark < 20; mark++) {
            Map<String, String> values = new HashMap<>(Face.VERNIER.usual());
            values.put("mark", Integer.toString(mark));
            Kept kept = painted(Face.VERNIER, values);
            Stroke meets = kept.of(Ink.NEEDLE).get(0);
            List<Stroke> above =
                    kept.of(Ink.INK).stream().filter(s -> s.y2() < s.y1()).toList();
            double nearest = above.stream()
                    .mapToDouble(s -> Math.abs(s.x1() - meets.x1()))
                    .min()
                    .orElseThrow();
            assertThat(nearest).as("mark " + mark).isCloseTo(0, within(1e-6));
        }
    }

    @Test
    void thePointerOfAMeterStandsAtItsShareOfTheRange() {
        Map<String, String> values = new HashMap<>(Face.METER.usual());
        double[] angles = new double[3];
        String[] marks = {"0 V", "2.5 V", "5 V"};
        for (int i = 0; i < 3; i++) {
            values.put("mark", marks[i]);
            Stroke p = painted(Face.METER, values).of(Ink.NEEDLE).get(0);
            angles[i] = Math.toDegrees(Math.atan2(p.x2() - p.x1(), p.y1() - p.y2()));
        }
        assertThat(angles[0]).isCloseTo(-46, within(1e-6));
        assertThat(angles[1]).isCloseTo(0, within(1e-6));
        assertThat(angles[2]).isCloseTo(46, within(1e-6));
    }

    @Test
    void aBuretteCountsDownwardsAndACylinderUpwards() {
        Map<String, String> values = new HashMap<>(Face.MENISCUS.usual());
        assertThat(painted(Face.MENISCUS, values).words).anyMatch(t -> t.contains("counted downwards"));
        values.put("edges", "1");
        assertThat(painted(Face.MENISCUS, values).words).anyMatch(t -> t.contains("counted upwards"));
    }

    @Test
    void theHandOfADialGoesRoundOnce() {
        Map<String, String> values = new HashMap<>(Face.DIAL.usual());
        values.put("hand", "25");
        Stroke hand = painted(Face.DIAL, values).of(Ink.NEEDLE).get(0);
        assertThat(hand.y2()).as("a quarter of a turn is to the right").isCloseTo(hand.y1(), within(1e-6));
        assertThat(hand.x2()).isGreaterThan(hand.x1());
    }
}
