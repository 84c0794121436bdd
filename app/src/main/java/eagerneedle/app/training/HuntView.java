package eagerneedle.app.training;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What is wrong is said, with what is to be done; then it is told, and where it could have been seen. */
public final class HuntView implements StationView {
    private final HuntModel model;
    private final Runnable over;
    private final Runnable back;
    private final BorderPane all = new BorderPane();
    private final ToggleGroup fault = new ToggleGroup();
    private final ToggleGroup remedy = new ToggleGroup();
    private final Button say = new Button("Say so");

    /**
     * The answer to a hunt.
     *
     * @param over called when it has been answered
     * @param back leads to the session again
     */
    public HuntView(HuntModel model, Runnable over, Runnable back) {
        this.model = model;
        this.over = over;
        this.back = back;
        all.getStyleClass().add("surface");
        all.setId("hunt");
        say.setId("hunt-say");
        say.getStyleClass().add("default-act");
        say.setDisable(true);
        say.setOnAction(e -> answer());
        VBox box = new VBox(
                8,
                Labels.section("What is wrong?"),
                choices("hunt-fault", fault, model.faults()),
                Labels.section("What is to be known, and done?"),
                choices("hunt-remedy", remedy, model.remedies()));
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        HBox foot = new HBox(10, say, backButton("Look further"));
        foot.setPadding(new Insets(12, 0, 0, 0));
        Label title = Labels.heading("Fault hunt: " + model.bench().sheet().title());
        title.setPadding(new Insets(0, 0, 10, 0));
        all.setTop(title);
        all.setCenter(scroll);
        all.setBottom(foot);
    }

    private Button backButton(String words) {
        Button b = new Button(words);
        b.setId("hunt-back");
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> back.run());
        return b;
    }

    private VBox choices(String id, ToggleGroup group, Map<String, String> of) {
        VBox box = new VBox(6);
        box.setId(id);
        of.forEach((key, words) -> {
            RadioButton b = new RadioButton(words);
            b.setWrapText(true);
            b.setMinHeight(Region.USE_PREF_SIZE);
            b.setMaxWidth(Theme.px(860));
            b.setUserData(key);
            b.setToggleGroup(group);
            box.getChildren().add(b);
        });
        group.selectedToggleProperty()
                .addListener((o, was, is) ->
                        say.setDisable(fault.getSelectedToggle() == null || remedy.getSelectedToggle() == null));
        return box;
    }

    private void answer() {
        List<String> says =
                new ArrayList<>(model.answer((String) fault.getSelectedToggle().getUserData(), (String)
                        remedy.getSelectedToggle().getUserData()));
        VBox box = new VBox(8);
        box.setId("hunt-says");
        says.forEach(s -> box.getChildren().add(Labels.wrapped(s)));
        List<String> watched = model.watched();
        if (!watched.isEmpty()) {
            box.getChildren().add(Labels.section("What the watches say of your session"));
            watched.forEach(s -> box.getChildren().add(Labels.wrapped(s)));
        }
        Label wait =
                Labels.quiet(model.hunt().hidden().isEmpty() ? "" : "Where it could have been seen is looked up...");
        box.getChildren().add(wait);
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        all.setCenter(scroll);
        all.setBottom(new HBox(10, backButton("Back to the session")));
        over.run();
        seen(box, wait);
    }

    /** The bench is carried out with the fault and without, which takes a moment. */
    private void seen(VBox box, Label wait) {
        String text = model.bench().session().sheetText();
        CompletableFuture.supplyAsync(() -> WhatWasToSee.of(
                        SheetReader.read(text, model.bench().sheet().id()), model.hunt()))
                .whenComplete((lines, failed) -> Platform.runLater(() -> {
                    box.getChildren().remove(wait);
                    List<String> said = failed == null ? lines : List.of(Fault.said(failed));
                    if (!said.isEmpty()) {
                        box.getChildren().add(Labels.section("Where it could have been seen"));
                        said.forEach(s -> box.getChildren().add(Labels.wrapped(s)));
                    }
                }));
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of((Node) fault.getToggles().get(0));
    }

    @Override
    public void refresh() {
        // What the session does changes nothing here.
    }
}
