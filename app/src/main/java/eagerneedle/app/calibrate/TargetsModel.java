package eagerneedle.app.calibrate;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Everything the sheet wants calibrated, with its state. */
final class TargetsModel {
    private static final String INPUT = "input ";
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Workbench bench;

    TargetsModel(Workbench bench) {
        this.bench = bench;
    }

    /** How a target stands. */
    enum Standing {
        OPEN("○", "quiet"),
        GOOD("●", "good"),
        ATTENTION("▲", "attention");

        private final String mark;
        private final String style;

        Standing(String mark, String style) {
            this.mark = mark;
            this.style = style;
        }

        String mark() {
            return mark;
        }

        String style() {
            return style;
        }
    }

    /**
     * One thing to calibrate.
     *
     * @param key the channel's name, or {@code input } and the input's
     * @param kind how it is calibrated
     * @param state how it stands, in words
     */
    record Target(String key, String label, String kind, Standing standing, String state) {}

    /** In the order of the sheet, channels first. */
    List<Target> targets() {
        Instant now = bench.clock().instant();
        List<Target> all = new ArrayList<>();
        bench.sheet().channels().forEach((name, c) -> {
            if (c.calibration() != null) {
                all.add(channel(name, c, now));
            }
        });
        bench.sheet().inputs().forEach((name, input) -> {
            if (input.actual() != null) {
                all.add(input(name, input));
            }
        });
        return all;
    }

    private Target channel(String name, Channel c, Instant now) {
        Optional<Calibration> kept = bench.session().calibrationOf(name, bench.sheet());
        Standing standing = kept.map(
                        k -> k.overdue(now) || k.failure().isPresent() ? Standing.ATTENTION : Standing.GOOD)
                .orElse(Standing.OPEN);
        String state = kept.map(k -> k.failure()
                        .map(f -> "failed: " + f)
                        .orElse((k.overdue(now) ? "was due on " : "good until ") + DAY.format(k.due())))
                .orElse("not calibrated yet");
        return new Target(name, c.label(), c.calibrationPlan().kind(), standing, state);
    }

    private Target input(String name, Sheet.Input input) {
        boolean measured = bench.session().measured().containsKey(name);
        return new Target(
                INPUT + name,
                input.label(),
                "actual value",
                measured ? Standing.GOOD : Standing.OPEN,
                measured ? "measured" : "still as planned");
    }
}
