package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Sheet;
import java.io.IOException;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Connects the instrument, simulated or real, and says what is connected. */
final class ConnectionBar extends HBox {
    private final Desk desk;
    private final RigModel model;
    private final Runnable changed;
    private final Label state = Labels.quiet("");
    private final Button connect = new Button("Connect");
    private final ChoiceBox<String> mistake = new ChoiceBox<>();
    private final TextField address = new TextField();
    private final Button connectAddress = new Button("Connect there");
    private final Label real = Labels.quiet("");

    /** @param changed is called when something was connected or not */
    ConnectionBar(Desk desk, RigModel model, Runnable changed) {
        super(10);
        this.desk = desk;
        this.model = model;
        this.changed = changed;
        setAlignment(Pos.CENTER_LEFT);
        connect.setId("connect");
        connect.setMinWidth(USE_PREF_SIZE);
        connect.setOnAction(e -> toggle());
        mistake.getItems().addAll(model.mistakes());
        mistake.getSelectionModel().selectFirst();
        mistake.setId("mistake");
        mistake.setAccessibleText("Mistake to rehearse");
        Labels.explained(mistake, "Rehearse with a mistake made at the bench, such as leads exchanged");
        address.setPrefWidth(150);
        address.setId("address");
        address.setAccessibleText("Address of a real instrument");
        address.setOnAction(e -> connectAddress.fire());
        Labels.explained(
                address,
                "Where the instrument is: host:port, for instance 127.0.0.1:5020, or a serial port, for instance "
                        + "/dev/ttyUSB0");
        connectAddress.setId("connect-there");
        connectAddress.setMinWidth(USE_PREF_SIZE);
        connectAddress.setOnAction(e -> open(model.at(address.getText())));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        real.setMinWidth(USE_PREF_SIZE);
        state.setMinWidth(0);
        model.device()
                .ifPresentOrElse(
                        d -> {
                            fit(d);
                            getChildren().addAll(connect, mistake, state, gap, real, address, connectAddress);
                        },
                        () -> getChildren()
                                .add(Labels.quiet("This sheet names no instrument; readings are typed or imported.")));
    }

    private void fit(Sheet.Device d) {
        Labels.explained(
                connect,
                !model.byHand()
                        ? "Start and connect the simulated instrument of this bench"
                        : "Open fields to type what the display shows");
        address.setPromptText(d.driver().equals("file") ? "file that grows" : "host:port or serial port");
        address.setText(d.address() == null ? "" : d.address());
    }

    private void toggle() {
        if (desk.rig().isPresent()) {
            desk.disconnect();
            changed.run();
        } else {
            open(model.own(mistake.getValue()));
        }
    }

    private void open(RigModel.Opening opening) {
        connect.setDisable(true);
        connectAddress.setDisable(true);
        state.setText("connecting...");
        Thread t = new Thread(
                () -> {
                    try {
                        LiveRig rig = opening.open();
                        Platform.runLater(() -> Notices.tell(this, model.connect(rig)));
                    } catch (IOException | RuntimeException e) {
                        Platform.runLater(() -> Notices.warn(this, e.getMessage()));
                    } finally {
                        Platform.runLater(() -> {
                            connect.setDisable(false);
                            connectAddress.setDisable(false);
                            changed.run();
                        });
                    }
                },
                "connecting");
        t.setDaemon(true);
        t.start();
    }

    void refresh() {
        RigModel.Connection c = model.connection();
        connect.setText(c.act());
        show(connect, !c.act().isEmpty());
        state.setText(c.state());
        mistake.setDisable(c.connected());
        show(mistake, mistake.getItems().size() > 1);
        real.setText(c.elsewhere());
        for (Node n : List.of(real, address, connectAddress)) {
            show(n, !c.elsewhere().isEmpty());
        }
    }

    /** Brings the state of what is connected up to now. */
    void tick() {
        state.setText(model.connection().state());
    }

    private static void show(Node n, boolean on) {
        n.setVisible(on);
        n.setManaged(on);
    }
}
