package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Tone;
import eagerneedle.app.widget.Typing;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

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
    private final Rows<Taken> taken = new Rows<>(done, this::node);
    private final HBox late = new HBox(8);
    private final VBox panel;
    private final PromptModel model;
    private @Nullable LiveRig running;

    PromptedMode(Desk desk, Capture plan) {
        super(desk, plan);
        model = new PromptModel(plan.promptPlan());
        count.setId("prompt-count");
        says.setId("prompt-says");
        take.setId("prompt-take");
        take.setOnAction(e -> take());
        Labels.explained(take, "Takes the reading now (T); how late it is, is kept with it");
        skip.setId("prompt-skip");
        skip.setOnAction(e -> skip());
        Labels.explained(skip, "Skips this reading (S); it can be entered afterwards from a note");
        itself.setId("prompt-itself");
        itself.setMinWidth(Region.USE_PREF_SIZE);
        itself.setSelected(plan.promptPlan().by().equals("itself"));
        Labels.explained(itself, "The program takes each reading at its moment; otherwise you do, by key T");
        sound.setId("prompt-sound");
        sound.setSelected(Tone.isWanted());
        sound.setMinWidth(Region.USE_PREF_SIZE);
        Labels.explained(sound, "A tone at each moment, beside the flash");
        HBox row = new HBox(12, count, take, skip, itself, sound);
        row.setAlignment(Pos.CENTER_LEFT);
        late.setAlignment(Pos.CENTER_LEFT);
        panel = new VBox(6, row, says, done, late);
        panel.getStyleClass().add("card");
        show(0);
    }

    @Override
    String begins() {
        return "Start the clock";
    }

    @Override
    public void begin(LiveRig rig, Run run) throws IOException {
        super.begin(rig, run);
        model.begin(!rig.typed().isEmpty());
        running = rig;
        Labels.shown(itself, rig.typed().isEmpty());
    }

    private void take() {
        if (!model.canTake()) {
            return;
        }
        LiveRig rig = Objects.requireNonNull(running);
        RawSamples last = rig.last(first(), 0);
        double moment = last.size() == 0 ? rig.clock(first()) : last.time()[last.size() - 1];
        if (Notices.attempt(panel, () -> model.take(moment, rig.count(first())))) {
            rebuild();
        }
    }

    private void skip() {
        if (model.canTake()) {
            model.skip();
            rebuild();
        }
    }

    @Override
    @Nullable
    String tick(LiveRig rig) {
        running = rig;
        double now = rig.clock(first());
        int before = model.marks();
        model.look(now, itself.isSelected());
        if (model.hasTyped(rig.count(first()))) {
            take();
        }
        if (sound.isSelected() && model.soundsNow(now, before, itself.isSelected())) {
            Tone.play();
        }
        if (model.marks() != before) {
            rebuild();
        }
        show(now);
        return model.isOver() ? "All readings are over." : null;
    }

    private void show(double now) {
        count.setText(model.count(now));
        count.getStyleClass().removeAll("flash", "strong");
        switch (model.nearness(now)) {
            case NOW -> count.getStyleClass().add("flash");
            case NEAR -> count.getStyleClass().add("strong");
            case FAR -> {}
        }
        says.setText(model.says());
        take.setDisable(!model.canTake());
        skip.setDisable(!model.canTake());
    }

    private void rebuild() {
        List<PromptModel.Done> all = model.done();
        taken.show(IntStream.range(0, all.size())
                .mapToObj(i -> new Taken(i, all.get(i)))
                .toList());
    }

    /** A reading with its place in the order of the prompts. */
    private record Taken(int at, PromptModel.Done done) {}

    private Node node(Taken t) {
        if (!t.done().skipped()) {
            return Labels.quiet(t.done().words());
        }
        Button b = new Button(t.done().words());
        b.getStyleClass().add("quiet-button");
        b.setId("prompt-late-" + t.at());
        b.setOnAction(e -> enterLate(t.at()));
        return Labels.explained(b, "Enter this reading afterwards, from a note made at the time");
    }

    private void enterLate(int i) {
        TextField when = new TextField(Typing.as(model.due(i)));
        when.setPrefWidth(Theme.px(80));
        when.setId("late-when");
        when.setAccessibleText("Moment of the reading, in s");
        TextField value = new TextField();
        value.setPrefWidth(Theme.px(100));
        value.setId("late-value");
        value.setAccessibleText("Value of the reading");
        Button enter = new Button("Enter");
        enter.setId("late-enter");
        Runnable act = () -> Notices.attempt(panel, () -> {
            model.enterLate(i, Typing.in(when), Typing.in(value));
            late.getChildren().clear();
            rebuild();
        });
        enter.setOnAction(e -> act.run());
        value.setOnAction(e -> act.run());
        String unit = desk.bench().sheet().channel(first()).labUnit().pretty();
        late.getChildren().setAll(Labels.quiet("read at"), when, Labels.quiet("s:"), value, Labels.quiet(unit), enter);
        value.requestFocus();
    }

    @Override
    public Run ended(Run run) {
        model.end();
        show(0);
        return completed(run);
    }

    /** The marks as they are now: late entries come in until the run is kept. */
    Run completed(Run run) {
        return model.marked(run);
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
