package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.AtSite;
import eagerneedle.core.session.AtBench;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.stockroom.Kit;
import eagerneedle.core.stockroom.Site;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;

/** Who is at which bench: names that go with every act from then on, and the instruments of the bench. */
final class PlaceBar extends FlowPane {
    private static final String NONE = "as the sheet says";
    private final Desk desk;
    private final TextField who = new TextField();
    private final ChoiceBox<String> bench;
    private boolean showing;

    PlaceBar(Desk desk) {
        super(8, 6);
        this.desk = desk;
        setRowValignment(javafx.geometry.VPos.CENTER);
        Site site = desk.site();
        who.setId("who");
        who.setPromptText("who works here");
        who.setPrefWidth(Theme.px(160));
        who.setAccessibleText("Who is at the bench");
        Labels.explained(who, "Names, as they should stand in the notebook and the report; Enter keeps them");
        who.setOnAction(e -> name());
        who.focusedProperty().addListener((o, was, is) -> {
            if (Boolean.TRUE.equals(was)) {
                name();
            }
        });
        List<String> benches = new ArrayList<>(List.of(NONE));
        site.kits().forEach(k -> benches.add(k.bench()));
        bench = OneOf.of("bench", "Bench whose instruments are used", benches, b -> b);
        Labels.explained(bench, "The instruments of this bench stand in for those that the sheet names");
        bench.setOnAction(e -> {
            if (!showing) {
                Notices.attempt(this, this::move);
                refresh();
            }
        });
        Button ready = new Button("Ready check...");
        ready.setId("ready-check");
        ready.getStyleClass().add("quiet-button");
        ready.setMinWidth(USE_PREF_SIZE);
        ready.setOnAction(e -> desk.showReady());
        Labels.explained(ready, "Before the class: instruments, one known point, one run, signed by staff");
        getChildren().add(together("At the bench", who));
        if (benches.size() > 1) {
            bench.setPrefWidth(Theme.px(140));
            getChildren().add(together("instruments of", bench));
        }
        getChildren().add(ready);
        refresh();
    }

    private static HBox together(String words, Node field) {
        Label label = Labels.quiet(words);
        label.setMinWidth(USE_PREF_SIZE);
        HBox both = new HBox(8, label, field);
        both.setAlignment(Pos.CENTER_LEFT);
        return both;
    }

    private void name() {
        String now = desk.bench().session().bench().operator();
        if (!who.getText().strip().equals(now)) {
            desk.bench().apply(new RigCommand.BeAtBench(who.getText()));
        }
    }

    private void move() {
        AtBench now = desk.bench().session().bench();
        String chosen = bench.getValue();
        if (chosen == null || chosen.equals(NONE) || chosen.equals(now.bench())) {
            if (chosen != null && chosen.equals(NONE) && !now.bench().isEmpty()) {
                throw new IllegalArgumentException("This session is at " + now.bench()
                        + "; choose the bench where it goes on, or undo that it was taken there.");
            }
            return;
        }
        Kit kit = desk.site().kit(chosen).orElseThrow();
        if (desk.rig().isPresent()) {
            throw new IllegalArgumentException("Disconnect first: " + chosen + " has other instruments.");
        }
        AtSite.Move move = AtSite.to(
                kit,
                desk.bench().session(),
                desk.bench().sheet(),
                desk.stockroom().all(),
                desk.bench().clock().instant());
        desk.bench().apply(move.act());
        if (move.lacking().isEmpty()) {
            Notices.tell(this, move.act().says());
        } else {
            Notices.warn(this, String.join(" ", move.lacking()));
        }
    }

    /** Brings it up to the session. */
    void refresh() {
        showing = true;
        AtBench now = desk.bench().session().bench();
        if (!who.isFocused()) {
            who.setText(now.operator());
        }
        bench.setValue(bench.getItems().contains(now.bench()) ? now.bench() : NONE);
        showing = false;
    }
}
