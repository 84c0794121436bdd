package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import java.util.function.IntConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** One finding with what may be said to it. Half-written words stay while the watches look again. */
final class FindingItem extends VBox {
    private final Label what = Labels.wrapped("");
    private final Label why = Labels.wrapped("");
    private final Hyperlink go = new Hyperlink();
    private final Hyperlink known = new Hyperlink("Acknowledge");
    private final TextField said = new TextField();
    private final Hyperlink explain = new Hyperlink("Explain");
    private final Hyperlink voids = new Hyperlink();

    /** What makes a finding the same finding, whatever its numbers. */
    record Key(Rule rule, String channel, int run, String subject) {
        static Key of(Finding f) {
            return new Key(f.rule(), f.channel(), f.run(), f.subject());
        }
    }

    FindingItem() {
        super(1);
        why.getStyleClass().add("quiet");
        said.setPrefWidth(Theme.px(200));
        said.setPromptText("why it is so");
        said.setAccessibleText("What to say to this watch");
        FlowPane acts = new FlowPane(10, 2, go, known, said, explain, voids);
        acts.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(what, why, acts);
    }

    /**
     * @param at its place in the list, from 0
     * @param showRun shows the run it points at
     * @param answers null where findings cannot be answered
     */
    void show(Finding f, int at, IntConsumer showRun, WatchStrip.@Nullable Answers answers) {
        boolean note = f.severity() == Finding.Severity.NOTE;
        what.setText((note ? "·" : "▲") + " " + f.message());
        Labels.styled(what, "attention", !note);
        why.setText(f.cause() + " " + f.remedy());
        Labels.shown(go, f.run() > 0);
        go.setText("Show run " + f.run());
        go.setOnAction(e -> showRun.accept(f.run()));
        known.setId("watch-acknowledge-" + at);
        said.setId("watch-why-" + at);
        explain.setId("watch-explain-" + at);
        voids.setId("watch-void-" + at);
        Labels.shown(known, answers != null);
        Labels.shown(said, answers != null);
        Labels.shown(explain, answers != null);
        Labels.shown(voids, answers != null && f.run() > 0 && !Double.isNaN(f.from()));
        if (answers == null) {
            return;
        }
        known.setOnAction(e -> answers.explain(f, ""));
        explain.setOnAction(e -> answers.explain(f, taken()));
        said.setOnAction(e -> explain.fire());
        voids.setText(Notation.sentence("Void its samples, %.4g s to %.4g s", f.from(), f.to()));
        voids.setOnAction(e -> answers.voidSamples(f, said.getText().isBlank() ? f.watch() : taken()));
    }

    /** What was written; the field is empty then. */
    private String taken() {
        String words = said.getText();
        said.clear();
        return words;
    }
}
