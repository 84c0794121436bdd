package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.HPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** The rows taken so far of a capture that holds: a level, the mean of each channel, what was read by eye. */
final class RowTable extends VBox {
    private static final int LONG = 16;
    private final Desk desk;
    private final GridPane grid = new GridPane();
    private final Button copy = new Button("Copy table");
    private List<List<String>> cells = List.of();

    RowTable(Desk desk) {
        super(4);
        this.desk = desk;
        grid.getStyleClass().add("table-cells");
        grid.setId("row-table");
        copy.setId("copy-rows");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> {
            Copied.table(tabbed());
            Notices.tell(this, "The table is on the clipboard; paste it into a spreadsheet.");
        });
        Labels.explained(copy, "The table with full figures, for pasting into a spreadsheet");
        ScrollPane scroll = new ScrollPane(grid);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setMaxHeight(Theme.px(190));
        getChildren().addAll(scroll, copy);
    }

    /** The table with tabs between cells. */
    String tabbed() {
        return String.join("\n", cells.stream().map(r -> String.join("\t", r)).toList()) + "\n";
    }

    /** Shows the rows of a capture. */
    void show(String capture) {
        Reduction reduction = desk.bench().reduction();
        Capture plan = desk.bench().sheet().capture(capture);
        grid.getChildren().clear();
        List<List<String>> out = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("run", "level"));
        plan.channels().forEach(c -> {
            String unit = desk.bench().sheet().channel(c).labUnit().pretty();
            head.add(desk.bench().sheet().channel(c).label() + (unit.isEmpty() ? "" : ", " + unit));
            head.add("u");
        });
        plan.byEye().values().forEach(i -> head.add(i.label()));
        out.add(head);
        int row = 1;
        List<String> shown = head.stream().filter(h -> !h.equals("u")).toList();
        for (int c = 0; c < shown.size(); c++) {
            grid.add(Labels.quiet(shown.get(c)), c, 0);
        }
        for (Run run : desk.bench().session().keptRuns().stream()
                .filter(r -> r.capture().equals(capture))
                .toList()) {
            List<String> line = new ArrayList<>(List.of(run.name(), levelLabel(plan, run)));
            int column = 0;
            grid.add(new Label(run.name()), column++, row);
            grid.add(new Label(levelLabel(plan, run)), column++, row);
            for (String c : plan.channels()) {
                Optional<Trace> t = reduction.trace(run, c).filter(x -> x.size() > 1);
                WindowStatistics w = t.map(WindowStatistics::of).orElse(null);
                line.add(w == null ? "" : Double.toString(w.mean()));
                line.add(w == null ? "" : Double.toString(w.uMean()));
                figure(w == null ? "—" : Notation.bracketed(w.mean(), w.uMean()), column++, row);
            }
            for (String key : plan.byEye().keySet()) {
                line.add(run.entries().byEye().getOrDefault(key, "—"));
                figure(read(reduction, run, key), column++, row);
            }
            out.add(line);
            row++;
        }
        Labels.onPoints(grid);
        cells = out;
        setVisible(row > 1);
        setManaged(row > 1);
    }

    /** A reading as it is written; one that is built as what comes of it. */
    private static String read(Reduction reduction, Run run, String key) {
        String text = run.entries().byEye().getOrDefault(key, "—");
        return text.length() < LONG && text.indexOf(';') < 0
                ? text
                : reduction.ofRun(run, key).quantity().map(Notation::bracket).orElse(text);
    }

    private void figure(String text, int column, int row) {
        Label l = Labels.figure(text);
        grid.add(l, column, row);
        GridPane.setHalignment(l, HPos.RIGHT);
    }

    private static String levelLabel(Capture plan, Run run) {
        Capture.Level level = plan.levels().get(run.level());
        return level == null || level.label() == null ? run.level() : level.label();
    }
}
