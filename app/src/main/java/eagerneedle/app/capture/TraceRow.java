package eagerneedle.app.capture;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import javafx.geometry.Insets;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The trace of one channel at Capture, and above it what it reads, large. */
final class TraceRow extends VBox {
    /** What numbers and name of the time axis take. */
    private static final int AXIS = 30;

    private final PlotView plot;
    private final FlowPane head;
    private final Label number = Labels.styled("", "live-figure");
    private final Label more = Labels.quiet("");

    /** @param last carries the numbers of the time axis that all share */
    TraceRow(String channel, String label, boolean last) {
        plot = new PlotView("Live trace of " + label);
        plot.setMinHeight(Theme.px(last ? 48 + AXIS : 48));
        plot.setPrefHeight(Theme.px(150));
        VBox.setVgrow(plot, Priority.ALWAYS);
        VBox.setVgrow(this, Priority.ALWAYS);
        number.setId("live-number-" + channel);
        number.setMinWidth(USE_PREF_SIZE);
        more.setId("live-more-" + channel);
        more.setMinWidth(0);
        if (!last) {
            plot.showTimeAxis(false);
        }
        Label name = Labels.section(label);
        name.setMinWidth(USE_PREF_SIZE);
        head = new FlowPane(12, 2, name, number, more);
        head.setRowValignment(VPos.CENTER);
        head.setPadding(new Insets(0, 0, 0, 4));
        getChildren().addAll(head, plot);
    }

    PlotView plot() {
        return plot;
    }

    /** Puts something beside its numbers. */
    void also(Node tools) {
        head.getChildren().add(tools);
    }

    /** Shows the mean large, and what else is known of it beside. */
    void says(TraceFigures figures) {
        number.setText(figures.mean());
        more.setText(figures.rest());
    }
}
