package eagerneedle.app.rig;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.chain.Advice;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.ChainPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Surface;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * One channel at Rig: its ribbon, reach against need, what it reads now, advice with fixes by a click, and what else
 * may stand in its place.
 */
final class ChainCard extends VBox {
    private final ChainModel model;
    private final Label tag = Labels.quiet("");
    private final Label reading = Labels.styled("not connected", "figure-big");
    private final Label under = Labels.quiet("");
    private final PictureView picture;
    private final VBox adviceBox = new VBox(4);
    private final Rows<Advice> advice = new Rows<>(adviceBox, this::advice);
    private final MenuButton change = new MenuButton("Change");

    ChainCard(ChainModel model) {
        super(6);
        this.model = model;
        getStyleClass().add("card");
        setId("channel-" + model.name());
        picture = new PictureView("Chain of " + model.channel().label(), null);
        picture.setMinHeight(Theme.px(128));
        picture.setPrefHeight(Theme.px(128));
        change.setId("change-" + model.name());
        change.setMinWidth(USE_PREF_SIZE);
        change.getStyleClass().add("quiet-button");
        Labels.explained(
                change,
                "Another gain or range, or another instrument of the stockroom in one of the places of this chain");
        change.setOnShowing(e -> fillMenu());
        change.getItems().add(new MenuItem("..."));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        reading.setId("now-" + model.name());
        reading.setMinWidth(USE_PREF_SIZE);
        under.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(10, Labels.section(model.title()), tag, gap, reading, under, change);
        head.setAlignment(Pos.BASELINE_LEFT);
        getChildren().addAll(head, picture, adviceBox);
    }

    void refresh(boolean connected) {
        tag.setText(model.tag());
        if (!connected) {
            model.forget();
        }
        show();
    }

    /** Takes the newest samples in. */
    void tick(LiveRig rig) {
        model.take(rig);
        show();
    }

    private void show() {
        ChainModel.Now now = model.now();
        reading.setText(now.value());
        under.setText(now.unit());
        Channel c = model.channel();
        Chain chain = c.toChain();
        double live = model.reading();
        double at = model.at();
        String fineness = model.fineness();
        picture.show((s, w, h) -> {
            ChainPicture.ribbon(s, chain, at, 0, 0, w);
            ChainPicture.reach(s, chain, c.needed().orElse(null), live, 46, 92, w - 400);
            s.text("reach", 4, 104, Surface.Align.LEFT, Lettering.text(12), Ink.QUIET);
            s.text(fineness, w - 4, 104, Surface.Align.RIGHT, Lettering.text(12), Ink.INK);
        });
        advice.show(model.advice());
    }

    private Node advice(Advice a) {
        Label says = Labels.wrapped((a.good() ? "● " : "▲ ") + a.says());
        says.getStyleClass().add(a.good() ? "good" : "attention");
        says.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(says, Priority.ALWAYS);
        HBox row = new HBox(10, says);
        row.setAlignment(Pos.CENTER_LEFT);
        Advice.Fix better = a.fix();
        if (better != null) {
            Button fix = new Button(ChainModel.capital(better.label()));
            fix.setId("fix-" + model.name() + "-" + a.about());
            fix.setMinWidth(USE_PREF_SIZE);
            fix.setOnAction(e -> Notices.attempt(this, () -> model.apply(better)));
            Labels.explained(
                    fix,
                    "Changes the chain of this session; runs already captured keep the chain they were captured with");
            row.getChildren().add(fix);
        }
        return row;
    }

    private void fillMenu() {
        change.getItems().clear();
        for (ChainModel.Place p : model.places()) {
            Menu place = new Menu(p.words());
            p.alternatives().forEach(a -> place.getItems().add(item(a.words(), () -> model.choose(a))));
            change.getItems().add(place);
        }
        MenuItem tagging = new MenuItem("Tag: position and specimen");
        tagging.setOnAction(e -> editTag());
        MenuItem back = item("As the sheet says", model::asSheet);
        back.setDisable(model.isAsSheet());
        change.getItems().addAll(List.of(new SeparatorMenuItem(), tagging, new SeparatorMenuItem(), back));
    }

    private MenuItem item(String words, Runnable act) {
        MenuItem item = new MenuItem(words);
        item.setOnAction(e -> Notices.attempt(this, act));
        return item;
    }

    /** Two fields in the card for where the sensor sits and on what. */
    private void editTag() {
        Channel c = model.channel();
        TextField position = tagField("position", "Position of " + c.label(), c.position());
        TextField specimen = tagField("specimen", "Specimen under " + c.label(), c.specimen());
        Button keep = new Button("Tag it");
        keep.setId("tag-keep-" + model.name());
        HBox row = new HBox(8, Labels.quiet("position"), position, Labels.quiet("specimen"), specimen, keep);
        row.setAlignment(Pos.CENTER_LEFT);
        keep.setOnAction(e -> {
            getChildren().remove(row);
            Notices.attempt(this, () -> model.tag(position.getText(), specimen.getText()));
        });
        position.setOnAction(keep.getOnAction());
        specimen.setOnAction(keep.getOnAction());
        getChildren().add(1, row);
        position.requestFocus();
    }

    private TextField tagField(String what, String says, @Nullable String text) {
        TextField f = new TextField(text == null ? "" : text);
        f.setId("tag-" + what + "-" + model.name());
        f.setAccessibleText(says);
        return f;
    }
}
