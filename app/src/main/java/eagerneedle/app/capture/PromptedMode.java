package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Tone;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.capture.Prompts;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * LiveReadings at set moments: counts down, takes each by itself or by key, keeps how late it was, lets one be skipped
 * and entered afterwards. Samples of the whole run are kept beside the readings.
 */
final class PromptedMode extends CaptureMode {
    private final Label count = Labels.styled("", "figure-big");
    private final Label says = Labels.quiet("");
    private final Button take = new Button("Take");
    private final Button skip = new Button("Skip");
    private final CheckBox itself = new CheckBox("take by itself");
    private final CheckBox sound = new CheckBox("sound");
    private final FlowPane done = new FlowPane(8, 4);
    private final HBox late = new HBox(8);
    private final VBox panel;
    private Prompts prompts;
    private LiveRig running;
    private int sounded = -1;
    private long samplesSeen;
    private int entering = -1;

    PromptedMode(Desk desk, Capture plan) {
        super(desk, plan);
        count.setId("prompt-count");
        says.setId("prompt-says");
        take.setId("prompt-take");
        take.setOnAction(e -> take());
        Labels.explained(take, "Takes the reading now (T); how late it is, is kept with it");
        skip.setId("prompt-skip");
        skip.setOnAction(e -> skip());
        Labels.explained(skip, "Skips this reading (S); it can be entered afterwards from a note");
        itself.setId("prompt-itself");
        itself.setSelected(plan.prompt().by().equals("itself"));
        Labels.explained(itself, "The program takes each reading at its moment; otherwise you do, by key T");
        sound.setId("prompt-sound");
        Labels.explained(sound, "A tone at each moment, beside the flash");
        HBox row = new HBox(12, count, take, skip, itself, sound);
        row.setAlignment(Pos.CENTER_LEFT);
        late.setAlignment(Pos.CENTER_LEFT);
        panel = new VBox(6, row, says, done, late);
        panel.getStyleClass().add("card");
        prompts = fresh();
        show(0);
    }

    private Prompts fresh() {
        return Prompts.of(
                plan.prompt().first(), plan.prompt().every(), plan.prompt().count());
    }

    @Override
    String begins() {
        return "Start the clock";
    }

    @Override
    void begin(LiveRig rig, Run run) throws IOException {
        prompts = fresh();
        sounded = -1;
        samplesSeen = 0;
        super.begin(rig, run);
        running = rig;
        itself.setVisible(rig.typed().isEmpty());
        itself.setManaged(rig.typed().isEmpty());
    }

    private double now() {
        return running.clock(first());
    }

    private boolean byHand() {
        return !running.typed().isEmpty();
    }

    private void take() {
        if (running == null || prompts.over()) {
            return;
        }
        if (byHand() && running.count(first()) == samplesSeen) {
            Notices.warn(panel, "Type the reading first; entering it takes it.");
            return;
        }
        samplesSeen = running.count(first());
        RawSamples last = running.last(first(), 0);
        // The moment is that of the newest sample: what the instrument had seen when the key was pressed.
        prompts = prompts.take(last.size() == 0 ? now() : last.time()[last.size() - 1]);
        rebuild();
    }

    private void skip() {
        if (running != null && !prompts.over()) {
            prompts = prompts.skip();
            rebuild();
        }
    }

    @Override
    String tick(LiveRig rig) {
        running = rig;
        double now = now();
        int before = prompts.marks().size();
        prompts = !byHand() && itself.isSelected() ? prompts.punctual(now) : prompts.passed(now);
        if (byHand() && rig.count(first()) > samplesSeen) {
            take();
        }
        int next = prompts.marks().size();
        if (sound.isSelected() && !prompts.over() && prompts.toGo(now) <= 0 && sounded < next
                || sound.isSelected() && itself.isSelected() && next > before && sounded < before) {
            sounded = next;
            Tone.play();
        }
        if (next != before) {
            rebuild();
        }
        show(now);
        return prompts.over() ? "All readings are over." : null;
    }

