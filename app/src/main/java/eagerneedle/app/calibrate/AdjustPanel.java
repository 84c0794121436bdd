package eagerneedle.app.calibrate;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.calibration.TrimAdvisor;
import eagerneedle.core.calibration.TrimHint;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.TrimNeedle;
import eagerneedle.rig.simulated.Novice;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * Leads through zero and span: which load, which trim, which way; the big needle; the passes so far and how many are
 * foretold.
 */
final class AdjustPanel extends VBox {
    private final Desk desk;
    private final String name;
    private final SteadyReading reading;
    private final CalibrationDraft draft;
    private final BiConsumer<SteadyReading.Taken, SteadyReading.Taken> done;
    private final Label says = Labels.styled("", "section");
    private final Label hint = Labels.wrapped("");
    private final Label foretold = Labels.quiet("");
    private final PictureView needle = new PictureView("Trim needle", null);
    private final GridPane passes = new GridPane();
    private final Button load = new Button();
    private final Button take = new Button("Take");
    private final Button back = new Button("↺ anticlockwise");
    private final Button on = new Button("clockwise ↻");
    private final Map<TrimAdvisor.Trim, TrimHint> hints = new LinkedHashMap<>();
    private TrimAdvisor advisor;
    private TrimHint.Turn turn;
    private boolean loaded;
    private double before = Double.NaN;
    private double hinted = Double.NaN;
    private SteadyReading.Taken lastZero;
    private SteadyReading.Taken lastFull;

