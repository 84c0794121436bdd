package eagerneedle.app.window;

import java.util.List;
import javafx.geometry.Insets;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;

/** Cards of methods in rows; the drawing of each is made when it is scrolled into sight. */
final class CardShelf extends ScrollPane {
    private static final double GAP = 12;
    private final List<MethodCard> cards;

    CardShelf(List<MethodCard> cards) {
        this.cards = List.copyOf(cards);
        FlowPane rows = new FlowPane(GAP, GAP) {
            @Override
            protected void layoutChildren() {
                super.layoutChildren();
                drawInSight(getHeight());
            }
        };
        rows.setPadding(new Insets(2, GAP, GAP, 2));
        rows.getChildren().addAll(this.cards);
        setContent(rows);
        setFitToWidth(true);
        getStyleClass().add("bare");
        vvalueProperty().addListener((o, was, is) -> drawInSight(rows.getHeight()));
        viewportBoundsProperty().addListener((o, was, is) -> drawInSight(rows.getHeight()));
    }

    private void drawInSight(double height) {
        double shown = getViewportBounds().getHeight();
        double top = getVvalue() * Math.max(0, height - shown);
        for (MethodCard card : cards) {
            if (card.getLayoutY() < top + shown && card.getLayoutY() + card.getHeight() > top) {
                card.draw();
            }
        }
    }
}
