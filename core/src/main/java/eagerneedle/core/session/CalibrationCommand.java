package eagerneedle.core.session;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;

/** Calibrations, and their checks after use. */
public sealed interface CalibrationCommand extends Command {
    record Calibrate(Calibration calibration) implements CalibrationCommand {
        @Override
        public Session apply(Session s) {
            calibration.check();
            return s.withCalibration(calibration);
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Calibrated " + calibration.channel() + " by " + calibration.kind() + " at "
                    + calibration.points().size() + " points.";
        }
    }

    /** Keeps what a check after use found, with the calibration it checked. */
    record CheckAfterUse(String channel, AfterUse check) implements CalibrationCommand {
        @Override
        public Session apply(Session s) {
            Calibration c = s.calibrationOf(channel)
                    .orElseThrow(() ->
                            new IllegalArgumentException("The channel " + channel + " has no calibration to check."));
            return s.withCalibrations(s.calibrations().stream()
                    .map(x -> x.id().equals(c.id()) ? c.withAfter(check) : x)
                    .toList());
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Checked " + channel + " after use"
                    + switch (check.use()) {
                        case CORRECT -> "; the drift is taken out in proportion to time.";
                        case INFLUENCE -> "; the drift is kept as an influence.";
                        case TELL -> ".";
                    };
        }
    }
}
