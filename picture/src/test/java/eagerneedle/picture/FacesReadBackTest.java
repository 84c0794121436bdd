package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reading.Face;
import eagerneedle.core.training.Drill;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Every face that is asked in the drill is read back from its strokes and words alone, as an eye would, and gives the
 * reading that was drawn; and none of them says it in words.
 */
class FacesReadBackTest {
    private static final double W = 520;
    private static final double H = 220;

    private record Stroke(double x1, double y1, double x2, double y2, Ink ink) {
        double length() {
            return Math.hypot(x2 - x1, y2 - y1);
        }

        double middle() {
            return (x1 + x2) / 2;
        }
    }

    private record Word(String text, double x, double y) {
        boolean isNumber() {
            return text.matches("-?[0-9.]+");
        }

        double number() {
            return Double.parseDouble(text);
        }
    }

    private static final class Seen implements Surface {
        private final List<Stroke> strokes = new ArrayList<>();
        private final List<Word> words = new ArrayList<>();

        @Override
        public void line(double x1, double y1, double x2, double y2, Ink ink, double width) {
            strokes.add(new Stroke(x1, y1, x2, y2, ink));
        }

        @Override
        public void polyline(double[] x, double[] y, int n, Ink ink, double width, double... dash) {
            // Outlines are not read.
        }

        @Override
        public void polygon(double[] x, double[] y, Ink fill) {
            // Likewise.
        }

        @Override
        public void rectangle(double x, double y, double width, double height, Ink fill, Ink stroke, double corner) {
            // Likewise.
        }

        @Override
        public void circle(double x, double y, double radius, Ink fill, Ink stroke, double width) {
            // Likewise.
        }

        @Override
        public void text(String text, double x, double y, Align align, Lettering lettering, Ink ink) {
            words.add(new Word(text, x, y));
        }

        @Override
        public double textWidth(String text, Lettering lettering) {
            return 7.0 * text.length();
        }

        @Override
        public void clipped(double x, double y, double width, double height, Runnable painting) {
            painting.run();
        }

        Stroke needle() {
            return strokes.stream()
                    .filter(s -> s.ink() == Ink.NEEDLE)
                    .findFirst()
                    .orElseThrow();
        }

        List<Stroke> upright() {
            return strokes.stream()
                    .filter(s -> s.ink() == Ink.INK && Math.abs(s.x1() - s.x2()) < 1e-9)
                    .sorted(Comparator.comparingDouble(Stroke::x1))
                    .toList();
        }

        List<Word> numbers() {
            return words.stream().filter(Word::isNumber).toList();
        }
    }

    static Stream<Face> faces() {
        return Drill.FACES.stream();
    }

    @ParameterizedTest
    @MethodSource("faces")
    void everyFaceGivesTheValueDrawn(Face face) {
        for (long seed = 0; seed < 120; seed++) {
            Drill d = Drill.of(face, new Random(seed));
            Seen seen = new Seen();
            Faces.asked(seen, W, H, face, d.values());
            assertThat(Math.abs(read(d, seen) - d.right().value()))
                    .as("%s %s", d.values(), d.right())
                    .isLessThan(1.2 * d.right().u() + 1e-9);
            if (face != Face.BALANCE) {
                assertThat(seen.words)
                        .noneMatch(w -> w.text().contains(" at ") || w.text().contains("meets"));
            }
        }
    }

    private static double read(Drill d, Seen seen) {
        return switch (d.face()) {
            case RULE -> along(d, seen);
            case ANGLE -> around(d, seen);
            case METER -> meter(d, seen);
            case DIAL -> turns(seen) + dial(seen) / 100;
            case VERNIER -> vernier(d, seen, 1);
            case DIAL_AND_VERNIER -> turns(seen) + vernier(d, seen, 1) / 60;
            case MICROMETER -> micrometer(seen);
            case MENISCUS -> meniscus(d, seen);
            default ->
                seen.words.stream()
                        .filter(w -> w.text().endsWith(" g"))
                        .mapToDouble(w -> Double.parseDouble(w.text().replace(" g", "")))
                        .sum();
        };
    }

    private static double division(Drill d) {
        return Double.parseDouble(d.values().get("division").split(" ")[0]);
    }

    private static double turns(Seen seen) {
        return seen.words.stream()
                .filter(w -> w.text().startsWith("whole turns: "))
                .mapToDouble(w -> Double.parseDouble(w.text().split(" ")[2]))
                .findFirst()
                .orElseThrow();
    }