    /** @param done takes the last zero and full readings once both hold */
    AdjustPanel(
            Desk desk, String name, SteadyReading reading, BiConsumer<SteadyReading.Taken, SteadyReading.Taken> done) {
        super(8);
        this.desk = desk;
        this.name = name;
        this.reading = reading;
        this.draft = new CalibrationDraft(desk, name);
        this.done = done;
        setId("adjust-panel");
        says.setId("trim-says");
        says.setWrapText(true);
        says.setMinHeight(USE_PREF_SIZE);
        hint.setId("trim-hint");
        foretold.setId("trim-foretold");
        foretold.setWrapText(true);
        load.setId("trim-load");
        load.setOnAction(e -> load());
        take.setId("trim-take");
        take.setOnAction(e -> take());
        back.setId("turn-back");
        on.setId("turn-on");
        Labels.explained(load, "Press it once the load is as asked for; a simulated rig does it");
        Labels.explained(take, "Takes the steadied reading (Enter)");
        Labels.explained(
                back,
                "Turns the simulated trim, as far as is said (left arrow); at a real instrument turn the trim itself");
        Labels.explained(
                on,
                "Turns the simulated trim, as far as is said (right arrow); at a real instrument turn the trim itself");
        back.setOnAction(e -> turn(false));
        on.setOnAction(e -> turn(true));
        needle.setMinHeight(170);
        needle.setPrefHeight(190);
        passes.getStyleClass().add("table-cells");
        HBox acts = new HBox(8, load, take);
        acts.setAlignment(Pos.CENTER_LEFT);
        HBox turns = new HBox(8, back, on);
        getChildren().addAll(says, acts, needle, hint, turns, foretold, passes);
        setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT) {
                turn(e.getCode() == KeyCode.RIGHT);
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER) {
                if (loaded) {
                    take();
                } else {
                    load();
                }
                e.consume();
            }
        });
        restart();
    }

    private Channel.CalibrationPlan plan() {
        return desk.bench().sheet().channels().get(name).calibration();
    }

    /** Forgets everything and begins with the readings before anything is turned. */
    void restart() {
        advisor = null;
        loaded = false;
        lastZero = null;
        lastFull = null;
        hints.put(TrimAdvisor.Trim.ZERO, new TrimHint(plan().trims().get(0), 0));
        hints.put(TrimAdvisor.Trim.SPAN, new TrimHint(plan().trims().get(1), 0));
        show();
    }

    private TrimAdvisor advisor() {
        if (advisor == null) {
            double noise = reading.statistics().map(s -> s.uMean()).orElse(0.0);
            TrimAdvisor.Goal goal = new TrimAdvisor.Goal(
                    draft.reference(plan().points().get(0).reference()).value(),
                    draft.reference(plan().points().get(1).reference()).value(),
                    draft.difference(plan().band()),
                    noise);
            hints.put(TrimAdvisor.Trim.ZERO, new TrimHint(plan().trims().get(0), noise));
            hints.put(TrimAdvisor.Trim.SPAN, new TrimHint(plan().trims().get(1), noise));
            return TrimAdvisor.start(goal);
        }
        return advisor;
    }

    private void load() {
        if (desk.rig().isEmpty()) {
            Notices.warn(this, "No instrument is connected: connect it at Rig first.");
            return;
        }
        Notices.attempt(this, () -> {
            boolean full = advisor().next().load() == TrimAdvisor.Load.FULL;
            reading.arrange(Map.of(
                    "channel",
                    name,
                    "point",
                    full ? "1" : "0",
                    "reference",
                    plan().points().get(full ? 1 : 0).reference()));
            loaded = true;
            before = Double.NaN;
            hinted = Double.NaN;
            show();
        });
    }

    private void turn(boolean clockwise) {
        if (turn == null
                || turn.far() == TrimHint.Far.STOP
                || desk.rig().isEmpty()
                || !desk.rig().get().isSimulated()) {
            return;
        }
        Notices.attempt(this, () -> {
            TrimAdvisor.Instruction now = advisor.next();
            double turns = (clockwise ? 1 : -1) * turn.share() * Novice.turns(turn.far());
            try {
                desk.rig()
                        .get()
                        .arrange(Map.of(
                                "channel",
                                name,
                                "trim",
                                now.trim() == TrimAdvisor.Trim.ZERO ? "0" : "1",
                                "turn",
                                Double.toString(turns)));
            } catch (java.io.IOException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
            reading.again();
            hinted = Double.NaN;
            turn = null;
        });
    }

    private void take() {
        Notices.attempt(this, () -> {
            if (!loaded) {
                throw new IllegalArgumentException("Bring the load first as it is asked for.");
            }
            SteadyReading.Taken t = reading.take();
            TrimAdvisor now = advisor();
            TrimAdvisor.Instruction wanted = now.next();
            if (!wanted.holds(t.mean())) {
                throw new IllegalArgumentException("It is not within the band yet: turn "
                        + plan().trims().get(wanted.trim() == TrimAdvisor.Trim.ZERO ? 0 : 1)
                        + " until the needle stands in it.");
            }
            advisor = now.taken(Double.isNaN(before) ? t.mean() : before, t.mean());
            if (wanted.load() == TrimAdvisor.Load.FULL) {
                lastFull = t;
            } else {
                lastZero = t;
            }
            // The load stays when the next step wants it as it is.
            loaded = !advisor.done() && advisor.next().load() == wanted.load();
            before = loaded ? t.mean() : Double.NaN;
            hinted = Double.NaN;
            turn = null;
            show();
            if (advisor.done()) {
                done.accept(lastZero, lastFull);
            }
        });
    }

    /** Follows the live reading: needle and hint. */
    void tick() {
        if (advisor == null && !loaded) {
            paint(Double.NaN, new TrimAdvisor.Instruction(TrimAdvisor.Load.NONE, TrimAdvisor.Trim.NEITHER, 0, 1, ""));
            return;
        }
        TrimAdvisor.Instruction wanted = advisor().next();
        double value = loaded ? reading.value() : Double.NaN;
        boolean steady = loaded && reading.isSteady();
        paint(value, wanted);
        if (steady && Double.isNaN(before)) {
            before = value;
        }
        if (wanted.trim() == TrimAdvisor.Trim.NEITHER || !loaded) {
            hint.setText(!loaded ? "" : steady ? "Steady: take it." : "Wait until it is steady.");
            turn = null;
        } else if (steady && Double.isNaN(hinted)) {
            turn = hints.get(wanted.trim()).at(value, wanted);
            hinted = value;
            hint.setText(turn.says());
        } else if (!steady && turn == null) {
            hint.setText("Wait until it is steady.");
        }
        boolean turning = turn != null && turn.far() != TrimHint.Far.STOP;
        back.setDisable(!turning);
        on.setDisable(!turning);
        take.setDisable(!(steady && wanted.holds(value)));
    }

    private void paint(double value, TrimAdvisor.Instruction wanted) {
        String unit = desk.bench().sheet().channels().get(name).labUnit().pretty();
        needle.show((s, w, h) -> TrimNeedle.paint(s, value, wanted.aim(), wanted.band(), unit, w, h));
    }

    private void show() {
        TrimAdvisor a = advisor == null ? null : advisor;
        says.setText(
                a == null
                        ? "Take all load off and read, before anything is turned."
                        : a.done()
                                ? "Zero and span both hold: lock the trims."
                                : a.givenUp()
                                        ? "It does not come nearer any more. Look for a trim at its end or "
                                                + "something loose, then start over."
                                        : named(a.next().says()));
        boolean full = a != null && !a.done() && a.next().load() == TrimAdvisor.Load.FULL;
        load.setText(full ? "Full load is on" : "Load is off");
        load.setDisable(loaded || a != null && (a.done() || a.givenUp()));
        int n = a == null ? -1 : a.predictedPasses();
        foretold.setText(
                a == null
                        ? ""
                        : a.done()
                                ? "Done in " + a.passes() + (a.passes() == 1 ? " pass." : " passes.")
                                : n < 0
                                        ? "After the first pass it can be foretold how many it will take."
                                        : "It will hold after pass " + n + "; this is pass " + Math.max(1, a.passes())
                                                + ".");
        passes.getChildren().clear();
        if (a != null && !a.log().isEmpty()) {
            passes.addRow(
                    0,
                    Labels.quiet("pass"),
                    Labels.quiet("load"),
                    Labels.quiet("before"),
                    Labels.quiet("after"),
                    Labels.quiet("turned"));
            int row = 1;
            for (TrimAdvisor.Entry e : a.log()) {
                passes.addRow(
                        row++,
                        Labels.figure(e.pass() == 0 ? "as found" : Integer.toString(e.pass())),
                        new Label(e.load() == TrimAdvisor.Load.FULL ? "full" : "none"),
                        Labels.figure(Notation.plain(e.before(), 5)),
                        Labels.figure(Notation.plain(e.reading(), 5)),
                        new Label(
                                e.turned() == TrimAdvisor.Trim.NEITHER
                                        ? "–"
                                        : plan().trims().get(e.turned() == TrimAdvisor.Trim.ZERO ? 0 : 1)));
            }
        }
    }

    private String named(String words) {
        return words.replace("ZERO", plan().trims().get(0))
                .replace("SPAN", plan().trims().get(1));
    }

    Button focus() {
        return load;
    }
}
