package eagerneedle.app.window;

import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Workbench;
import java.util.List;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/**
 * Says that choices are only tried, which ones, and lets them be made or forgotten. Not there while nothing is tried.
 */
final class TrialBanner extends HBox {
    private final Supplier<Workbench> bench;
    private final Label says = new Label();
    private final Button keep = new Button("Make these choices");
    private final Button forget = new Button("Forget them");

    TrialBanner(Supplier<Workbench> bench) {
        super(10);
        this.bench = bench;
        setId("trial");
        getStyleClass().add("trial");
        setAlignment(Pos.CENTER_LEFT);
        says.setId("trial-says");
        says.setMinWidth(0);
        HBox.setHgrow(says, Priority.ALWAYS);
        says.setMaxWidth(Double.MAX_VALUE);
        keep.setId("trial-keep");
        forget.setId("trial-forget");
        keep.setMinWidth(Region.USE_PREF_SIZE);
        forget.setMinWidth(Region.USE_PREF_SIZE);
        forget.getStyleClass().add("quiet-button");
        keep.setOnAction(e -> Notices.attempt(this, () -> bench.get().keepTried()));
        forget.setOnAction(e -> bench.get().forgetTried());
        Labels.explained(keep, "Carries the tried choices out as one act, which can be undone");
        Labels.explained(forget, "Everything is again as it was (W)");
        getChildren().addAll(Labels.styled("What if", "section"), says, keep, forget);
        setVisible(false);
        setManaged(false);
    }

    /** Begins to try choices, or forgets those that are tried. */
    void toggle() {
        if (bench.get().isTrying()) {
            bench.get().forgetTried();
        } else {
            bench.get().startTrying();
        }
    }

    void refresh() {
        boolean trying = bench.get() != null && bench.get().isTrying();
        setVisible(trying);
        setManaged(trying);
        if (!trying) {
            return;
        }
        List<String> tried = bench.get().tried();
        says.setText(
                tried.isEmpty()
                        ? "Change an input, a window, a school, leave a run out: everything follows, nothing is kept."
                        : tried.get(tried.size() - 1)
                                + (tried.size() > 1 ? "  (and " + (tried.size() - 1) + " more)" : ""));
        Hints.give(says, String.join("\n", tried));
        keep.setDisable(tried.isEmpty());
    }
}
