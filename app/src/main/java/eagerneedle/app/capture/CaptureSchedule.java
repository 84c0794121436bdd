package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.StepCard;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
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
    /** One level of a capture as it stands now. */
    private record Level(String capture, String level, String words, boolean chosen, boolean busy) {}

    private final VBox levels = new VBox(2);
    private final Map<String, Rows<Level>> rows = new LinkedHashMap<>();
    private final VBox clockBox = new VBox(6);
    private final Rows<Sheet.Step> clocks;
    private final VBox beside = new VBox(6, Labels.heading("Meanwhile"), clockBox);
    private final ToggleGroup group = new ToggleGroup();

    CaptureSchedule(Desk desk, Choice choice) {
        super(10);
        this.desk = desk;
        this.choice = choice;
        clocks = new Rows<>(
                clockBox, s -> new StepCard(desk.bench(), s, desk.site().staff()));
        desk.bench().sheet().captures().forEach((name, plan) -> {
            VBox box = new VBox(2);
            rows.put(
                    name,
                    Rows.changing(box, Level::level, level -> button(name, level.level()), CaptureSchedule::show));
            levels.getChildren().addAll(Labels.styled(plan.label().toUpperCase(Locale.ROOT), "group"), box);
        });
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
        rows.forEach((c, r) -> r.show(sheet.capture(c).levels().entrySet().stream()
                .map(l -> new Level(
                        c,
                        l.getKey(),
                        words(sheet, c, l.getKey(), l.getValue()),
                        c.equals(capture) && l.getKey().equals(level),
                        busy))
                .toList()));
        List<Sheet.Step> waiting = sheet.prepare().stream()
                .filter(s ->
                        s.minutes() > 0 && !desk.bench().session().signOffs().containsKey(s.id()))
                .toList();
        clocks.show(waiting);
        beside.setVisible(!waiting.isEmpty());
        beside.setManaged(beside.isVisible());
        tick();
    }

    /** Brings the clocks up to now. */
    void tick() {
        clockBox.getChildren().forEach(n -> ((StepCard) n).tick());
    }

    private String words(Sheet sheet, String c, String l, Capture.Level what) {
        long done = desk.bench().schedule().runsAt(c, l);
        int wanted = desk.bench().session().repeats(sheet, c);
        String taken = done + " of " + wanted + (done >= wanted ? "  ✓" : "");
        // The count stays together where the name takes two lines.
        return (what.label() == null ? l : what.label()) + "   " + taken.replace(' ', '\u00a0');
    }

    private ToggleButton button(String c, String l) {
        ToggleButton b = new ToggleButton();
        b.setToggleGroup(group);
        b.setId("level-" + c + "-" + l);
        b.setMaxWidth(Double.MAX_VALUE);
        b.setWrapText(true);
        b.setMinHeight(USE_PREF_SIZE);
        b.setAlignment(Pos.CENTER_LEFT);
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> choice.of(c, l));
        return b;
    }

    private static void show(ToggleButton b, Level l) {
        b.setText(l.words());
        b.setSelected(l.chosen());
        b.setDisable(l.busy());
    }
}
