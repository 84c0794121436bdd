package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.StepCard;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * The levels to take, how far each is done, and the clocks that run beside the runs: what warms up or chills meanwhile.
 */
final class CaptureSchedule extends VBox {
    /** Called when a level is chosen by hand. */
    interface Choice {
        void of(String capture, String level);
    }

    private final Desk desk;
    private final Choice choice;
    private final VBox levels = new VBox(2);
    private final VBox beside = new VBox(6);
    private final List<StepCard> clocks = new ArrayList<>();
    private final ToggleGroup group = new ToggleGroup();

    CaptureSchedule(Desk desk, Choice choice) {
        super(10);
        this.desk = desk;
        this.choice = choice;
        ScrollPane scroll = new ScrollPane(new VBox(10, levels, beside));
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox.setVgrow(this, Priority.ALWAYS);
        beside.setId("beside");
        getChildren().addAll(Labels.heading("Runs to take"), scroll);
    }

    /** @param busy true while a run lasts or waits for its verdict, when no other level can be chosen */
    void refresh(String capture, String level, boolean busy) {
        Sheet sheet = desk.bench().sheet();
        levels.getChildren().clear();
        sheet.captures().forEach((c, plan) -> {
            levels.getChildren().add(Labels.styled(plan.label().toUpperCase(Locale.ROOT), "group"));
            plan.levels().forEach((l, what) -> {
                ToggleButton b = button(sheet, c, l, what);
                b.setSelected(c.equals(capture) && l.equals(level));
                b.setDisable(busy);
                levels.getChildren().add(b);
            });
        });
        clocks.clear();
        sheet.prepare().stream()
                .filter(s ->
                        s.minutes() > 0 && !desk.bench().session().signOffs().containsKey(s.id()))
                .forEach(s -> clocks.add(new StepCard(desk.bench(), s)));
        beside.getChildren().clear();
        if (!clocks.isEmpty()) {
            beside.getChildren().add(Labels.heading("Meanwhile"));
            beside.getChildren().addAll(clocks);
        }
    }

    /** Brings the clocks up to now. */
    void tick() {
        clocks.forEach(StepCard::tick);
    }

    private ToggleButton button(Sheet sheet, String c, String l, Capture.Level what) {
        long done = desk.bench().runsAt(c, l);
        int wanted = desk.bench().session().repeats(sheet, c);
        ToggleButton b = new ToggleButton((what.label() == null ? l : what.label()) + "   " + done + " of " + wanted
                + (done >= wanted ? "  ✓" : ""));
        b.setToggleGroup(group);
        b.setId("level-" + c + "-" + l);
        b.setMaxWidth(Double.MAX_VALUE);
        b.setAlignment(Pos.CENTER_LEFT);
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> choice.of(c, l));
        return b;
    }
}
