package eagerneedle.app.calibrate;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.CellGrid;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.calibration.TrimAdvisor;
import eagerneedle.picture.TrimNeedle;
import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Shows an {@link AdjustModel}: which load, which trim, which way; the big needle; the passes so far. */
final class AdjustPanel extends VBox {
    private final Desk desk;
    private final SteadyReading reading;
    private final AdjustModel model;
    private final String unit;
    private final BiConsumer<SteadyModel.Taken, SteadyModel.Taken> done;
    private final Label says = Labels.styled("", "section");
    private final Label hint = Labels.wrapped("");
    private final Label foretold = Labels.quiet("");
    private final PictureView needle = new PictureView("Trim needle", null);
    private final CellGrid passes = new CellGrid();
    private final Button load = new Button();
    private final Button take = new Button("Take");
    private final Button back = new Button("↺ anticlockwise");
    private final Button on = new Button("clockwise ↻");

    /** @param done takes the last zero and full readings once both hold */
    AdjustPanel(Desk desk, String name, SteadyReading reading, BiConsumer<SteadyModel.Taken, SteadyModel.Taken> done) {
        super(8);
        this.desk = desk;
        this.reading = reading;
        this.model = new AdjustModel(
                name, desk.bench().sheet().channel(name).calibrationPlan(), new CalibrationDraft(desk.bench(), name));
        this.unit = desk.bench().sheet().channel(name).labUnit().pretty();
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
        Labels.explained(back, turns("left"));
        Labels.explained(on, turns("right"));
        back.setOnAction(e -> turn(false));
        on.setOnAction(e -> turn(true));
        needle.setMinHeight(Theme.px(170));
        needle.setPrefHeight(Theme.px(190));
        passes.getStyleClass().add("table-cells");
        HBox acts = new HBox(8, load, take);
        acts.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(says, acts, needle, hint, new HBox(8, back, on), foretold, passes);
        setOnKeyPressed(this::key);
        show();
    }

    private static String turns(String arrow) {
        return "Turns the simulated trim, as far as is said (" + arrow
                + " arrow); at a real instrument turn the trim itself";
    }

    private void key(KeyEvent e) {
        if (e.getCode() == KeyCode.LEFT || e.getCode() == KeyCode.RIGHT) {
            turn(e.getCode() == KeyCode.RIGHT);
            e.consume();
        } else if (e.getCode() == KeyCode.ENTER) {
            if (model.isLoaded()) {
                take();
            } else {
                load();
            }
            e.consume();
        }
    }

    /** Forgets everything and begins with the readings before anything is turned. */
    void restart() {
        model.restart();
        show();
    }

    private void load() {
        if (desk.rig().isEmpty()) {
            Notices.warn(this, "No instrument is connected: connect it at Rig first.");
            return;
        }
        Notices.attempt(this, () -> {
            double noise = reading.model().statistics().map(s -> s.uMean()).orElse(0.0);
            reading.arrange(model.loading(noise));
            model.loaded();
            show();
            tick();
        });
    }

    private void turn(boolean clockwise) {
        Optional<Map<String, String>> bench = model.turning(clockwise);
        if (bench.isEmpty() || desk.rig().isEmpty() || !desk.rig().get().isSimulated()) {
            return;
        }
        Notices.attempt(this, () -> {
            try {
                desk.rig().get().arrange(bench.get());
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
            reading.model().again();
            model.turned();
            // What was said is done: nothing can be turned until the reading is steady again.
            tick();
        });
    }

    private void take() {
        Notices.attempt(this, () -> {
            boolean holds = model.take(reading.take());
            show();
            if (holds) {
                done.accept(model.zero(), model.full());
            }
        });
    }

    /** Follows the live reading: needle and hint. */
    void tick() {
        double value = model.isLoaded() ? reading.model().value() : Double.NaN;
        boolean steady = model.isLoaded() && reading.model().isSteady();
        model.look(value, steady);
        TrimAdvisor.Instruction aim = model.aim();
        needle.show((s, w, h) -> TrimNeedle.paint(s, value, aim.aim(), aim.band(), unit, w, h));
        hint.setText(model.hint(steady));
        back.setDisable(!model.canTurn());
        on.setDisable(!model.canTurn());
        take.setDisable(!model.canTake(value, steady));
    }

    private void show() {
        says.setText(model.says());
        load.setText(model.loadSays());
        load.setDisable(!model.canLoad());
        foretold.setText(model.foretold());
        passes.show(model.passCells());
    }

    Node focus() {
        return load;
    }
}
