package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.LiveTarget;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Steadiness;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Waiting until every channel is steady: what is not yet and why, and when patience is at an end. */
final class HoldModel {
    private static final double STEADY = 3;
    private static final int FEWEST = 4;

    private final Desk desk;
    private final Capture plan;
    private double since;
    private double begun;
    private boolean waiting;
    private boolean forced;
    private List<String> restless = List.of();
    private boolean patient = true;
    private @Nullable SeekModel seek;
    private String beyond = "";

    HoldModel(Desk desk, Capture plan) {
        this.desk = desk;
        this.plan = plan;
    }

    /**
     * Begins to wait.
     *
     * @param level of which the row is
     * @param now s on the clock of the instrument
     * @throws IllegalArgumentException with one sentence where its target cannot be held
     */
    void begin(LiveRig rig, String level, double now) {
        seek = LiveTarget.of(desk.bench().reduction(), name(), level)
                .map(t -> new SeekModel(plan, t, rig))
                .orElse(null);
        waiting = true;
        forced = false;
        patient = true;
        restless = List.of();
        since = now;
        begun = now;
    }

    private String name() {
        return desk.bench().sheet().captures().entrySet().stream()
                .filter(c -> c.getValue().equals(plan))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("");
    }

    /** A channel of which every sample is beyond its range; empty where none is. */
    String beyond() {
        return beyond;
    }

    /** The target that is held; empty for none. */
    Optional<SeekModel> seek() {
        return Optional.ofNullable(seek);
    }

    boolean isWaiting() {
        return waiting;
    }

    void stop() {
        waiting = false;
        patient = true;
    }

    /** Takes the row though it is not steady. */
    void takeAnyway() {
        forced = true;
    }

    /** True when it has waited longer than the sheet has patience for. */
    boolean isImpatient() {
        return waiting && !patient;
    }

    /** Looks at every channel; true when the row is to be taken now. */
    boolean look(LiveRig rig, double now) {
        if (seek != null && !seek.look(rig, now)) {
            since = now;
            patient = now - begun < plan.holdPlan().patience();
            restless = List.of(seek.says());
            return forced;
        }
        double waited = now - since;
        patient = waited < plan.holdPlan().patience();
        restless = rig.typed().isEmpty() ? restless(rig, waited) : List.of();
        return restless.isEmpty() || forced;
    }

    private List<String> restless(LiveRig rig, double waited) {
        List<String> not = new ArrayList<>();
        beyond = "";
        double seconds = plan.holdPlan().seconds();
        for (String name : plan.channels()) {
            Channel c = desk.bench().session().channel(desk.bench().sheet(), name);
            RawSamples raw = LiveReadings.since(rig.last(name, seconds), since);
            Trace t = LiveReadings.trace(c, raw);
            if (waited < plan.holdPlan().settle()) {
                not.add(c.label() + " is left to settle for "
                        + Notation.plain(Math.max(0, plan.holdPlan().settle() - waited), 2) + " s");
                continue;
            }
            if (waited >= 0.9 * seconds && raw.size() > 0 && t.size() == 0) {
                beyond = c.label();
                not.add(c.label() + " is beyond its range");
                continue;
            }
            if (waited < 0.9 * seconds || t.size() < Math.max(FEWEST, (int) (0.8 * seconds * c.rate()))) {
                not.add(c.label() + " is being looked at");
                continue;
            }
            WindowStatistics w = WindowStatistics.of(t);
            if (LiveReadings.disturbed(t)) {
                not.add(c.label() + " was disturbed");
            } else if (!w.steady(STEADY)) {
                not.add(c.label() + " drifts by " + Notation.plain(w.slope(), 2) + " "
                        + c.labUnit().difference().pretty() + "/s");
            } else if (Steadiness.swings(t)) {
                not.add(c.label() + " swings by " + Notation.plain(Math.sqrt(2) * w.sd(), 2) + " "
                        + c.labUnit().difference().pretty());
            }
        }
        return not;
    }

    /** What it waits for. */
    String says() {
        return restless.isEmpty() ? "Steady." : "Waiting: " + String.join(", ", restless) + ".";
    }
}
