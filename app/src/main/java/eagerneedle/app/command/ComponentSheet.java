package eagerneedle.app.command;

import eagerneedle.app.plot.DrawingView;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Marker;
import eagerneedle.picture.Surface;
import eagerneedle.picture.TimeLinePicture;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Every letter, ink and component that the window is made of, on one page: the picture in docs/look.md. */
final class ComponentSheet {
    private static final List<Ink> WORDS = List.of(Ink.INK, Ink.QUIET, Ink.NEEDLE, Ink.GOOD, Ink.ATTENTION);
    private static final List<Ink> GROUNDS = List.of(Ink.PAPER, Ink.SURFACE, Ink.CHOSEN, Ink.TINT, Ink.WINDOW);

    private ComponentSheet() {}

    static Parent make() {
        HBox all =
                new HBox(40, new VBox(22, letters(), inks(), traces()), new VBox(22, controls(), cards(), pictures()));
        all.getStyleClass().add("surface");
        return all;
    }

    private static VBox part(String name, Node... parts) {
        VBox box = new VBox(8, Labels.heading(name));
        box.getChildren().addAll(parts);
        return box;
    }

    private static Node letters() {
        VBox list = new VBox(4);
        for (List<String> style : List.of(
                List.of("result", "9.796(47) m/s²", "result, 28"),
                List.of("live-figure", "0.7714(28) m", "live value, 24"),
                List.of("instrument-name", "caliper", "name of a thing, 20"),
                List.of("heading", "Where the uncertainty comes from", "heading, 15"),
                List.of("next", "Next: Slopes, rolling east, block E.", "what is next, 14.5"),
                List.of("section", "Instruments in use", "section, 13.5"),
                List.of("", "Hold the cart at the top, start the run.", "body, 13.5"),
                List.of("figure", "1.0642(22)   20.02 limit 0.05 mm", "figures, 13"),
                List.of("quiet", "good until 2 Jun 2027", "quiet, 12.5"))) {
            Label sample = style.get(0).isEmpty() ? new Label(style.get(1)) : Labels.styled(style.get(1), style.get(0));
            sample.setMinWidth(Theme.px(320));
            HBox row = new HBox(16, sample, Labels.quiet(style.get(2)));
            row.setAlignment(Pos.BASELINE_LEFT);
            list.getChildren().add(row);
        }
        return part("Letters", list);
    }

    private static Node inks() {
        PictureView view = new PictureView("Inks", (s, w, h) -> {
            for (int g = 0; g < GROUNDS.size(); g++) {
                double y = g * 34.0;
                s.rectangle(0, y, w, 30, GROUNDS.get(g), Ink.RULE, 3);
                for (int k = 0; k < WORDS.size(); k++) {
                    s.text(
                            WORDS.get(k).name().toLowerCase(java.util.Locale.ROOT),
                            12 + 92.0 * k,
                            y + 20,
                            Surface.Align.LEFT,
                            Lettering.text(13.5),
                            WORDS.get(k));
                }
                s.text(
                        "on " + GROUNDS.get(g).name().toLowerCase(java.util.Locale.ROOT),
                        w - 8,
                        y + 20,
                        Surface.Align.RIGHT,
                        Lettering.text(12),
                        Ink.INK);
            }
        });
        view.setPrefSize(Theme.px(590), Theme.px(172));
        return part("Inks, each at least 4.5 to 1 on each ground", view);
    }

    private static Node traces() {
        PictureView view = new PictureView("Traces", (s, w, h) -> {
            for (int i = 0; i < 8; i++) {
                double x = 24 + i * (w - 40) / 8;
                Marker.paint(s, x, 14, 5, i, false);
                s.line(x + 14, 14, x + 44, 14, Ink.trace(i), 2);
            }
        });
        view.setPrefSize(Theme.px(590), Theme.px(28));
        return part("Traces, told apart by marker too", view);
    }

    private static Node controls() {
        Button act = new Button("Start");
        act.getStyleClass().addAll("default-act", "big-act");
        Button usual = new Button("What would it take?");
        Button quiet = new Button("Stockroom");
        quiet.getStyleClass().add("quiet-button");
        Button off = new Button("As proposed");
        off.setDisable(true);
        ToggleButton sight = new ToggleButton("All runs");
        sight.getStyleClass().add("quiet-button");
        sight.setSelected(true);
        FlowPane buttons = new FlowPane(10, 8, act, usual, quiet, sight, off);
        TextField field = new TextField("842.3(6) mm");
        TextField wrong = new TextField("rather good");
        wrong.getStyleClass().add("wrong");
        ChoiceBox<String> choice = new ChoiceBox<>();
        choice.getItems().add("with everything as it should be");
        choice.getSelectionModel().selectFirst();
        CheckBox check = new CheckBox("Foam stop fixed");
        check.setSelected(true);
        return part(
                "Acts and fields: one dominant act, then usual, then quiet",
                buttons,
                new FlowPane(10, 8, field, wrong, choice, check));
    }

    private static Node cards() {
        VBox plain = Labels.card(Labels.section("A card"), Labels.quiet("white, with a thin rule"));
        VBox warns =
                Labels.card(Labels.attention("▲ Before anything is switched on"), new CheckBox("Goggles and gloves."));
        warns.getStyleClass().add("warns");
        VBox speaks = Labels.card(Labels.section("What is chosen"), Labels.quiet("or pointed at"));
        speaks.getStyleClass().add("speaks");
        return part("Cards", new FlowPane(12, 10, plain, warns, speaks));
    }

    private static Node pictures() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("baggage-chute"), "baggage-chute.yaml")
                .sheet();
        DrawingView drawing = DrawingView.of(Apparatus.of(sheet).orElseThrow(), sheet.title());
        drawing.light("position");
        drawing.setPrefSize(Theme.px(470), Theme.px(240));
        TimeLine line =
                TimeLine.of(sheet.timeline().stream().map(Sheet.Task::toTask).toList());
        PictureView strip = new PictureView("Time line", (s, w, h) -> TimeLinePicture.strip(s, line, w));
        strip.setPrefSize(Theme.px(560), Theme.px(TimeLinePicture.STRIP));
        return part("A drawing with a place that is pointed at, and a time line", drawing, strip);
    }
}
