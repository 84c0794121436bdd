package eagerneedle.app.calibrate;

import eagerneedle.app.widget.Cell;
import eagerneedle.core.calibration.TrimAdvisor;
import eagerneedle.core.calibration.TrimHint;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Channel;
import eagerneedle.rig.simulated.Novice;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Adjusting zero and span: which load, which trim, which way and how far, when to take the reading, how many passes it
 * took and how many are foretold. It sees readings as numbers that are steady or not.
 */
final class AdjustModel {
    private final String name;
    private final Channel.CalibrationPlan plan;
    private final CalibrationDraft draft;
    private final Map<TrimAdvisor.Trim, TrimHint> hints = new LinkedHashMap<>();
    private @Nullable TrimAdvisor advisor;
    private TrimHint.@Nullable Turn turn;
    private boolean loaded;
    private double before = Double.NaN;
    private double hinted = Double.NaN;
    private SteadyModel.@Nullable Taken lastZero;
    private SteadyModel.@Nullable Taken lastFull;

    AdjustModel(String name, Channel.CalibrationPlan plan, CalibrationDraft draft) {
        this.name = name;
        this.plan = plan;
        this.draft = draft;
        restart();
    }

    /** Forgets everything and begins with the readings before anything is turned. */
    void restart() {
        advisor = null;
        loaded = false;
        lastZero = null;
        lastFull = null;
        turn = null;
        hints(0);
    }

    private void hints(double noise) {
        hints.put(TrimAdvisor.Trim.ZERO, new TrimHint(plan.trims().get(0), noise));
        hints.put(TrimAdvisor.Trim.SPAN, new TrimHint(plan.trims().get(1), noise));
    }

    private double reference(int point) {
        return draft.reference(plan.points().get(point).reference()).value();
    }

    /** Begun with the first load. @param noise standard uncertainty of a steady reading, in the channel's unit */
    private TrimAdvisor begun(double noise) {
        TrimAdvisor begun = advisor;
        if (begun == null) {
            hints(noise);
            begun = TrimAdvisor.start(new TrimAdvisor.Goal(
                    reference(0),
                    reference(1),
                    draft.difference(Objects.requireNonNull(plan.band(), plan.kind())),
                    noise));
            advisor = begun;
        }
        return begun;
    }

    boolean isLoaded() {
        return loaded;
    }

    /** What the bench is told when the load is put on that is asked for. */
    Map<String, String> loading(double noise) {
        int point = begun(noise).next().load() == TrimAdvisor.Load.FULL ? 1 : 0;
        return Map.of(
                "channel",
                name,
                "point",
                Integer.toString(point),
                "reference",
                plan.points().get(point).reference());
    }

    /** The load is on. */
    void loaded() {
        loaded = true;
        before = Double.NaN;
        hinted = Double.NaN;
    }

    /** What the bench is told when the trim is turned as far as was said; empty where there is nothing to turn. */
    Optional<Map<String, String>> turning(boolean clockwise) {
        if (turn == null || advisor == null || turn.far() == TrimHint.Far.STOP) {
            return Optional.empty();
        }
        double turns = (clockwise ? 1 : -1) * turn.share() * Novice.turns(turn.far());
        String trim = advisor.next().trim() == TrimAdvisor.Trim.ZERO ? "0" : "1";
        return Optional.of(Map.of("channel", name, "trim", trim, "turn", Double.toString(turns)));
    }

    /** The trim was turned: the next steady reading tells what to do then. */
    void turned() {
        hinted = Double.NaN;
        turn = null;
    }

    /**
     * Takes a steady reading.
     *
     * @return true when zero and span both hold now
     * @throws IllegalArgumentException with one sentence when it is not within the band yet
     */
    boolean take(SteadyModel.Taken t) {
        if (!loaded || advisor == null) {
            throw new IllegalArgumentException("Bring the load first as it is asked for.");
        }
        TrimAdvisor.Instruction wanted = advisor.next();
        if (!wanted.holds(t.mean())) {
            throw new IllegalArgumentException(
                    "It is not within the band yet: turn " + trim(wanted.trim()) + " until the needle stands in it.");
        }
        advisor = advisor.taken(Double.isNaN(before) ? t.mean() : before, t.mean());
        if (wanted.load() == TrimAdvisor.Load.FULL) {
            lastFull = t;
        } else {
            lastZero = t;
        }
        // The load stays when the next step wants it as it is.
        loaded = !advisor.done() && advisor.next().load() == wanted.load();
        before = loaded ? t.mean() : Double.NaN;
        turned();
        return advisor.done();
    }

