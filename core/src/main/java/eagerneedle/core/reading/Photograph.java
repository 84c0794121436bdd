package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * A length measured on a picture that shows a scale: the ratio of two distances in picture points, each end picked by
 * hand, times the true length of the scale, with parallax where object and scale are not at the same distance from the
 * lens.
 *
 * @param object distance on the picture, in picture points
 * @param scale distance of the scale on the picture, in picture points
 * @param length true length of the scale
 * @param pick largest error of picking one end, in picture points
 * @param parallax largest relative error from unequal distances, 0.01 for one percent
 */
public record Photograph(double object, double scale, Quantity length, double pick, double parallax) {
    public Photograph {
        if (!(object > 0 && scale > 0 && pick >= 0 && parallax >= 0)) {
            throw new IllegalArgumentException("Distances on a picture are above zero, and errors not below it.");
        }
    }

    /** The object's length, in the unit of the scale. */
    public Quantity quantity(String origin, String label) {
        Quantity top = picked(object, origin + "#object", label);
        Quantity bottom = picked(scale, origin + "#scale", label);
        Quantity q = top.dividedBy(bottom).times(length).to(length.unit());
        return parallax > 0
                ? q.with(
                        Leaf.typeB(origin + "#parallax", label + ": parallax", "photograph", Distribution.RECTANGULAR),
                        parallax * Math.abs(q.value()) / Math.sqrt(3))
                : q;
    }

    private Quantity picked(double points, String id, String label) {
        // Two ends, each rectangular: their difference is triangular with twice the limit.
        return pick == 0
                ? Quantity.number(points)
                : Quantity.of(
                        points,
                        2 * pick / Math.sqrt(6),
                        LabUnit.ONE,
                        Leaf.typeB(id, label + ": picking points", "photograph", Distribution.TRIANGULAR));
    }
}
