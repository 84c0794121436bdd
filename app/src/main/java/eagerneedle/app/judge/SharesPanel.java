package eagerneedle.app.judge;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.picture.BudgetPicture;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Where the uncertainty of a result comes from, and what it would take to have less of it. */
final class SharesPanel extends VBox {
    private final JudgeModel model;
    private final int mostLines;
    private final Label largest = Labels.wrapped("");
    private final TextField wanted = new TextField();
    private final Label cheapest = Labels.wrapped("");
    private final HBox ask;
    private final VBox doubtBox = new VBox(6);
    private final Rows<String> doubts = new Rows<>(doubtBox, Labels::attention);
    private final PictureView bars = new PictureView("Uncertainty budget", null);
    private final Label rest = Labels.quiet("");
    private JudgeModel.@Nullable Shares shown;

    SharesPanel(JudgeModel model, int mostLines) {
        super(10);
        this.model = model;
        this.mostLines = mostLines;
        Label where = Labels.heading("Where the uncertainty comes from");
        where.setMinWidth(USE_PREF_SIZE);
        largest.setId("largest");
        cheapest.setId("cheapest");
        cheapest.getStyleClass().add("quiet");
        wanted.setId("judge-target");
        wanted.setPrefWidth(Theme.px(112));
        wanted.setMinWidth(Theme.px(100));
        wanted.setPromptText("half of it");
        wanted.setAccessibleText("Standard uncertainty wanted");
        Typing.show(wanted, model.wanted());
        Labels.explained(
                wanted,
                Typing.as("The standard uncertainty you want: a share such as 0.2 %, or a value with its unit"));
        wanted.setOnAction(e -> work());
        Label u = Labels.quiet("u wanted");
        u.setMinWidth(USE_PREF_SIZE);
        ask = new HBox(8, u, wanted, cheapest);
        ask.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(cheapest, Priority.ALWAYS);
        getChildren()
                .addAll(
                        new FlowPane(10, 2, where, Labels.quiet("share of variance; A by statistics, B otherwise")),
                        largest,
                        ask,
                        doubtBox,
                        bars,
                        rest);
    }

    private void work() {
        if (shown != null) {
            cheapest.setText(model.cheapest(shown.result(), Typing.in(wanted)));
        }
    }

    void show(JudgeModel.Shares shares) {
        shown = shares;
        Labels.says(largest, shares.largest());
        ask.setVisible(!shares.largest().isEmpty());
        ask.setManaged(ask.isVisible());
        if (ask.isVisible()) {
            work();
        }
        doubts.showOrHide(List.copyOf(shares.doubts()));
        double high = BudgetPicture.height(shares.budget(), mostLines);
        bars.setMinHeight(high);
        bars.setPrefHeight(high);
        bars.show((s, w, h) -> BudgetPicture.paint(s, shares.budget(), 0, 0, w, mostLines));
        Labels.says(rest, shares.rest());
    }
}
