package eagerneedle.app.window;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.watch.Finding;
import eagerneedle.picture.Ink;
import java.util.List;
import java.util.function.IntConsumer;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/** The bottom line: what is wrong now and what to do. Expands into the list of all findings. */
public final class WatchStrip extends VBox implements Notices.Board {
    private final Label line = new Label();
    private final Button more = new Button("All watches");
    private final VBox list = new VBox(6);
    private final ScrollPane scroll = new ScrollPane(list);
    private final PictureView lamp = new PictureView("Watch lamp", null);
    private final PauseTransition fade = new PauseTransition(Duration.seconds(7));
    private final IntConsumer showRun;
    private List<Finding> findings = List.of();

    @SuppressWarnings("NullAway.Init") // said by the window
    private Answers answers;

    private String live = "";
    private boolean silent;
    private boolean open;

    /** @param showRun shows the run a finding points at */
    public WatchStrip(IntConsumer showRun) {
        this.showRun = showRun;
        setId(Notices.BOARD);
        getStyleClass().add("watch-strip");
        resize();
        line.setId("watch-line");
        line.setMinWidth(0);
        more.getStyleClass().add("quiet-button");
        more.setId("watch-more");
        more.setMinWidth(Region.USE_PREF_SIZE);
        Labels.explained(more, "Show every watch with its cause and remedy");
        more.setOnAction(e -> toggle());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox row = new HBox(10, lamp, line, gap, more);
        row.setAlignment(Pos.CENTER_LEFT);
        scroll.setFitToWidth(true);
        scroll.setPrefHeight(Theme.px(190));
        Labels.shown(scroll, false);
        getChildren().addAll(scroll, row);
        fade.setOnFinished(e -> refresh());
    }

    private void toggle() {
        open = !open;
        Labels.shown(scroll, open);
        more.setText(open ? "Close" : "All watches");
    }

    @Override
    public void say(String sentence, boolean warning) {
        show(sentence, warning ? Ink.ATTENTION : Ink.GOOD, warning);
        fade.playFromStart();
    }

    /** Takes the room that the size of the text asks for. */
    void resize() {
        lamp.setMinSize(Theme.px(16), Theme.px(16));
        lamp.setMaxSize(Theme.px(16), Theme.px(16));
    }

    /** Speaks before stored findings. */
    @Override
    public void live(String sentence) {
        if (!live.equals(sentence)) {
            live = sentence;
            if (fade.getStatus() != javafx.animation.Animation.Status.RUNNING || !sentence.isEmpty()) {
                refresh();
            }
        }
    }

    public void findings(List<Finding> now) {
        findings = now;
        list.getChildren().clear();
        for (Finding f : now) {
            Label what = Labels.wrapped(mark(f) + " " + f.message());
            what.getStyleClass().add(f.severity() == Finding.Severity.NOTE ? "plain" : "attention");
            Label why = Labels.wrapped(f.cause() + " " + f.remedy());
            why.getStyleClass().add("quiet");
            VBox item = new VBox(1, what, why);
            FlowPane acts = new FlowPane(10, 2);
            if (f.run() > 0) {
                Hyperlink go = new Hyperlink("Show run " + f.run());
                go.setOnAction(e -> showRun.accept(f.run()));
                acts.getChildren().add(go);
            }
            if (answers != null) {
                answer(f, acts);
            }
            item.getChildren().add(acts);
            list.getChildren().add(item);
        }
        if (now.isEmpty()) {
            list.getChildren().add(Labels.quiet("Nothing to watch."));
        }
        refresh();
    }

    /** What a person may say to a finding: that it is known, why it is so, that its samples do not count. */
    public interface Answers {
        /** @param text why; empty to acknowledge only */
        void explain(Finding f, String text);

        void voidSamples(Finding f, String reason);
    }

    /** Lets findings be answered in the list. */
    public void answeredBy(Answers who) {
        answers = who;
    }

    private void answer(Finding f, FlowPane acts) {
        int at = list.getChildren().size();
        Hyperlink known = new Hyperlink("Acknowledge");
        known.setId("watch-acknowledge-" + at);
        known.setOnAction(e -> answers.explain(f, ""));
        TextField why = new TextField();
        why.setId("watch-why-" + at);
        why.setPrefWidth(Theme.px(200));
        why.setPromptText("why it is so");
        why.setAccessibleText("What to say to this watch");
        Hyperlink explain = new Hyperlink("Explain");
        explain.setId("watch-explain-" + at);
        explain.setOnAction(e -> answers.explain(f, why.getText()));
        why.setOnAction(e -> explain.fire());
        acts.getChildren().addAll(known, why, explain);
        if (f.run() > 0 && !Double.isNaN(f.from())) {
            Hyperlink voids = new Hyperlink(Notation.sentence("Void its samples, %.4g s to %.4g s", f.from(), f.to()));
            voids.setId("watch-void-" + at);
            voids.setOnAction(e -> answers.voidSamples(f, why.getText().isBlank() ? f.watch() : why.getText()));
            acts.getChildren().add(voids);
        }
        acts.setAlignment(Pos.CENTER_LEFT);
    }

    /** The watches look and say nothing, or speak again. */
    void silent(boolean on) {
        silent = on;
        refresh();
    }

    private static String mark(Finding f) {
        return f.severity() == Finding.Severity.NOTE ? "·" : "▲";
    }

    private void refresh() {
        if (fade.getStatus() == javafx.animation.Animation.Status.RUNNING && live.isEmpty()) {
            return;
        }
        if (!live.isEmpty()) {
            show(live, Ink.ATTENTION, true);
        } else if (findings.isEmpty()) {
            show(silent ? "The watches are silent." : "Nothing to watch.", silent ? Ink.QUIET : Ink.GOOD, false);
        } else {
            Finding first = findings.get(0);
            show(
                    first.line() + (findings.size() > 1 ? "  (" + (findings.size() - 1) + " more)" : ""),
                    first.severity() == Finding.Severity.NOTE ? Ink.GOOD : Ink.ATTENTION,
                    first.severity() != Finding.Severity.NOTE);
        }
    }

    private void show(String text, Ink ink, boolean triangle) {
        line.setText(text);
        lamp.show((s, w, h) -> {
            if (triangle) {
                s.polygon(new double[] {8, 14, 2}, new double[] {2, 13, 13}, ink);
            } else {
                s.circle(8, 8, 5, ink, null, 0);
            }
        });
    }
}
