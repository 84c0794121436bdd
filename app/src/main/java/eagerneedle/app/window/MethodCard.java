package eagerneedle.app.window;

import eagerneedle.app.plot.CardDrawing;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.sheet.SheetHead;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A method as one recognises it: its apparatus, its name, what it is about; a press begins a session. */
final class MethodCard extends VBox {
    private static final double WIDTH = 276;
    private static final double DRAWING = 130;
    private final CardDrawing drawing;

    MethodCard(SheetHead sheet, Runnable begin, Runnable demonstrate) {
        super(4);
        drawing = new CardDrawing(sheet.id(), sheet.title());
        setId("begin-" + sheet.id());
        getStyleClass().addAll("card", "method-card");
        setPrefWidth(Theme.px(WIDTH));
        setMinWidth(Theme.px(WIDTH));
        setMaxWidth(Theme.px(WIDTH));
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.BUTTON);
        setAccessibleText("Begin: " + sheet.title());
        Hints.give(this, "Begin a session: " + sheet.question());
        drawing.setMinHeight(Theme.px(DRAWING));
        drawing.setPrefHeight(Theme.px(DRAWING));
        drawing.setMouseTransparent(true);
        Label title = Labels.wrapped(sheet.title());
        title.getStyleClass().add("section");
        title.setMinHeight(Region.USE_PREF_SIZE);
        Label subject = Labels.quiet(sheet.subject());
        subject.setMinWidth(0);
        subject.setMaxWidth(Double.MAX_VALUE);
        Button demonstration = new Button("Demonstration");
        demonstration.setId("demonstrate-" + sheet.id());
        demonstration.getStyleClass().add("quiet-button");
        demonstration.setMinWidth(Region.USE_PREF_SIZE);
        demonstration.setOnAction(e -> demonstrate.run());
        Labels.explained(
                demonstration,
                "A whole session of this method, held on its simulated rig: to look round, to teach, to try things on");
        Region gap = new Region();
        VBox.setVgrow(gap, Priority.ALWAYS);
        getChildren().addAll(drawing, subject, title, gap, demonstration);
        setOnMouseClicked(e -> begin.run());
        setOnKeyPressed(e -> {
            if (e.getTarget() == this && (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE)) {
                e.consume();
                begin.run();
            }
        });
    }

    /** Draws the apparatus, now that the card is in sight. */
    void draw() {
        drawing.draw();
    }
}