    private void show(double now) {
        boolean on = running != null && running.isRecording();
        double toGo = prompts.toGo(now);
        count.setText(
                prompts.over()
                        ? "done"
                        : !on
                                ? plan.prompt().count() + " readings"
                                : String.format(
                                        Locale.ROOT,
                                        toGo < 0 ? "%.0f s late" : "%.0f s",
                                        Math.abs(toGo < 0 ? toGo : Math.ceil(toGo))));
        boolean near = on && !prompts.over() && toGo <= plan.prompt().countdown();
        count.getStyleClass().removeAll("flash", "strong");
        if (near) {
            count.getStyleClass().add(toGo <= 0.3 ? "flash" : "strong");
        }
        says.setText(
                !on
                        ? "Every " + plain(plan.prompt().every()) + " s from "
                                + plain(plan.prompt().first()) + " s on."
                        : prompts.over()
                                ? ""
                                : "Reading " + (prompts.marks().size() + 1) + " of "
                                        + plan.prompt().count() + " is due at "
                                        + plain(prompts.due(prompts.marks().size())) + " s"
                                        + (byHand() ? "; type it when it is due." : "."));
        take.setDisable(!on || prompts.over());
        skip.setDisable(!on || prompts.over());
    }

    private static String plain(double v) {
        return eagerneedle.core.quantity.Notation.plain(v, 4);
    }

    private void rebuild() {
        done.getChildren().clear();
        for (int i = 0; i < prompts.marks().size(); i++) {
            Prompts.Mark m = prompts.marks().get(i);
            int at = i;
            if (m.taken() == null) {
                Button b = new Button(plain(m.due()) + " s skipped");
                b.getStyleClass().add("quiet-button");
                b.setId("prompt-late-" + i);
                Labels.explained(b, "Enter this reading afterwards, from a note made at the time");
                b.setOnAction(e -> enterLate(at));
                done.getChildren().add(b);
            } else {
                Label l = Labels.quiet("● " + plain(m.due()) + " s"
                        + (Math.abs(m.late()) < 0.05 ? "" : String.format(Locale.ROOT, " %+.1f s", m.late()))
                        + (m.value() == null ? "" : ": " + m.value()));
                done.getChildren().add(l);
            }
        }
    }

    private void enterLate(int i) {
        entering = i;
        TextField when = new TextField(plain(prompts.due(i)));
        when.setPrefWidth(80);
        when.setId("late-when");
        when.setAccessibleText("Moment of the reading, in s");
        TextField value = new TextField();
        value.setPrefWidth(100);
        value.setId("late-value");
        value.setAccessibleText("Value of the reading");
        Button enter = new Button("Enter");
        enter.setId("late-enter");
        Runnable act = () -> Notices.attempt(panel, () -> {
            try {
                Reading.parse(value.getText());
                prompts = prompts.late(
                        entering,
                        Double.parseDouble(when.getText().strip()),
                        value.getText().strip());
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException("'" + when.getText() + "' is not a moment in seconds.", e);
            }
            late.getChildren().clear();
            rebuild();
        });
        enter.setOnAction(e -> act.run());
        value.setOnAction(e -> act.run());
        String unit = desk.bench().sheet().channels().get(first()).labUnit().pretty();
        late.getChildren().setAll(Labels.quiet("read at"), when, Labels.quiet("s:"), value, Labels.quiet(unit), enter);
        value.requestFocus();
    }

    @Override
    Run ended(Run run) {
        show(0);
        return run.entered(run.entries().marked(prompts.marks()));
    }

    /** The marks as they are now: late entries come in until the run is kept. */
    Run completed(Run run) {
        return run.entered(run.entries().marked(prompts.marks()));
    }

    @Override
    boolean key(KeyCode key) {
        if (key == KeyCode.T) {
            take();
        } else if (key == KeyCode.S) {
            skip();
        } else {
            return false;
        }
        return true;
    }

    @Override
    Node panel() {
        return panel;
    }
}
