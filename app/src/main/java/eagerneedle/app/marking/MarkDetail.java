package eagerneedle.app.marking;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.marking.Verdict;
import java.util.Arrays;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import org.jspecify.annotations.Nullable;

/** One number of one student: what it was held against, what explains it, and the marker's word. */
final class MarkDetail extends VBox {
    private final MarkingModel model;
    private final Runnable changed;
    private final Label of = Labels.heading("");
    private final VBox words = new VBox(8);
    private final Rows<MarkingModel.Part> parts = new Rows<>(words, MarkDetail::part);
    private final ChoiceBox<Verdict> verdict = new ChoiceBox<>();
    private final TextField reason = new TextField();
    private final TextField credit = new TextField();
    private final VBox acts = new VBox(6);
    private MarkingModel.@Nullable Cell cell;
    private @Nullable Start start;

    /** What the choices of a number begin with. */
    private record Start(MarkingModel.Cell cell, String credit, Verdict verdict) {}

    /** @param changed something was decided */
    MarkDetail(MarkingModel model, Runnable changed) {
        super(10);
        this.model = model;
        this.changed = changed;
        setId("mark-detail");
        setPrefWidth(Theme.px(310));
        setMinWidth(Theme.px(250));
        verdict.getItems()
                .setAll(Arrays.stream(Verdict.values())
                        .filter(v -> v != Verdict.MISSING)
                        .toList());
        verdict.setId("overrule-verdict");
        verdict.setAccessibleText("The verdict instead");
        verdict.setMaxWidth(Double.MAX_VALUE);
        verdict.setConverter(new StringConverter<>() {
            @Override
            public String toString(@Nullable Verdict v) {
                return v == null ? "" : v.words();
            }

            @Override
            public Verdict fromString(String s) {
                throw new UnsupportedOperationException();
            }
        });
        reason.setId("overrule-reason");
        reason.setPromptText("why; the student reads it");
        reason.setAccessibleText("Why");
        Button agree = act("mark-agree", "Agree", "It was looked at and stands", c -> model.agree(c));
        Button overrule = act(
                "mark-overrule",
                "Overrule",
                "Puts this verdict in place of the program's, with the reason",
                c -> model.overrule(c, verdict.getValue(), reason.getText()));
        Button second = act(
                "mark-second",
                "Second view",
                "What a second marker thinks; the first verdict stands",
                c -> model.second(c, verdict.getValue(), reason.getText()));
        Button late = act(
                "mark-late",
                "Late",
                "This student's work came late; the reason says how that is dealt with",
                c -> model.late(c.student(), reason.getText()));
        credit.setId("mark-credit");
        credit.setAccessibleText("Share of the points that such a verdict earns, for everybody");
        credit.setPrefWidth(Theme.px(60));
        credit.setOnAction(e -> earn());
        FlowPane earns = new FlowPane(
                6, 4, Labels.quiet("everybody with this verdict earns"), credit, Labels.quiet("of the points"));
        earns.setRowValignment(javafx.geometry.VPos.CENTER);
        acts.getChildren().addAll(earns, verdict, reason, new FlowPane(6, 6, agree, overrule, second, late));
        of.setWrapText(true);
        ScrollPane scroll = new ScrollPane(new VBox(8, of, words));
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(scroll, acts);
        show(null);
    }

    private interface Deciding {
        void on(MarkingModel.Cell c);
    }

    private Button act(String id, String text, String says, Deciding what) {
        Button b = new Button(text);
        b.setId(id);
        b.setMinWidth(USE_PREF_SIZE);
        b.setOnAction(e -> {
            MarkingModel.Cell c = cell;
            if (c != null && Notices.attempt(this, () -> what.on(c))) {
                reason.clear();
                changed.run();
            }
        });
        return Labels.explained(b, says);
    }

    private void earn() {
        MarkingModel.Cell c = cell;
        if (c != null && Notices.attempt(this, () -> model.credit(c, Typing.in(credit)))) {
            changed.run();
        }
    }

    /** Opens a number, or shows the one that is open as it is now; null for none. */
    void show(MarkingModel.@Nullable Cell c) {
        Labels.shown(acts, c != null);
        if (c == null) {
            Labels.says(of, "");
            parts.show(List.of(new MarkingModel.Part("", List.of("Choose a number to see what it was held against."))));
        } else {
            Labels.says(
                    of,
                    model.name(c.student()) + ": "
                            + model.asked().get(c.quantity()).label());
            parts.show(model.detail(c));
            beginWith(new Start(c, model.credit(c), model.verdict(c)));
        }
        cell = c;
    }

    /** Sets what the marker begins with; what was chosen since for the same number stays chosen. */
    private void beginWith(Start now) {
        if (!now.equals(start)) {
            start = now;
            credit.setText(now.credit());
            verdict.getSelectionModel().select(now.verdict() == Verdict.MISSING ? Verdict.RIGHT : now.verdict());
        }
    }

    /** A heading with its sentences. */
    static VBox part(MarkingModel.Part p) {
        VBox box = new VBox(1);
        if (!p.head().isEmpty()) {
            box.getChildren().add(Labels.quiet(p.head()));
        }
        p.lines().forEach(l -> box.getChildren().add(Labels.wrapped(l)));
        return box;
    }
}
