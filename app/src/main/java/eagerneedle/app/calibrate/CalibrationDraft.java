package eagerneedle.app.calibrate;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Channel;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Makes calibrations and their points from a plan and what was taken at the bench. */
final class CalibrationDraft {
    private final Workbench bench;
    private final String name;
    private int points;

    CalibrationDraft(Workbench bench, String name) {
        this.bench = bench;
        this.name = name;
    }

    private Channel channel() {
        return bench.sheet().channel(name);
    }

    /**
     * The reference value that a text stands for, in the channel's unit. @throws IllegalArgumentException with one
     * sentence
     */
    Quantity reference(String text) {
        return reference(text, "reference");
    }

    /** @param identity of what is read for it, so that two points that are read alike do not share their errors */
    private Quantity reference(String text, String identity) {
        return bench.reduction()
                .evaluate(text, identity, "reference")
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
        if (c.calibrationPlan().typed() || c.calibrationPlan().toRelation() == Relation.CLOSURE) {
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
                    + (c.calibrationPlan().kind().equals("shunt")
                            ? " Take a larger resistor; a small one strains the gauge's circuit more than the "
                                    + "method ever does."
                            : ""));
        }
        return q;
    }

    /** A point from what was set and what was read. */
    CalibrationPoint point(String words, String reference, SteadyModel.Taken taken, @Nullable String way) {
        CalibrationPoint p = isReading(reference)
                ? new CalibrationPoint(reference, taken.mean(), taken.u(), taken.n(), taken.n() > 0)
                : CalibrationPoint.computed(
                        words, reference(reference, identity()), taken.mean(), taken.u(), taken.n(), taken.n() > 0);
        return p.going(way);
    }

    private static boolean isReading(String text) {
        try {
            Reading.parse(text);
            return true;
        } catch (IllegalArgumentException formula) {
            return false;
        }
    }

    /** What a bench is told of a reference: nothing of how it was read, but what came of it. */
    String plain(String text) {
        if (isReading(text)) {
            return text.strip();
        }
        Quantity q = reference(text);
        return new Reading(q.value(), q.u(), q.unit(), Distribution.NORMAL).text();
    }

    /** Of a point, unlike any other's. */
    private String identity() {
        return "reference/" + name + "/" + bench.clock().instant().toEpochMilli() + "/" + ++points;
    }

    Calibration of(
            List<CalibrationPoint> points, List<CalibrationPoint> verification, @Nullable ClosureReadings closure) {
        Channel.CalibrationPlan plan = channel().calibrationPlan();
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
                bench.session().bench().inCharge(),
                plan.reference() == null ? "" : bench.session().bench().named(plan.reference()),
                "",
                null,
                Link.serials(bench.session().channel(bench.sheet(), name).chain()));
    }

    /** A difference written with any unit that fits, in the channel's unit. */
    double difference(String text) {
        Reading r = Reading.parse(text);
        return r.value() * r.unit().scaleTo(channel().labUnit());
    }
}
