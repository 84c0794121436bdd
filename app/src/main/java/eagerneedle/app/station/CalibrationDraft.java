package eagerneedle.app.station;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Sheet;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

/** Makes calibrations and their points from a plan and what was taken at the bench. */
final class CalibrationDraft {
    private final Desk desk;
    private final String name;

    CalibrationDraft(Desk desk, String name) {
        this.desk = desk;
        this.name = name;
    }

    private Sheet.Channel channel() {
        return desk.bench().sheet().channels().get(name);
    }

    /** The reference value that a text stands for, in the channel's unit. @throws IllegalArgumentException with one sentence */
    Quantity reference(String text) {
        return desk.bench().reduction().evaluate(text, "reference", "reference").to(channel().labUnit());
    }

    /** A point from what was set and what was read. */
    CalibrationPoint point(String words, String reference, SteadyReading.Taken taken, String way) {
        boolean reading = true;
        try {
            Reading.parse(reference);
        } catch (IllegalArgumentException formula) {
            reading = false;
        }
        CalibrationPoint p = reading ? new CalibrationPoint(reference, taken.mean(), taken.u(), taken.n(), taken.n() > 0)
                : CalibrationPoint.computed(words, reference(reference), taken.mean(), taken.u(), taken.n(), taken.n() > 0);
        return p.going(way);
    }

    Calibration of(List<CalibrationPoint> points, List<CalibrationPoint> verification, ClosureReadings closure) {
        Sheet.CalibrationPlan plan = channel().calibration();
        Instant at = desk.bench().clock().instant();
        Double tolerance = plan.tolerance() == null ? null : difference(plan.tolerance());
        return new Calibration(name + "-" + at.toEpochMilli(), name, plan.kind(), plan.toRelation(), channel().unit(), points, verification, tolerance, closure, at, at.plus(Duration.ofDays(plan.days())),
                "instructor on duty", plan.reference() == null ? "" : plan.reference(), "", null);
    }

    /** A difference written with any unit that fits, in the channel's unit. */
    double difference(String text) {
        Reading r = Reading.parse(text);
        return r.value() * r.unit().scaleTo(channel().labUnit());
    }
}
