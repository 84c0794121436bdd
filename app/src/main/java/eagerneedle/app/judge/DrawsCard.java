package eagerneedle.app.judge;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.picture.DrawsPicture;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * Draws a result by Monte Carlo when asked, beside everything else, and shows the draws against the first-order curve.
 */
final class DrawsCard extends VBox {
    private final Button draw = new Button();
    private final Label says = Labels.wrapped("");
    private final PictureView picture = new PictureView("Draws of the result against its first-order curve", null);
    private @Nullable Quantity of;
    private Coverage coverage = Coverage.DEFAULT;
    private @Nullable CompletableFuture<MonteCarlo> running;

    DrawsCard() {
        super(6);
        draw.setId("draw");
        draw.getStyleClass().add("quiet-button");
        draw.setOnAction(e -> draw());
        Labels.explained(
                draw,
                "Draws all inputs from their distributions a hundred thousand times and more (JCGM 101), and "
                        + "holds the result against the first-order one");
        says.setId("draws-say");
        says.getStyleClass().add("quiet");
        picture.setMinHeight(Theme.px(200));
        picture.setPrefHeight(Theme.px(200));
        getChildren().addAll(draw, picture, says);
        forget();
    }

    /** The result that would be drawn; draws of another one are forgotten. */
    void of(Quantity q, Coverage wanted) {
        if (of == null || !q.sameAs(of) || !wanted.equals(coverage)) {
            of = q;
            coverage = wanted;
            forget();
        }
    }

    private void forget() {
        if (running != null) {
            running.cancel(false);
            running = null;
        }
        draw.setText("Draw it by Monte Carlo");
        says.setText("");
        show(false);
    }

    private void show(boolean on) {
        Labels.shown(picture, on);
        Labels.shown(says, on);
    }

    private void draw() {
        if (running != null) {
            forget();
            return;
        }
        Quantity now = Objects.requireNonNull(of);
        Coverage at = coverage;
        draw.setText("Drawing... Cancel");
        CompletableFuture<MonteCarlo> mine =
                CompletableFuture.supplyAsync(() -> MonteCarlo.of(now, at, MonteCarlo.Settings.DEFAULT));
        running = mine;
        mine.whenComplete((m, failed) -> Platform.runLater(() -> {
            if (running != mine) {
                return;
            }
            running = null;
            draw.setText("Draw it again");
            show(true);
            if (m == null) {
                says.setText("It cannot be drawn: nothing about it is uncertain.");
                Labels.shown(picture, false);
            } else {
                says.setText(m.draws() + " draws. " + m.remark());
                picture.show((s, w, h) -> DrawsPicture.paint(s, m, w, h));
            }
        }));
    }
}
