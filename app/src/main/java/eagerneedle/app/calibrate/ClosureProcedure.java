package eagerneedle.app.calibrate;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.ClosureMap;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * Closing the circle: which graduation to set next, drawn; the table filling; the errors of all intervals as soon as
 * they follow.
 */
final class ClosureProcedure implements CalibrateStation.Procedure {
    private final Desk desk;
    private final String name;
    private final Channel channel;
    private final CalibrationDraft draft;
    private final CalibrationKeeping keeping;
    private final SteadyReading reading;
    private final HBox all = new HBox(22);
    private final Label next = Labels.styled("", "section");
    private final Label progress = Labels.quiet("");
    private final Label result = Labels.wrapped("");
    private final Button take = new Button("Take reading");
    private final Button back = new Button("Take the last one back");
    private final Button skip = new Button("Skip");
    private final Button rest = new Button("Let the simulated tables run on");
    private final Button keep = new Button("Keep calibration");
    private final Button paper = new Button("Certificate...");
    private final PictureView map = new PictureView("Closure map", null);
    private final double[][] readings;
    private int at;
    private boolean set;
    private boolean running;

    ClosureProcedure(Desk desk, String name) {
        this.desk = desk;
        this.name = name;
        this.channel = desk.bench().sheet().channels().get(name);
        this.draft = new CalibrationDraft(desk, name);
        this.keeping = new CalibrationKeeping(desk, name, all);
        this.reading = new SteadyReading(
                desk,
                name,
                channel.calibration().seconds(),
                channel.calibration().typed());
        int n = channel.calibration().divisions();
        readings = new double[n][n];
        for (double[] row : readings) {
            Arrays.fill(row, Double.NaN);
        }
        next.setWrapText(true);
        next.setId("closure-next");
        next.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        take.setId("take-point");
        take.setOnAction(e -> take());
        Labels.explained(take, "Takes the steadied angle into the cell that is marked (Enter)");
        take.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        skip.setOnAction(e -> step(1));
        skip.getStyleClass().add("quiet-button");
        Labels.explained(skip, "Leaves this cell empty; the errors still follow from an incomplete table");
        back.setOnAction(e -> {
            step(-1);
            readings[at / n][at % n] = Double.NaN;
            refresh();
        });
        back.getStyleClass().add("quiet-button");
        rest.setId("closure-run");
        rest.setOnAction(e -> {
            running = !running;
            refresh();
        });
        rest.getStyleClass().add("quiet-button");
        keep.setId("keep-calibration");
        keep.setOnAction(e -> keep());
        paper.getStyleClass().add("quiet-button");
        paper.setOnAction(e -> keeping.certificate("pdf"));
        HBox read = new HBox(12, reading, take);
        read.setAlignment(Pos.CENTER_LEFT);
        VBox left = new VBox(
                10,
                Labels.heading("Circle closure: " + channel.label()),
                Labels.wrapped(
                        channel.calibration().prepare() == null
                                ? ""
                                : channel.calibration().prepare()),
                Labels.quiet(
                        channel.calibration().mode().equals("rezeroed")
                                ? "re-zeroed at each step"
                                : "cumulative from one zero a series"),
                next,
                read,
                new HBox(6, skip, back),
                rest,
                progress,
                result,
                new HBox(8, keep, paper));
        left.setPrefWidth(330);
        left.setMinWidth(290);
        HBox.setHgrow(map, Priority.ALWAYS);
        ScrollPane scroll = new ScrollPane(left);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setPrefWidth(345);
        scroll.setMinWidth(300);
        all.getChildren().addAll(scroll, map);
        // In a narrow window the map stands under the words.
        all.widthProperty().addListener((o, was, is) -> {
            boolean narrow = is.doubleValue() < 640;
            if (narrow == left.getChildren().contains(map)) {
                return;
            }
            all.getChildren().remove(map);
            left.getChildren().remove(map);
            map.setPrefHeight(narrow ? 430 : javafx.scene.layout.Region.USE_COMPUTED_SIZE);
            map.setMinHeight(narrow ? 430 : 0);
            HBox.setHgrow(scroll, narrow ? Priority.ALWAYS : Priority.NEVER);
            (narrow ? left : all).getChildren().add(map);
        });
        refresh();
    }

