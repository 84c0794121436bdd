package eagerneedle.app.calibrate;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Channel;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

/** Makes calibrations and their points from a plan and what was taken at the bench. */
final class CalibrationDraft {
    private final Workbench bench;
    private final String name;

    CalibrationDraft(Workbench bench, String name) {
        this.bench = bench;
        this.name = name;
    }

    private Channel channel() {
        return bench.sheet().channels().get(name);
    }

    /**
     * The reference value that a text stands for, in the channel's unit. @throws IllegalArgumentException with one
     * sentence
     */
    Quantity reference(String text) {
        return bench.reduction()
                .evaluate(text, "reference", "reference")
                .to(channel().labUnit());
    }

    /**
     * A reference value that the channel can be set to.
     *
     * @throws IllegalArgumentException with one sentence when it lies beyond the chain's reach, or far outside what the
     *     method needs
     */
    Quantity settable(String text) {
        Quantity q = reference(text);
        Channel c = bench.session().channel(bench.sheet(), name);
        if (c.calibration().typed() || c.calibration().toRelation() == Relation.CLOSURE) {
            return q;
        }
        double[] reach = c.toChain().reach();
        double[] needed = c.needed().orElse(reach);
        double wide = needed[1] - needed[0];
        double low = Math.max(Math.min(reach[0], reach[1]), needed[0] - wide);
        double high = Math.min(Math.max(reach[0], reach[1]), needed[1] + wide);
        if (q.value() < low || q.value() > high) {
            throw new IllegalArgumentException("A reference of " + Notation.plain(q.value(), 4) + " "
                    + q.unit().pretty() + " is too far out: this channel is calibrated from " + Notation.plain(low, 3)
                    + " to " + Notation.plain(high, 3) + "."
                    + (c.calibration().kind().equals("shunt")
                            ? " Take a larger resistor; a small one strains the gauge's circuit more than the "
                                    + "method ever does."
                            : ""));
        }
        return q;
    }

    /** A point from what was set and what was read. */
    CalibrationPoint point(String words, String reference, SteadyModel.Taken taken, String way) {
        boolean reading = true;
        try {
            Reading.parse(reference);
        } catch (IllegalArgumentException formula) {
            reading = false;
        }
        CalibrationPoint p = reading
                ? new CalibrationPoint(reference, taken.mean(), taken.u(), taken.n(), taken.n() > 0)
                : CalibrationPoint.computed(
                        words, reference(reference), taken.mean(), taken.u(), taken.n(), taken.n() > 0);
        return p.going(way);
    }

    Calibration of(List<CalibrationPoint> points, List<CalibrationPoint> verification, ClosureReadings closure) {
        Channel.CalibrationPlan plan = channel().calibration();
        Instant at = bench.clock().instant();
        Double tolerance = plan.tolerance() == null ? null : difference(plan.tolerance());
        return new Calibration(
                name + "-" + at.toEpochMilli(),
                name,
                plan.kind(),
                plan.toRelation(),
                channel().unit(),
                points,
                verification,
                tolerance,
                closure,
                at,
                at.plus(Duration.ofDays(plan.days())),
                "instructor on duty",
                plan.reference() == null ? "" : plan.reference(),
                "",
                null);
    }

    /** A difference written with any unit that fits, in the channel's unit. */
    double difference(String text) {
        Reading r = Reading.parse(text);
        return r.value() * r.unit().scaleTo(channel().labUnit());
    }
}
