package eagerneedle.app.window;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.watch.Finding;
import eagerneedle.picture.Ink;
import java.util.List;
import java.util.function.IntConsumer;
import java.util.stream.IntStream;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.jspecify.annotations.Nullable;

/** The bottom line: what is wrong now and what to do. Expands into the list of all findings. */
public final class WatchStrip extends VBox implements Notices.Board {
    private final Label line = new Label();
    private final Button more = new Button("All watches");
    private final VBox list = new VBox(6);
    private final Label nothing = Labels.quiet("Nothing to watch.");
    private final ScrollPane scroll = new ScrollPane(new VBox(nothing, list));
    private @Nullable Answers answers;
    private final Rows<Placed> rows = Rows.changing(
            list,
            p -> FindingItem.Key.of(p.finding()),
            p -> new FindingItem(),
            (item, p) -> item.show(p.finding(), p.at(), this::showRun, answers));
    private final PictureView lamp = new PictureView("Watch lamp", null);
    private final PauseTransition fade = new PauseTransition(Duration.seconds(7));
    private final IntConsumer showRun;
    private List<Finding> findings = List.of();

    private String live = "";
    private boolean silent;
    private boolean open;

    /** A finding and its place in the list. */
    private record Placed(int at, Finding finding) {}

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

    private void showRun(int run) {
        showRun.accept(run);
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
        rows.show(IntStream.range(0, now.size())
                .mapToObj(i -> new Placed(i, now.get(i)))
                .toList());
        Labels.shown(nothing, now.isEmpty());
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

    /** The watches look and say nothing, or speak again. */
    void silent(boolean on) {
        silent = on;
        refresh();
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
