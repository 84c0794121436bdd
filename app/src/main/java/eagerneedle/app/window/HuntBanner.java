package eagerneedle.app.window;

import eagerneedle.app.training.HuntModel;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.training.Hunt;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;

/** Says that a fault is hunted in the session shown, and for how long; leads to the answer. Else it is not there. */
final class HuntBanner extends HBox {
    private final MainWindow window;
    private final Clock clock;
    private final Label says = new Label();
    private Optional<Hunt> hidden = Optional.empty();
    private @Nullable HuntModel model;

    HuntBanner(MainWindow window, Clock clock) {
        super(10);
        this.window = window;
        this.clock = clock;
        setId("hunt-banner");
        getStyleClass().add("trial");
        setAlignment(Pos.CENTER_LEFT);
        says.setId("hunt-lasts");
        says.setMinWidth(0);
        says.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(says, Priority.ALWAYS);
        Button known = new Button("I know what is wrong...");
        known.setId("hunt-known");
        known.setMinWidth(Region.USE_PREF_SIZE);
        known.setOnAction(e -> window.aside().hunt(Objects.requireNonNull(model), this::over));
        Button leave = new Button("Give up");
        leave.setId("hunt-leave");
        leave.setMinWidth(Region.USE_PREF_SIZE);
        leave.getStyleClass().add("quiet-button");
        leave.setOnAction(e -> giveUp());
        Labels.explained(leave, "Ends the hunt without an answer; the watches speak again");
        getChildren().addAll(Labels.styled("Fault hunt", "section"), says, known, leave);
        shown(false);
    }

    /** The file of a person's progress. */
    static Path progress() {
        return Home.folder().resolve("training.json");
    }

    /** Begins a session of a sheet at whose simulated bench a fault is hidden. */
    void begin(SheetReader.Located sheet) {
        Workbench before = window.bench();
        hidden = Optional.of(Hunt.of(sheet.sheet(), new Random()));
        window.door().begin(sheet, null);
        if (window.bench() == before) {
            hidden = Optional.empty();
            return;
        }
        model = new HuntModel(hidden.orElseThrow(), window.bench(), clock, progress());
        shown(true);
        tick();
    }

    /** What is hidden at the bench now. */
    Optional<Hunt> hidden() {
        return hidden;
    }

    /** Another session is shown: a hunt in the one before is over. */
    void shows(Workbench bench) {
        if (model != null && model.bench() != bench) {
            over();
        }
    }

    private void giveUp() {
        HuntModel given = Objects.requireNonNull(model);
        String was =
                given.hunt().judge(HuntModel.NOTHING, HuntModel.NOTHING).says().get(0);
        given.end();
        over();
        window.say("The hunt is over. " + was, false);
    }

    private void over() {
        hidden = Optional.empty();
        model = null;
        shown(false);
    }

    private void shown(boolean on) {
        setVisible(on);
        setManaged(on);
    }

    void tick() {
        if (model != null) {
            says.setText(
                    "Something may be wrong at this bench: work as usual; the watches are silent. " + model.lasted());
        }
    }
}