    /** The spacing of neighbouring marks, the smallest there is. */
    private static double spacing(List<Double> sorted) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = 1; i < sorted.size(); i++) {
            double gap = sorted.get(i) - sorted.get(i - 1);
            least = gap > 1e-6 ? Math.min(least, gap) : least;
        }
        return least;
    }

    private static double along(Drill d, Seen seen) {
        Word label = seen.numbers().get(0);
        double gap = spacing(seen.upright().stream().map(Stroke::x1).toList());
        return label.number() + (seen.needle().x1() - label.x()) / gap * division(d);
    }

    private static double angle(Stroke s) {
        boolean outwards = s.y2() < s.y1();
        double dx = outwards ? s.x2() - s.x1() : s.x1() - s.x2();
        double dy = outwards ? s.y1() - s.y2() : s.y2() - s.y1();
        return Math.atan2(dx, dy);
    }

    private static double around(Drill d, Seen seen) {
        List<Double> angles = seen.strokes.stream()
                .filter(s -> s.ink() == Ink.INK && s.length() < 30)
                .map(FacesReadBackTest::angle)
                .sorted()
                .toList();
        List<Stroke> longest = seen.strokes.stream()
                .filter(s -> s.ink() == Ink.INK && s.length() > 20 && s.length() < 30)
                .sorted(Comparator.comparingDouble(Stroke::middle))
                .toList();
        List<Word> labels = seen.numbers().stream()
                .sorted(Comparator.comparingDouble(Word::x))
                .toList();
        return labels.get(0).number() - angle(longest.get(0)) / spacing(angles) * division(d);
    }

    private static double meter(Drill d, Seen seen) {
        List<Double> marks = seen.strokes.stream()
                .filter(s -> s.ink() == Ink.INK && s.length() < 15)
                .map(FacesReadBackTest::angle)
                .sorted()
                .toList();
        double end = seen.numbers().stream().mapToDouble(Word::number).max().orElseThrow();
        double first = marks.get(0);
        return (angle(seen.needle()) - first) / (marks.get(marks.size() - 1) - first) * end;
    }

    private static double dial(Seen seen) {
        Stroke n = seen.needle();
        double a = Math.atan2(n.x2() - n.x1(), n.y1() - n.y2());
        return 100 * (a < -1e-9 ? a + 2 * Math.PI : Math.max(0, a)) / (2 * Math.PI);
    }

    /** Where the vernier's zero stands on the main scale, and which of its marks meets one above best. */
    private static double vernier(Drill d, Seen seen, double each) {
        double marks = Double.parseDouble(d.values().get("marks"));
        List<Stroke> above =
                seen.upright().stream().filter(s -> s.y2() < s.y1()).toList();
        List<Stroke> below =
                seen.upright().stream().filter(s -> s.y2() > s.y1()).toList();
        List<Word> labels =
                seen.numbers().stream().filter(w -> w.y() < above.get(0).y1()).toList();
        double gap = spacing(above.stream().map(Stroke::x1).toList());
        double zero = labels.get(0).number() / each
                + (below.get(0).x1() - labels.get(0).x()) / gap;
        int best = 0;
        double nearest = Double.POSITIVE_INFINITY;
        for (int i = 0; i < marks; i++) {
            double x = below.get(i).x1();
            double off =
                    above.stream().mapToDouble(s -> Math.abs(s.x1() - x)).min().orElseThrow();
            if (off < nearest - 1e-6) {
                nearest = off;
                best = i;
            }
        }
        return Math.floor(zero + 1e-6) + best / marks;
    }

    private static double micrometer(Seen seen) {
        Stroke line = seen.needle();
        List<Stroke> sleeve = seen.upright().stream()
                .filter(s -> s.x1() < line.x2() && Math.abs(s.y1() - line.y1()) < 1e-6)
                .toList();
        List<Word> millimetres = seen.numbers().stream()
                .filter(w -> w.x() < line.x1() + 6)
                .sorted(Comparator.comparingDouble(Word::x))
                .toList();
        Word last = millimetres.get(millimetres.size() - 1);
        double shown = sleeve.stream().filter(s -> s.x1() > last.x() + 1e-6).count() * 0.5;
        List<Word> round = seen.numbers().stream()
                .filter(w -> w.x() > line.x2())
                .sorted(Comparator.comparingDouble(Word::y))
                .toList();
        double gap = (round.get(1).y() - round.get(0).y()) / 5;
        Word near = round.stream()
                .min(Comparator.comparingDouble(w -> Math.abs(w.y() - 4 - line.y1())))
                .orElseThrow();
        double thimble = near.number() + (near.y() - 4 - line.y1()) / gap;
        return last.number() + shown + ((thimble + 50) % 50) / 50 * 0.5;
    }

    private static double meniscus(Drill d, Seen seen) {
        List<Double> marks = seen.strokes.stream()
                .filter(s -> s.ink() == Ink.INK && Math.abs(s.y1() - s.y2()) < 1e-9)
                .map(Stroke::y1)
                .sorted()
                .toList();
        Word label = seen.numbers().get(0);
        boolean down = seen.numbers().size() > 1
                ? (seen.numbers().get(1).number() - label.number())
                                * (seen.numbers().get(1).y() - label.y())
                        > 0
                : d.values().get("edges").equals("2");
        double steps = (seen.needle().y1() - (label.y() - 4)) / spacing(marks);
        return label.number() + (down ? steps : -steps) * division(d);
    }
}
