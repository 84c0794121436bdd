package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.plan.Change;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.sheet.Sheet;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * What it would take to reach a target uncertainty: worked out by trying every change on a copy of the plan, off the
 * interface thread.
 */
final class TargetPanel extends VBox {
    private final Desk desk;
    private final TextField target = new TextField();
    private final Label says = Labels.wrapped("");
    private final Button apply = new Button("Plan it so");
    private final Button work = new Button("What would it take?");
    private List<Improvements.Possible> way = List.of();
    private int asked;

    TargetPanel(Desk desk) {
        super(6);
        this.desk = desk;
        target.setId("target");
        target.setPrefWidth(110);
        target.setPromptText("0.2 %");
        target.setAccessibleText("Target standard uncertainty");
        Labels.explained(
                target,
                "Target standard uncertainty of the main result: a share such as 0.2 %, or a value with its unit");
        target.setOnAction(e -> work());
        work.setId("target-work");
        work.setOnAction(e -> work());
        Labels.explained(work, "Tries every instrument of the stockroom and more runs, and names the cheapest change");
        apply.setId("target-apply");
        apply.setVisible(false);
        apply.setOnAction(e -> apply());
        Labels.explained(apply, "Takes these changes into the plan; each can be undone");
        says.setId("target-says");
        HBox row = new HBox(8, Labels.quiet("target u"), target, work, apply);
        row.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(row, says);
    }

    private void work() {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        if (main == null) {
            says.setText("The sheet compares nothing, so there is no result to aim at.");
            return;
        }
        Quantity now = desk.bench().plan().quantity(main.result()).orElse(null);
        if (now == null) {
            says.setText(desk.bench().plan().outcome(main.result()).problem());
            return;
        }
        double goal;
        try {
            goal = Improvements.target(target.getText(), now);
        } catch (RuntimeException e) {
            says.setText("Write the target as a share, 0.2 %, or as a value with a unit that fits "
                    + now.unit().pretty() + ".");
            return;
        }
        int mine = ++asked;
        says.setText("Trying every change ...");
        work.setDisable(true);
        Improvements improvements = desk.bench().improvements(desk.stockroom().all(), main.result());
        Thread t = new Thread(
                () -> {
                    List<Improvements.Possible> all = improvements.all();
                    List<Improvements.Possible> found = improvements.way(goal);
                    Platform.runLater(() -> {
                        work.setDisable(false);
                        if (mine == asked) {
                            show(now, goal, all, found);
                        }
                    });
                },
                "what would it take");
        t.setDaemon(true);
        t.start();
    }

    private void show(Quantity now, double goal, List<Improvements.Possible> all, List<Improvements.Possible> found) {
        way = found;
        boolean reached = !found.isEmpty()
                && found.get(found.size() - 1).change().result().u() <= goal;
        if (found.size() <= 1) {
            says.setText(Change.sentence(
                    now, all.stream().map(Improvements.Possible::change).toList(), goal));
        } else {
            StringBuilder b = new StringBuilder(
                    reached ? "No single change is enough. One after another:" : "Even all of this does not reach it:");
            for (int i = 0; i < found.size(); i++) {
                b.append("\n")
                        .append(i + 1)
                        .append(". ")
                        .append(found.get(i).change().says())
                        .append(": u = ")
                        .append(Notation.figures(found.get(i).change().result().u(), 2));
            }
            double minutes =
                    found.stream().mapToDouble(p -> p.change().minutes()).sum();
            says.setText(b.append(
                            minutes < 0.5
                                    ? ""
                                    : "\nabout " + Notation.plain(Math.ceil(minutes), 3) + " min more at the bench")
                    .toString());
        }
        apply.setVisible(!found.isEmpty());
    }

    private void apply() {
        Notices.attempt(this, () -> way.forEach(p -> desk.bench().apply(p.act())));
        apply.setVisible(false);
        way = List.of();
        work();
    }
}
