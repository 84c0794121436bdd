package eagerneedle.app.judge;

import eagerneedle.app.judge.JudgeModel.Shown;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.AddRow;
import eagerneedle.app.widget.CoverageBox;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.judge.School;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.ValueRows;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Judge: the agreement needle, the schools side by side, the budget, checks met and not met. */
public final class JudgeStation implements StationView {
    private static final int MOST_LINES = 6;
    private final JudgeModel model;
    private final ScrollPane scroll = new ScrollPane();
    private final VBox left = new VBox(10);
    private final Label willBeJudged = Labels.heading("What will be judged");
    private final Label areHidden = Labels.heading("The references are hidden");
    private final SharesPanel shares;
    private final JudgedPanel judged;
    private final Label hiddenSince = Labels.wrapped("");
    private final VBox blindBox = new VBox(10);
    private final Rows<JudgeModel.BlindResult> blind = new Rows<>(blindBox, JudgeStation::blind);
    private final Button lock = new Button("Lock the result and show the references");
    private final Label nothing = Labels.wrapped("");
    private final VBox awaitedBox = new VBox(10);
    private final Rows<JudgeModel.Awaited> awaited = new Rows<>(awaitedBox, JudgeStation::awaited);
    private final VBox laterBox = new VBox(10);
    private final Rows<JudgeModel.Awaited> later = new Rows<>(laterBox, JudgeStation::awaited);
    private final VBox comparing = new VBox(10);
    private final VBox schoolBox = new VBox(10);
    private final Rows<UnderSchool> schools;
    private final VBox otherBox = new VBox(10);
    private final Rows<JudgeModel.Other> others = new Rows<>(otherBox, this::other);
    private final Label otherHead = Labels.heading("All comparisons");
    private final VBox telling = new VBox(10);
    private final VBox saidBox = new VBox(10);
    private final Rows<JudgeModel.Said> said = new Rows<>(saidBox, JudgeStation::said);
    private final Label saidHead = Labels.heading("What the data say");
    private final VBox checkBox = new VBox(10);
    private final Rows<JudgeModel.Remark> checks = new Rows<>(checkBox, JudgeStation::check);
    private final MistakeLens lens;
    private final AddRow compare;
    private final VBox right;
    private final ChoiceBox<Double> coverage = CoverageBox.of("coverage");
    private final Button hide = new Button("Work blind from now on");

    public JudgeStation(Desk desk) {
        model = new JudgeModel(desk, MOST_LINES);
        shares = new SharesPanel(model, MOST_LINES);
        judged = new JudgedPanel(shares);
        schools = new Rows<>(schoolBox, u -> new SchoolCard(u, model::letSpeak));
        lens = new MistakeLens(desk);
        lock.setId("lock-results");
        lock.setOnAction(e -> Notices.attempt(scroll, model::lock));
        Labels.explained(lock, "Writes the result into the notebook as it is now, and shows what it is held against");
        hide.setId("hide-references");
        hide.getStyleClass().add("quiet-button");
        hide.setOnAction(e -> Notices.attempt(scroll, model::hideReferences));
        Labels.explained(
                hide,
                "Hides every reference, here, in the ledger, at Plan and in what leaves the program, until the "
                        + "result is locked");
        HBox covered = new HBox(8, Labels.quiet("coverage"), coverage);
        covered.setAlignment(Pos.CENTER_LEFT);
        Labels.explained(
                coverage, "With which probability intervals that are stated cover, and differences count as agreement");
        coverage.setOnAction(e -> {
            if (coverage.getValue() != null) {
                Notices.attempt(scroll, () -> model.cover(coverage.getValue()));
            }
        });
        comparing
                .getChildren()
                .addAll(
                        Labels.heading("The same data under three schools"),
                        schoolBox,
                        covered,
                        otherHead,
                        otherBox,
                        laterBox);
        telling.getChildren().addAll(saidHead, saidBox, Labels.heading("Checks"), checkBox);
        right = new VBox(10, comparing, telling, lens, hide);
        right.setPrefWidth(Theme.px(352));
        right.setMinWidth(Theme.px(322));
        HBox.setHgrow(left, Priority.ALWAYS);
        compare = new AddRow(
                        "compare",
                        "Compare",
                        "Hold a result against a reference: an input, another result, or a value with its uncertainty",
                        v -> model.compare(v.get(0), reference(v.get(1)), v.get(2)))
                .offer("result", "result", 150, model::comparable)
                .words("with")
                .offer("reference", Typing.as("9.81(1) m/s^2"), 150, model::references)
                .text("label", "what it is about", 170);
        VBox.setVgrow(left, Priority.ALWAYS);
        VBox lefts = new VBox(14, left, compare);
        HBox.setHgrow(lefts, Priority.ALWAYS);
        lefts.setMinWidth(0);
        HBox all = new HBox(26, lefts, right);
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        scroll.setFitToWidth(true);
    }

