package eagerneedle.app.calibrate;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.LivePage;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.ClosureMap;
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
    private final ClosureModel model;
    private boolean running;

    ClosureProcedure(Desk desk, String name) {
        this.desk = desk;
        this.model = new ClosureModel(desk.bench(), name);
        Channel channel = model.channel();
        this.keeping = new CalibrationKeeping(desk, name, all);
        this.reading = new SteadyReading(
                desk,
                name,
                channel.calibrationPlan().seconds(),
                channel.calibrationPlan().typed());
        next.setWrapText(true);
        next.setId("closure-next");
        next.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        take.setId("take-point");
        take.setOnAction(e -> take());
        Labels.explained(take, "Takes the steadied angle into the cell that is marked (Enter)");
        take.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        skip.setOnAction(e -> {
            model.skip();
            refresh();
        });
        skip.getStyleClass().add("quiet-button");
        Labels.explained(skip, "Leaves this cell empty; the errors still follow from an incomplete table");
        back.setOnAction(e -> {
            model.back();
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
        String prepare = channel.calibrationPlan().prepare();
        VBox left = new VBox(
                10,
                Labels.heading("Circle closure: " + channel.label()),
                Labels.wrapped(prepare == null ? "" : prepare),
                Labels.quiet(
                        channel.calibrationPlan().mode().equals("rezeroed")
                                ? "re-zeroed at each step"
                                : "cumulative from one zero a series"),
                next,
                read,
                new HBox(6, skip, back),
                rest,
                progress,
                result,
                new HBox(8, keep, paper));
        left.setPrefWidth(Theme.px(330));
        left.setMinWidth(Theme.px(290));
        HBox.setHgrow(map, Priority.ALWAYS);
        ScrollPane scroll = new LivePage(left);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setPrefWidth(Theme.px(345));
        scroll.setMinWidth(Theme.px(300));
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

    private void arrange() {
        reading.arrange(model.setting());
    }

    private boolean isSimulated() {
        return desk.rig().map(LiveRig::isSimulated).orElse(false);
    }

    private void take() {
        if (model.isOver()) {
            return;
        }
        Notices.attempt(all, () -> {
            if (!model.isSet()) {
                arrange();
                throw new IllegalArgumentException("The tables have just been set; wait until the reading is steady.");
            }
            model.take(reading.take().mean(), isSimulated());
            refresh();
            if (!model.isOver()) {
                arrange();
            }
        });
    }

    private void keep() {
        keeping.keep(
                model.made(),
                "The closure is kept: the errors of all " + model.intervals() + " intervals stand in the ledger");
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
        take.setDisable(desk.rig().isEmpty() || model.isOver());
        if (running && desk.rig().isPresent() && !model.isOver()) {
            if (!model.isSet()) {
                arrange();
            } else if (reading.model().isSteady()) {
                take();
            }
        }
    }

    @Override
    public void refresh() {
        next.setText(model.says());
        progress.setText(model.progress());
        rest.setVisible(isSimulated() && !model.isOver());
        rest.setText(running ? "Stop running on" : "Let the simulated tables run on");
        back.setDisable(!model.hasBegun());
        skip.setDisable(model.isOver());
        keep.setDisable(!model.canKeep());
        paper.setDisable(!model.canCertify());
        result.setText(model.result());
        ClosureReadings table = model.shown();
        ClosureReadings.Solution solution = model.solution().orElse(null);
        int[] here = model.here().orElse(null);
        map.show((surface, w, h) -> ClosureMap.paint(surface, table, solution, here, w, h));
    }
}
