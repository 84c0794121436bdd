package eagerneedle.app.widget;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.sheet.Sheet;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** A step to be signed off; one with minutes has a timer that must run out first, or be signed off early on purpose. */
public final class StepCard extends VBox {
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm").withZone(ZoneId.systemDefault());
    private final Workbench bench;
    private final Sheet.Step step;
    private final Label left = Labels.quiet("");
    private final CheckBox box;
    private final Button start = new Button("Start timer");
    private final ComboBox<String> staff = new ComboBox<>();

    /** @param names the staff of the laboratory, where it says who they are */
    public StepCard(Workbench bench, Sheet.Step step, List<String> names) {
        this.bench = bench;
        this.step = step;
        staff.setId("agreed-" + step.id());
        staff.getItems().setAll(names);
        staff.setEditable(names.isEmpty());
        staff.setPromptText("member of staff");
        staff.setPrefWidth(Theme.px(150));
        staff.setAccessibleText("Member of staff who agrees to: " + step.text());
        getStyleClass().add("card");
        setSpacing(6);
        box = new CheckBox(step.text());
        box.setWrapText(true);
        box.setId("step-" + step.id());
        box.setPrefWidth(Theme.px(200));
        box.setMinHeight(Region.USE_PREF_SIZE);
        box.setOnAction(e -> {
            if (!Notices.attempt(this, this::sign)) {
                tick();
            }
        });
        start.setId("timer-" + step.id());
        start.getStyleClass().add("quiet-button");
        start.setOnAction(e -> bench.apply(
                new RigCommand.StartTimer(step.id(), step.text(), bench.clock().instant())));
        Labels.explained(start, "Counts " + step.minutes() + " minutes from now; the bench reminds of what is left");
        left.setId("left-" + step.id());
        left.setWrapText(true);
        HBox row = new HBox(8, left, start);
        row.setAlignment(Pos.BASELINE_LEFT);
        getChildren().addAll(box, row);
        if (step.staff()) {
            HBox agreed = new HBox(8, Labels.quiet("agreed by"), staff);
            agreed.setAlignment(Pos.BASELINE_LEFT);
            getChildren().add(1, agreed);
        }
        setPrefWidth(Theme.px(226));
        tick();
    }

    private void sign() {
        String who = step.staff() && box.isSelected() ? by() : null;
        bench.apply(new RigCommand.SignOff(
                step.id(), step.text(), box.isSelected() ? bench.clock().instant() : null, who));
    }

    /** Who agrees. @throws IllegalArgumentException with one sentence where nobody is named */
    private String by() {
        String typed = staff.isEditable() ? staff.getEditor().getText() : staff.getValue();
        if (typed == null || typed.isBlank()) {
            throw new IllegalArgumentException("A member of staff has to agree to this step: say who, then tick it.");
        }
        return typed.strip();
    }

    private @Nullable Instant signedOff() {
        return bench.session().signOffs().get(step.id());
    }

    /** Seconds until the timer of a step is over; 0 when it is, NaN while it was not started. */
    static double secondsLeft(Workbench bench, Sheet.Step step) {
        Instant started = bench.session().timers().get(step.id());
        return started == null
                ? Double.NaN
                : Math.max(
                        0,
                        step.minutes() * 60
                                - Duration.between(started, bench.clock().instant())
                                                .toMillis()
                                        / 1000.0);
    }

    /** Brings the countdown, and whether it is signed off, up to now. */
    public void tick() {
        Instant at = signedOff();
        box.setSelected(at != null);
        start.setVisible(
                step.minutes() > 0 && at == null && bench.session().timers().get(step.id()) == null);
        start.setManaged(start.isVisible());
        double seconds = secondsLeft(bench, step);
        left.getStyleClass().removeAll("attention", "good");
        if (at != null) {
            String who = bench.session().bench().agreed().getOrDefault(step.id(), "");
            left.setText("signed off " + TIME.format(at) + (who.isEmpty() ? "" : " by " + who));
        } else if (step.minutes() <= 0) {
            left.setText("to be signed off");
        } else if (Double.isNaN(seconds)) {
            left.setText(words(step.minutes() * 60) + " to run");
        } else if (seconds > 0) {
            left.setText(words(seconds) + " left");
            left.getStyleClass().add("attention");
        } else {
            left.setText("time is over: sign it off");
            left.getStyleClass().add("good");
        }
    }

    public static String words(double seconds) {
        long s = Math.round(seconds);
        return s >= 60 ? s / 60 + " min" + (s % 60 == 0 ? "" : " " + s % 60 + " s") : s + " s";
    }
}
