package eagerneedle.app.ready;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.store.stockroom.ReadyBook;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** The check before a class: four things looked at, and a name under it. */
public final class ReadyView implements StationView {
    private final ReadyModel model;
    private final ScrollPane scroll = new ScrollPane();
    private final VBox all = new VBox(14);
    private final VBox rows = new VBox(10);
    private final Rows<Map.Entry<String, Optional<ReadyCheck.Row>>> lines = new Rows<>(rows, ReadyView::line);
    private final TextField bench = new TextField();
    private final Label last = Labels.quiet("");
    private final ChoiceBox<ReadyModel.Point> point;
    private final ComboBox<String> staff = new ComboBox<>();
    private final Button sign = new Button("Sign");

    /** @param back leads to the station again */
    public ReadyView(Desk desk, Runnable back) {
        String at = desk.bench().session().bench().bench();
        model = new ReadyModel(desk, new ReadyBook(Home.siteFolder()), at.isEmpty() ? Home.bench() : at);
        all.getStyleClass().add("surface");
        all.setId("ready");
        bench.setId("ready-bench");
        bench.setText(model.bench());
        bench.setPromptText("bench 7");
        bench.setAccessibleText("Bench that is looked at");
        bench.setPrefWidth(Theme.px(150));
        bench.textProperty().addListener((o, was, is) -> {
            Notices.attempt(all, () -> model.bench(is));
            look();
        });
        Button again = new Button("Look again");
        again.setId("ready-look");
        again.setOnAction(e -> look());
        Labels.explained(again, "Looks at the instruments, at what is connected and at the last run once more");
        Button close = new Button("Back");
        close.setId("ready-back");
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> back.run());
        FlowPane head = new FlowPane(8, 6, Labels.quiet("bench"), bench, again, close, last);
        head.setRowValignment(javafx.geometry.VPos.CENTER);
        point = OneOf.of("ready-point", "Known point that is read", model.points(), ReadyModel.Point::label);
        point.setPrefWidth(Theme.px(330));
        Button set = new Button("Set it");
        set.setId("ready-set");
        set.setOnAction(e -> {
            if (point.getValue() != null && Notices.attempt(all, () -> model.set(point.getValue()))) {
                show();
                Notices.tell(
                        all, "Set " + point.getValue().plan().words() + ", wait until it stands still, then read.");
            }
        });
        Labels.explained(set, "Tells a simulated bench what the hands do; at a real one set it by hand now");
        Button read = new Button("Read it");
        read.setId("ready-read");
        read.setOnAction(e -> {
            if (point.getValue() != null && Notices.attempt(all, () -> model.read(point.getValue()))) {
                show();
            }
        });
        FlowPane known = new FlowPane(8, 6, Labels.quiet("known point"), point, set, read);
        known.setRowValignment(javafx.geometry.VPos.CENTER);
        rows.setId("ready-rows");
        staff.setId("ready-staff");
        staff.getItems().setAll(desk.site().staff());
        staff.setEditable(staff.getItems().isEmpty());
        staff.setPromptText("member of staff");
        staff.setAccessibleText("Member of staff who signs");
        staff.setPrefWidth(Theme.px(190));
        sign.setId("ready-sign");
        sign.getStyleClass().add("default-act");
        sign.setOnAction(e -> sign());
        HBox signing = new HBox(10, Labels.quiet("signed by"), staff, sign);
        signing.setAlignment(Pos.CENTER_LEFT);
        all.getChildren()
                .addAll(
                        Labels.heading("Ready check"),
                        Labels.quiet(
                                "Everything is held against the last check of this bench; what is signed stands on the"
                                        + " page for the wall."),
                        head,
                        rows,
                        known,
                        signing);
        if (model.points().isEmpty()) {
            known.getChildren().setAll(Labels.quiet("No channel of this method has a point that can be set and read."));
        }
        scroll.setContent(all);
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        look();
    }

    private void look() {
        Notices.attempt(all, model::look);
        show();
    }

    private void sign() {
        String typed = staff.isEditable() ? staff.getEditor().getText() : staff.getValue();
        Notices.attempt(all, () -> {
            ReadyCheck check = model.sign(typed == null ? "" : typed);
            Notices.tell(
                    all,
                    check.bench() + (check.isReady() ? " is ready, signed by " : " is signed as not ready by ")
                            + check.by() + ".");
        });
        show();
    }

    private void show() {
        lines.show(List.copyOf(model.rows().entrySet()));
        last.setText(model.lastSays());
        sign.setDisable(!model.canSign());
    }

    private static HBox line(Map.Entry<String, Optional<ReadyCheck.Row>> e) {
        Optional<ReadyCheck.Row> r = e.getValue();
        String mark = r.isEmpty() ? "○" : r.get().good() ? "●" : "▲";
        Label what = Labels.styled(mark + " " + e.getKey(), "ready-what");
        what.setMinWidth(Theme.px(130));
        Labels.styled(what, "attention", r.isPresent() && !r.get().good());
        Label says = Labels.wrapped(r.map(ReadyCheck.Row::says).orElse("Still to be looked at."));
        HBox.setHgrow(says, Priority.ALWAYS);
        HBox row = new HBox(12, what, says);
        row.setAlignment(Pos.TOP_LEFT);
        return row;
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(bench);
    }

    @Override
    public void refresh() {
        show();
    }

    @Override
    public void tick() {
        // What is connected is looked at on request: a check is of one moment.
    }
}
