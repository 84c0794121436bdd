package eagerneedle.core.session;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.stockroom.Correction;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

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

    /**
     * Puts a standard right that turned out wrong after it was used.
     *
     * @param calibrations those that referred to it, with their references as they are now
     */
    record PutRight(Correction correction, List<Calibration> calibrations) implements CalibrationCommand {
        @Override
        public Session apply(Session s) {
            correction.checked();
            Map<String, Calibration> now = new HashMap<>();
            calibrations.forEach(c -> now.put(c.id(), c));
            return s.withCorrection(correction)
                    .withCalibrations(s.calibrations().stream()
                            .map(c -> now.getOrDefault(c.id(), c))
                            .toList());
        }

        @Override
        public String says() {
            return "Put right by " + correction.by() + ": " + correction.standard() + ", " + correction.says()
                    + ", because " + correction.why().strip().replaceAll("[.]$", "") + ".";
        }
    }

    /** Keeps what a check after use found, with the calibration it checked. */
    record CheckAfterUse(String channel, String calibration, AfterUse check) implements CalibrationCommand {
        @Override
        public Session apply(Session s) {
            Calibration c = s.calibrations().stream()
                    .filter(x -> x.id().equals(calibration))
                    .findFirst()
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