    private int n() {
        return readings.length;
    }

    private void step(int by) {
        at = Math.max(0, Math.min(n() * n(), at + by));
        set = false;
        refresh();
    }

    private void arrange() {
        set = true;
        reading.arrange(Map.of(
                "channel",
                name,
                "lower",
                Integer.toString(at % n()),
                "upper",
                Integer.toString((at / n() + at % n()) % n())));
    }

    private void take() {
        if (at >= n() * n()) {
            return;
        }
        Notices.attempt(all, () -> {
            if (!set) {
                arrange();
                throw new IllegalArgumentException("The tables have just been set; wait until the reading is steady.");
            }
            boolean cumulative = channel.calibration().mode().equals("cumulative");
            double before = cumulative && at % n() > 0 ? readings[at / n()][at % n() - 1] : 0;
            boolean simulated = desk.rig().map(r -> r.isSimulated()).orElse(false);
            readings[at / n()][at % n()] = reading.take().mean() + (cumulative && simulated ? before : 0);
            step(1);
            if (at < n() * n()) {
                arrange();
            }
        });
    }

    private void keep() {
        Calibration c = draft.of(List.of(), List.of(), table());
        keeping.keep(c, "The closure is kept: the errors of all " + 2 * n() + " intervals stand in the ledger");
    }

    private ClosureReadings table() {
        double[][] copy = new double[n()][];
        for (int k = 0; k < copy.length; k++) {
            copy[k] = readings[k].clone();
        }
        return new ClosureReadings(channel.unit(), channel.calibration().mode(), copy);
    }

    private static ClosureReadings.Solution solved(ClosureReadings t, String id) {
        try {
            return t.solve(id);
        } catch (FitException e) {
            return null;
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Node focus() {
        return take;
    }

    @Override
    public void tick() {
        reading.tick();
        take.setDisable(desk.rig().isEmpty() || at >= n() * n());
        if (running && desk.rig().isPresent() && at < n() * n()) {
            if (!set) {
                arrange();
            } else if (reading.isSteady()) {
                take();
            }
        }
    }

    @Override
    public void refresh() {
        boolean begun = at > 0;
        Calibration stored = desk.bench().session().calibrationOf(name).orElse(null);
        boolean showStored = !begun && stored != null;
        ClosureReadings t = showStored ? stored.closure() : table();
        ClosureReadings.Solution s = showStored ? solved(t, stored.id()) : at < n() ? null : solved(t, "draft");
        boolean over = at >= n() * n();
        int lower = at % n();
        int upper = (at / n() + at % n()) % n();
        next.setText(
                over
                        ? "Every interval was compared with every other."
                        : "Series " + (at / n() + 1) + ", reading " + (lower + 1)
                                + ": turn the lower table through interval " + (lower + 1)
                                + ", the upper one back through interval " + (upper + 1) + ".");
        progress.setText(at + " of " + n() * n() + " readings");
        rest.setVisible(desk.rig().map(r -> r.isSimulated()).orElse(false) && !over);
        rest.setText(running ? "Stop running on" : "Let the simulated tables run on");
        back.setDisable(at == 0);
        skip.setDisable(over);
        keep.setDisable(!begun || s == null);
        paper.setDisable(stored == null);
        if (s == null) {
            result.setText(
                    "The errors follow as soon as enough cells are filled; both circles then close by themselves.");
        } else {
            double largest = s.lower().stream()
                    .mapToDouble(q -> Math.abs(q.value()))
                    .max()
                    .orElse(0);
            result.setText("Scatter of one reading " + Notation.figures(s.sd(), 2) + " "
                    + channel.labUnit().pretty() + " with " + s.dof() + " degrees of freedom; an interval is known to "
                    + Notation.figures(s.lower().get(0).u(), 2) + ". Largest error of the lower table "
                    + Notation.plain(largest, 2) + ".\n"
                    + String.join("\n", s.remarks().stream().map(r -> "▲ " + r).toList()));
        }
        int[] here = over || showStored ? null : new int[] {at / n(), lower};
        map.show((surface, w, h) -> ClosureMap.paint(surface, t, s, here, w, h));
    }
}