    /** The last readings without and with load, once both hold. */
    SteadyModel.@Nullable Taken zero() {
        return lastZero;
    }

    SteadyModel.@Nullable Taken full() {
        return lastFull;
    }

    /** Looks at the live reading. @param value NaN without one */
    void look(double value, boolean steady) {
        if (advisor == null || !loaded || advisor.done()) {
            turn = null;
            return;
        }
        if (steady && Double.isNaN(before)) {
            before = value;
        }
        TrimAdvisor.Instruction wanted = advisor.next();
        if (wanted.trim() == TrimAdvisor.Trim.NEITHER) {
            turn = null;
        } else if (steady && Double.isNaN(hinted)) {
            turn = Objects.requireNonNull(hints.get(wanted.trim())).at(value, wanted);
            hinted = value;
        }
    }

    /** What to do about the reading; empty while nothing is on. */
    String hint(boolean steady) {
        if (!loaded || advisor == null) {
            return "";
        }
        if (advisor.next().trim() == TrimAdvisor.Trim.NEITHER) {
            return steady ? "Steady: take it." : "Wait until it is steady.";
        }
        return turn != null ? turn.says() : "Wait until it is steady.";
    }

    boolean canTurn() {
        return turn != null && turn.far() != TrimHint.Far.STOP;
    }

    boolean canTake(double value, boolean steady) {
        return loaded && advisor != null && steady && advisor.next().holds(value);
    }

    boolean canLoad() {
        return !loaded && (advisor == null || !advisor.done() && !advisor.givenUp());
    }

    /** Where the needle is to stand. */
    TrimAdvisor.Instruction aim() {
        return advisor == null
                ? new TrimAdvisor.Instruction(TrimAdvisor.Load.NONE, TrimAdvisor.Trim.NEITHER, 0, 1, "")
                : advisor.next();
    }

    /** What is to be done now. */
    String says() {
        if (advisor == null) {
            return "Take all load off and read, before anything is turned.";
        }
        if (advisor.done()) {
            return "Zero and span both hold: lock the trims.";
        }
        return advisor.givenUp()
                ? "It does not come nearer any more. Look for a trim at its end or something loose, then start over."
                : advisor.next()
                        .says()
                        .replace("ZERO", plan.trims().get(0))
                        .replace("SPAN", plan.trims().get(1));
    }

    /** What the button of the load says. */
    String loadSays() {
        boolean full = advisor != null && !advisor.done() && advisor.next().load() == TrimAdvisor.Load.FULL;
        return full ? "Full load is on" : "Load is off";
    }

    /** How many passes it took, or will. */
    String foretold() {
        if (advisor == null) {
            return "";
        }
        if (advisor.done()) {
            return "Done in " + advisor.passes() + (advisor.passes() == 1 ? " pass." : " passes.");
        }
        int n = advisor.predictedPasses();
        return n < 0
                ? "After the first pass it can be foretold how many it will take."
                : "It will hold after pass " + n + "; this is pass " + Math.max(1, advisor.passes()) + ".";
    }

    /** The passes so far: pass, load, before, after, which trim was turned. */
    List<List<String>> passes() {
        List<List<String>> rows = new ArrayList<>();
        for (TrimAdvisor.Entry e : advisor == null ? List.<TrimAdvisor.Entry>of() : advisor.log()) {
            rows.add(List.of(
                    e.pass() == 0 ? "as found" : Integer.toString(e.pass()),
                    e.load() == TrimAdvisor.Load.FULL ? "full" : "none",
                    Notation.plain(e.before(), 5),
                    Notation.plain(e.reading(), 5),
                    e.turned() == TrimAdvisor.Trim.NEITHER ? "–" : trim(e.turned())));
        }
        return rows;
    }

    /** The same as a table, with its headings; empty before the first pass. */
    List<List<Cell>> passCells() {
        List<List<Cell>> cells = new ArrayList<>();
        for (List<String> p : passes()) {
            if (cells.isEmpty()) {
                cells.add(Stream.of("pass", "load", "before", "after", "turned")
                        .map(Cell::quiet)
                        .toList());
            }
            cells.add(List.of(
                    Cell.figure(p.get(0)),
                    Cell.plain(p.get(1)),
                    Cell.figure(p.get(2)),
                    Cell.figure(p.get(3)),
                    Cell.plain(p.get(4))));
        }
        return cells;
    }

    private String trim(TrimAdvisor.Trim trim) {
        return plan.trims().get(trim == TrimAdvisor.Trim.ZERO ? 0 : 1);
    }
}
