package eagerneedle.app.eye;

import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Points that are picked on a picture, what is known of it, and the length or angle that comes of them. */
final class PickModel {
    /** What is measured. */
    enum Kind {
        LENGTH("a length", "from", "to", "scale: one end", "scale: other end"),
        ANGLE("an angle", "at", "one arm", "other arm");

        private final String label;
        private final List<String> points;

        Kind(String label, String... points) {
            this.label = label;
            this.points = List.of(points);
        }

        String label() {
            return label;
        }

        /** What is to be picked, in order. */
        List<String> points() {
            return points;
        }
    }

    /** A point of the picture, in its own points from the upper left corner. */
    record Spot(double x, double y) {}

    private static final String NUMBER = "(-?[\\d.]+)";
    private static final Pattern LENGTH = Pattern.compile("picked_length\\(" + (NUMBER + ", ").repeat(8)
            + "(.+), pick: " + NUMBER + ", parallax: (.+), picture: (\\d+)\\)");
    private static final Pattern ANGLE =
            Pattern.compile("picked_angle\\(" + (NUMBER + ", ").repeat(6) + "pick: " + NUMBER + ", picture: (\\d+)\\)");

    private final WantedReading wanted;
    private final int picture;
    private final double width;
    private final double height;
    private Kind kind;
    private List<Spot> spots;
    private String length = "100 mm";
    private String pick = "1";
    private String parallax = "0 %";

    /**
     * @param label what is measured
     * @param expected what a reading of it looks like, as written
     * @param text what stands in its field so far; what was picked on this picture is taken up again
     * @param picture its number among the attachments
     * @param width of the picture, in its points
     * @param height likewise
     */
    PickModel(String label, String expected, String text, int picture, double width, double height) {
        this.wanted = WantedReading.like(label, expected);
        this.picture = picture;
        this.width = width;
        this.height = height;
        this.kind = wanted.unit().fits(LabUnit.parse("deg")) ? Kind.ANGLE : Kind.LENGTH;
        this.spots = spread(kind);
        takeUp(text.strip());
    }

    /** Points in open order, where they can be seen and dragged. */
    private List<Spot> spread(Kind k) {
        return k == Kind.LENGTH
                ? List.of(at(0.3, 0.4), at(0.7, 0.4), at(0.2, 0.8), at(0.8, 0.8))
                : List.of(at(0.3, 0.6), at(0.7, 0.6), at(0.5, 0.25));
    }

    private Spot at(double x, double y) {
        return new Spot(Math.rint(x * width), Math.rint(y * height));
    }

    private void takeUp(String text) {
        Matcher m = LENGTH.matcher(text);
        if (m.matches() && Integer.parseInt(m.group(12)) == picture) {
            kind = Kind.LENGTH;
            spots = spots(m, 4);
            length = m.group(9);
            pick = m.group(10);
            parallax = m.group(11);
        }
        m = ANGLE.matcher(text);
        if (m.matches() && Integer.parseInt(m.group(8)) == picture) {
            kind = Kind.ANGLE;
            spots = spots(m, 3);
            pick = m.group(7);
        }
    }

    private static List<Spot> spots(Matcher m, int n) {
        List<Spot> out = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            out.add(new Spot(Double.parseDouble(m.group(2 * i + 1)), Double.parseDouble(m.group(2 * i + 2))));
        }
        return out;
    }

    String label() {
        return wanted.label();
    }

    static List<Kind> kinds() {
        return Arrays.asList(Kind.values());
    }

    Kind kind() {
        return kind;
    }

    void choose(Kind other) {
        if (other != kind) {
            kind = other;
            spots = spread(other);
        }
    }

    List<Spot> spots() {
        return spots;
    }

    /** Moves a point, as far as the picture reaches. */
    void move(int point, double x, double y) {
        List<Spot> next = new ArrayList<>(spots);
        next.set(point, new Spot(Math.max(0, Math.min(width, x)), Math.max(0, Math.min(height, y))));
        spots = List.copyOf(next);
    }

    String length() {
        return length;
    }

    String pick() {
        return pick;
    }

    String parallax() {
        return parallax;
    }

    /** The true length of the scale, the largest error of picking in picture points, and that of parallax. */
    void know(String newLength, String newPick, String newParallax) {
        length = newLength.strip();
        pick = newPick.strip();
        parallax = newParallax.strip();
    }

    /** The reading as it goes into the field; what was picked stands in it. */
    String written() {
        StringBuilder b = new StringBuilder(kind == Kind.LENGTH ? "picked_length(" : "picked_angle(");
        spots.forEach(s -> b.append(String.format(Locale.ROOT, "%.1f, %.1f, ", s.x(), s.y())));
        if (kind == Kind.LENGTH) {
            b.append(length)
                    .append(", pick: ")
                    .append(pick)
                    .append(", parallax: ")
                    .append(parallax);
        } else {
            b.append("pick: ").append(pick);
        }
        return b.append(", picture: ").append(picture).append(')').toString();
    }

    /** Why it is no reading yet; empty when it is one. */
    String problem() {
        return wanted.problem(this::written);
    }

    /** The length or angle with its uncertainty; empty where it is none. */
    String says() {
        return wanted.quantity(this::written)
                .map(q -> wanted.label() + " = " + q)
                .orElse("");
    }
}