    /** A value may have the sign that is set; in a formula a comma parts arguments. */
    private static String reference(String typed) {
        return typed.matches("\\s*[-+−]?[0-9].*") ? Typing.of(typed) : typed;
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        CoverageBox.show(coverage, model.coverage());
        // Java 17 has no switch over a sealed type.
        Shown shown = model.shown();
        if (shown instanceof Shown.Judged j) {
            judged.show(j);
            arrange(judged);
            schools.show(j.schools());
            others.showOrHide(j.others());
        } else if (shown instanceof Shown.Hidden h) {
            hidden(h);
        } else if (shown instanceof Shown.Nothing n) {
            awaited.show(n.awaited());
            nothing.setText(
                    n.awaited().isEmpty()
                            ? "This sheet compares no result with a reference. What it finds stands in the ledger and at Reduce."
                            : "Each needle moves as soon as its result is there.");
            arrange(willBeJudged, nothing, awaitedBox);
        }
        boolean comparison = shown instanceof Shown.Judged;
        later.showOrHide(comparison ? model.awaited() : List.of());
        Labels.shown(comparing, comparison);
        otherHead.setVisible(otherBox.isVisible());
        otherHead.setManaged(otherBox.isManaged());
        boolean any = !(shown instanceof Shown.Nothing);
        Labels.shown(right, any);
        Labels.shown(telling, any);
        List<JudgeModel.Said> saying = any ? model.said() : List.of();
        said.showOrHide(saying);
        Labels.shown(saidHead, !saying.isEmpty());
        checks.show(any ? model.checks() : List.of());
        lens.showWhen(comparison);
        compare.setVisible(
                !(shown instanceof Shown.Hidden) && !model.comparable().isEmpty());
        compare.setManaged(compare.isVisible());
        hide.setVisible(shown instanceof Shown.Judged j && j.mayHide());
        hide.setManaged(hide.isVisible());
    }

    /** Blind work: the result with its uncertainty, and no reference in sight until it is locked. */
    private void hidden(Shown.Hidden h) {
        hiddenSince.setText("They were hidden at " + h.since()
                + ". Choose windows, runs, models and schools by what the data say. When nothing is left to choose, "
                + "lock the result; then the references are shown, and what was locked stays on record.");
        blind.show(h.results());
        lock.setDisable(!h.lockable());
        h.shares().ifPresent(shares::show);
        if (h.shares().isPresent()) {
            arrange(areHidden, hiddenSince, blindBox, lock, shares);
        } else {
            arrange(areHidden, hiddenSince, blindBox, lock);
        }
    }

    /** What stands there already stays, with the focus that it has. */
    private void arrange(Node... parts) {
        if (!left.getChildren().equals(List.of(parts))) {
            left.getChildren().setAll(parts);
        }
    }

    private static Node blind(JudgeModel.BlindResult b) {
        Label now = Labels.figure(b.value());
        now.setId("blind-" + b.comparison());
        return new HBox(16, Labels.section(b.label()), now);
    }

    /** A comparison to come: its scale without a needle, and what it still lacks. */
    private static Node awaited(JudgeModel.Awaited a) {
        PictureView arc = new PictureView(a.label() + ", not yet", (s, w, h) -> NeedlePicture.empty(s, 0, 2, w, h - 2));
        arc.setMinSize(Theme.px(96), Theme.px(54));
        arc.setPrefSize(Theme.px(96), Theme.px(54));
        Label lacks = Labels.wrapped(a.lacks());
        lacks.getStyleClass().add("quiet");
        Label label = Labels.wrapped(a.label());
        label.getStyleClass().add("section");
        VBox words = new VBox(2, label, lacks);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMinWidth(0);
        HBox row = new HBox(14, arc, words);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setId("awaited-" + a.id());
        row.getStyleClass().add("card");
        return row;
    }

    private static Node said(JudgeModel.Said s) {
        Label words = Labels.wrapped(s.words());
        words.setId("statement-" + s.number());
        VBox box = new VBox(2, Labels.section(s.label()), words);
        if (!s.values().isEmpty()) {
            PictureView picture =
                    new PictureView(s.label(), (surface, w, h) -> ValueRows.paint(surface, w, h, "", "", s.values()));
            double high = ValueRows.height(s.values().size(), false) - 14;
            picture.setMinHeight(high);
            picture.setPrefHeight(high);
            box.getChildren().add(picture);
        }
        if (!s.bound().isEmpty()) {
            Label bound = Labels.wrapped(s.bound());
            bound.getStyleClass().add("quiet");
            box.getChildren().add(bound);
        }
        return box;
    }

    private static Node check(JudgeModel.Remark r) {
        Label l = Labels.wrapped(r.words());
        l.getStyleClass().add(r.good() ? "plain" : "attention");
        return l;
    }

    private Node other(JudgeModel.Other o) {
        PictureView arc = new PictureView(
                o.of().label(),
                (surface, w, h) -> NeedlePicture.paint(
                        surface,
                        o.of(),
                        o.speaks() == School.PERCENT ? School.STANDARD : o.speaks(),
                        0,
                        2,
                        w,
                        h - 2,
                        true));
        arc.setMinSize(52, 30);
        arc.setPrefSize(52, 30);
        Label l = Labels.wrapped(o.of().label());
        HBox row = new HBox(10, arc, l);
        HBox.setHgrow(l, Priority.ALWAYS);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("run-row");
        Labels.styled(row, "chosen", o.chosen());
        row.setFocusTraversable(true);
        row.setId("comparison-" + o.of().id());
        row.setOnMouseClicked(e -> choose(o));
        row.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                choose(o);
            }
        });
        return row;
    }

    private void choose(JudgeModel.Other o) {
        model.choose(o.of().id());
        refresh();
    }
}
