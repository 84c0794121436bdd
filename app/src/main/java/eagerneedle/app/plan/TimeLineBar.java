package eagerneedle.app.plan;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.picture.TimeLinePicture;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The work on a line of time, always in sight: two lanes, and every task on a line of its own when it is opened. */
final class TimeLineBar extends VBox {
    private static final double MOST = 260;

    TimeLineBar(TimeLine line) {
        super(4);
        getStyleClass().add("time-line");
        setId("time-line");
        PictureView strip = new PictureView("Time line", (s, w, h) -> TimeLinePicture.strip(s, line, w));
        strip.setPrefHeight(Theme.px(TimeLinePicture.STRIP));
        strip.setMinHeight(Theme.px(TimeLinePicture.STRIP));
        PictureView tasks = new PictureView("All tasks", (s, w, h) -> TimeLinePicture.paint(s, line, w));
        tasks.setPrefHeight(Theme.px(TimeLinePicture.height(line)));
        tasks.setMinHeight(Theme.px(TimeLinePicture.height(line)));
        ScrollPane all = new ScrollPane(tasks);
        all.setFitToWidth(true);
        all.getStyleClass().add("bare");
        all.setMaxHeight(Theme.px(MOST));
        all.setPrefHeight(Theme.px(Math.min(MOST, TimeLinePicture.height(line) + 4)));
        Labels.shown(all, false);
        Button open = new Button("All tasks");
        open.setId("time-line-open");
        open.getStyleClass().add("quiet-button");
        open.setOnAction(e -> {
            boolean show = !all.isVisible();
            Labels.shown(all, show);
            Labels.shown(strip, !show);
            open.setText(show ? "Two lanes" : "All tasks");
        });
        Labels.explained(
                open, "Filled: somebody has to be at it; hollow: runs by itself; red: a delay of it delays the end");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label title = Labels.section("Time line");
        title.setMinWidth(USE_PREF_SIZE);
        open.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(
                8,
                title,
                Labels.quiet(Math.round(line.total()) + " min with one pair of hands; what delays the end is red"),
                gap,
                open);
        head.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, strip, all);
    }
}
