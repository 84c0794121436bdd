package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.Locale;

/**
 * What is measured on a picture by picking points: lengths against a scale that shows on it, and angles.
 *
 * <p>Each coordinate of a point may be wrong by the same largest error, independently, so a point is off by u = pick/√3
 * in every direction. What one picture's scale was picked wrong by is the same for all lengths that are taken from it.
 *
 * @param picture which picture, so that two lengths on one share its scale
 * @param pick largest error of a picked coordinate, in picture points
 * @param parallax largest relative error from object and scale not being equally far away, 0.01 for one percent
 */
public record OnPicture(String picture, double pick, double parallax) {
    /** A picked point, in picture points from the upper left corner. */
    public record Point(double x, double y) {
        double to(Point other) {
            return Math.hypot(other.x - x, other.y - y);
        }

        String text() {
            return String.format(Locale.ROOT, "%.2f,%.2f", x, y);
        }
    }

    public OnPicture {
        if (!(pick >= 0 && parallax >= 0)) {
            throw new IllegalArgumentException("Errors of picking and of parallax are not below zero.");
        }
    }

    /**
     * A length between two points.
     *
     * @param scaleFrom one end of what shows how long it is
     * @param scaleTo the other end
     * @param length its true length
     */
    public Quantity length(
            Point from, Point to, Point scaleFrom, Point scaleTo, Quantity length, String origin, String label) {
        double scale = scaleFrom.to(scaleTo);
        double object = from.to(to);
        if (!(scale > 0 && object > 0)) {
            throw new IllegalArgumentException("Two picked points lie on each other; pick points that are apart.");
        }
        // Only errors along a line change its length, to first order; its two ends are independent.
        double u = pick / Math.sqrt(3) * Math.sqrt(2);
        Quantity top = picked(object, u, origin + "#object", label + ": picking points");
        Quantity bottom = picked(
                scale,
                u,
                "picture:" + picture + ":scale:" + scaleFrom.text() + ":" + scaleTo.text(),
                "scale on the picture: picking points");
        Quantity q = top.dividedBy(bottom).times(length).to(length.unit());
        return parallax == 0
                ? q
                : q.with(
                        Leaf.typeB(origin + "#parallax", label + ": parallax", "picture", Distribution.RECTANGULAR),
                        parallax * Math.abs(q.value()) / Math.sqrt(3));
    }

    /** The angle at a point between the directions to two others, 0 to 180°, in degrees. */
    public Quantity angle(Point at, Point one, Point other, String origin, String label) {
        double a = at.to(one);
        double b = at.to(other);
        double c = one.to(other);
        if (!(a > 0 && b > 0)) {
            throw new IllegalArgumentException("Two picked points lie on each other; pick points that are apart.");
        }
        double cross = (one.x - at.x) * (other.y - at.y) - (one.y - at.y) * (other.x - at.x);
        double dot = (one.x - at.x) * (other.x - at.x) + (one.y - at.y) * (other.y - at.y);
        double angle = Math.abs(Math.atan2(cross, dot));
        double u = pick / Math.sqrt(3);
        LabUnit degree = LabUnit.parse("deg");
        // Off by u across its arm, each outer point turns it by u/arm; the point between them by u·c/(a·b).
        Quantity q = Quantity.exact(Math.toDegrees(angle), degree);
        q = with(q, Math.toDegrees(u / a), origin + "#one", label);
        q = with(q, Math.toDegrees(u / b), origin + "#other", label);
        return with(q, Math.toDegrees(u * c / (a * b)), origin + "#between", label);
    }

    private static Quantity with(Quantity q, double u, String id, String label) {
        return u == 0 ? q : q.with(Leaf.typeB(id, label + ": picking points", "picture", Distribution.RECTANGULAR), u);
    }

    private static Quantity picked(double points, double u, String id, String label) {
        return u == 0
                ? Quantity.number(points)
                : Quantity.of(points, u, LabUnit.ONE, Leaf.typeB(id, label, "picture", Distribution.TRIANGULAR));
    }
}
