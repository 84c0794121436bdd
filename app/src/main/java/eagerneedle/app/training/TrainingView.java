package eagerneedle.app.training;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.BesideOrBelow;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Sentence;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.reading.Face;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.training.Drill;
import eagerneedle.core.training.Hunt;
import eagerneedle.picture.Faces;
import eagerneedle.rig.simulated.Rigs;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.random.RandomGenerator;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Training: an instrument is drawn and read, and a fault is hidden at the simulated bench of a method. */
public final class TrainingView implements StationView {
    private final DrillModel drill;
    private final Consumer<SheetReader.Located> hunt;
    private final BorderPane all = new BorderPane();
    private final PictureView picture = new PictureView("An instrument to be read", null);
    private final Label known = Labels.wrapped("");
    private final TextField value = new TextField();
    private final TextField u = new TextField();
    private final Label unit = Labels.quiet("");
    private final Label unitOfU = Labels.quiet("");
    private final Button answer = new Button("Answer");
    private final VBox says = new VBox(4);
    private final VBox gone = new VBox(4);
    private final Rows<Sentence> judged = new Rows<>(says, Labels::of);
    private final Rows<String> faces = new Rows<>(gone, Labels::wrapped);

    /**
     * Training beside a session.
     *
     * @param kept the file of the progress
     * @param sheet the text of the session's sheet
     * @param hunt begins a session of a sheet in which a fault is hidden
     * @param back leads to the session again
     */
    public TrainingView(
            RandomGenerator random,
            Path kept,
            Supplier<String> sheet,
            Consumer<SheetReader.Located> hunt,
            Runnable back) {
        this.hunt = hunt;
        drill = new DrillModel(random, kept);
        all.getStyleClass().add("surface");
        all.setId("training");
        Button close = new Button("Back");
        close.setId("training-back");
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> back.run());
        Label title = Labels.heading("Training");
        HBox.setHgrow(title, Priority.ALWAYS);
        title.setMaxWidth(Double.MAX_VALUE);
        HBox top = new HBox(10, title, close);
        top.setPadding(new Insets(0, 0, 10, 0));
        top.setAlignment(Pos.CENTER_LEFT);
        VBox side = new VBox(18, hunting(sheet.get()), new VBox(6, Labels.section("How it has gone"), gone));
        side.setPrefWidth(Theme.px(360));
        BesideOrBelow body = new BesideOrBelow(reading(), side);
        ScrollPane scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        all.setTop(top);
        all.setCenter(scroll);
        show();
    }

    private VBox reading() {
        List<Optional<Face>> faces = new ArrayList<>(List.of(Optional.empty()));
        Drill.FACES.forEach(f -> faces.add(Optional.of(f)));
        ChoiceBox<Optional<Face>> which = OneOf.of(
                "drill-face",
                "Instruments that are asked for",
                faces,
                f -> f.map(Face::label).orElse("every instrument, those that go badly more often"));
        which.setOnAction(e -> {
            drill.only(which.getValue());
            begin();
        });
        picture.setPrefSize(Theme.px(600), Theme.px(240));
        picture.setMinHeight(Theme.px(220));
        picture.setId("drill-picture");
        known.setId("drill-known");
        value.setId("drill-value");
        value.setAccessibleText("What is read");
        value.setPrefWidth(Theme.px(120));
        value.setOnAction(e -> u.requestFocus());
        u.setId("drill-u");
        u.setAccessibleText("Its standard uncertainty");
        u.setPrefWidth(Theme.px(90));
        u.setOnAction(e -> act());
        answer.setId("drill-answer");
        answer.getStyleClass().add("default-act");
        answer.setMinWidth(Region.USE_PREF_SIZE);
        answer.setOnAction(e -> act());
        says.setId("drill-says");
        FlowPane line =
                new FlowPane(8, 6, Labels.quiet("it reads"), value, unit, Labels.quiet("u ="), u, unitOfU, answer);
        line.setRowValignment(javafx.geometry.VPos.CENTER);
        VBox box = new VBox(10, Labels.section("Read the instrument"), which, picture, known, line, says);
        box.setPrefWidth(Theme.px(640));
        return box;
    }

    private VBox hunting(String text) {
        List<SheetReader.Located> methods = new ArrayList<>();
        SheetReader.look(text, "the session's sheet")
                .located()
                .filter(l -> canBe(l.sheet()))
                .ifPresent(methods::add);
        for (String id : SheetReader.shipped()) {
            if (methods.stream().noneMatch(m -> m.sheet().id().equals(id))) {
                SheetReader.Located l = SheetReader.read(SheetReader.shippedText(id), id);
                if (canBe(l.sheet())) {
                    methods.add(l);
                }
            }
        }
        ChoiceBox<SheetReader.Located> method = OneOf.of(
                "hunt-method",
                "Method at whose bench a fault is hidden",
                methods,
                l -> l.sheet().title());
        method.setMaxWidth(Theme.px(340));
        Button begin = new Button("Hide a fault");
        begin.setId("hunt-begin");
        begin.setOnAction(e -> hunt.accept(method.getValue()));
        return new VBox(
                8,
                Labels.section("Hunt a fault"),
                Labels.wrapped(
                        "The simulated bench of a method hides one of its faults, or none. You connect, capture and "
                                + "reduce as usual while the watches are silent, and say what is wrong and what is to be done. "
                                + "Afterwards you see where it could have been seen."),
                method,
                begin);
    }

    /** Where all that is read comes from a simulated instrument: nobody could read a display that is not there. */
    private static boolean canBe(Sheet sheet) {
        return Hunt.canBe(sheet)
                && sheet.devices().values().stream().allMatch(d -> Rigs.standIn(sheet, d))
                && sheet.captures().values().stream()
                        .allMatch(c -> c.byEye().isEmpty() && !c.channels().isEmpty());
    }

    /** What is drilled. */
    public DrillModel drill() {
        return drill;
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(value);
    }

    @Override
    public void refresh() {
        // What the session does changes nothing here.
    }

    /** Answers, or goes on where it was answered. */
    private void act() {
        if (drill.judged().isPresent()) {
            drill.next();
            begin();
        } else if (Notices.attempt(all, () -> drill.answer(Typing.in(value), Typing.in(u)))) {
            show();
            answer.requestFocus();
        }
    }

    private void begin() {
        value.clear();
        u.clear();
        show();
        value.requestFocus();
    }

    private void show() {
        Drill d = drill.asked();
        boolean over = drill.judged().isPresent();
        picture.show(
                over
                        ? (s, w, h) -> Faces.paint(s, w, h, d.face(), d.values())
                        : (s, w, h) -> Faces.asked(s, w, h, d.face(), d.values()));
        String of = d.face().label();
        picture.setAccessibleText("A " + of + " to be read");
        known.setText(of.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + of.substring(1) + ": " + d.known());
        unit.setText(d.right().unit().pretty());
        unitOfU.setText(d.right().unit().pretty());
        answer.setText(over ? "Next" : "Answer");
        value.setDisable(over);
        u.setDisable(over);
        judged.show(drill.says());
        faces.show(drill.faces());
    }
}
