package eagerneedle.app.rig;

import eagerneedle.app.station.Cautions;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Device;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;

/** Connects the instruments, simulated or real, and says what is connected; of several each has a line. */
final class ConnectionBar extends VBox {
    private final Desk desk;
    private final RigModel model;
    private final Runnable changed;
    private final Label state = Labels.quiet("");
    private final Button connect = new Button("Connect");
    private final ChoiceBox<String> mistake = new ChoiceBox<>();
    private final List<TextField> addresses = new ArrayList<>();
    private final List<Label> states = new ArrayList<>();
    private final VBox each = new VBox(4);
    private final Button connectAddress = new Button("Connect there");
    private final Label real = Labels.quiet("");
    private final Label rehearse = Labels.quiet("simulated");

    /** @param changed is called when something was connected or not */
    ConnectionBar(Desk desk, RigModel model, Runnable changed) {
        super(6);
        this.desk = desk;
        this.model = model;
        this.changed = changed;
        HBox bar = new HBox(10);
        bar.setAlignment(Pos.CENTER_LEFT);
        connect.setId("connect");
        connect.getStyleClass().add("default-act");
        connect.setMinWidth(USE_PREF_SIZE);
        connect.setOnAction(e -> toggle());
        mistake.getItems().addAll(model.mistakes());
        mistake.getSelectionModel().selectFirst();
        mistake.setId("mistake");
        mistake.setConverter(new StringConverter<>() {
            @Override
            public String toString(String id) {
                return id == null ? "" : model.mistakeLabel(id);
            }

            @Override
            public String fromString(String words) {
                return words;
            }
        });
        mistake.setAccessibleText("How the simulated bench is set up");
        mistake.setMaxWidth(Theme.px(250));
        mistake.setMinWidth(0);
        rehearse.setMinWidth(USE_PREF_SIZE);
        Labels.explained(
                mistake,
                "The simulated bench as it should be, or with a mistake of those people make, to learn to find it");
        connectAddress.setId("connect-there");
        connectAddress.setMinWidth(USE_PREF_SIZE);
        connectAddress.setOnAction(e -> Notices.attempt(
                this,
                () -> open(model.at(addresses.stream().map(TextField::getText).toList()))));
        real.setMinWidth(USE_PREF_SIZE);
        state.setMinWidth(0);
        HBox simulated = new HBox(10, rehearse, mistake);
        simulated.setAlignment(Pos.CENTER_LEFT);
        HBox elsewhere = new HBox(8, real);
        elsewhere.setAlignment(Pos.CENTER_LEFT);
        if (model.devices().isEmpty()) {
            bar.getChildren().add(Labels.quiet("This sheet names no instrument; readings are typed or imported."));
        } else {
            bar.getChildren().addAll(connect, state);
            model.devices().forEach((name, d) -> {
                if (model.devices().size() == 1) {
                    elsewhere.getChildren().add(address(d, ""));
                } else {
                    each.getChildren().add(line(name, d));
                }
            });
            elsewhere.getChildren().add(connectAddress);
        }
        Labels.explained(
                connect,
                !model.byHand()
                        ? "Start and connect the simulated instruments of this bench"
                        : "Open fields to type what the display shows");
        getChildren().addAll(bar, simulated);
        if (!each.getChildren().isEmpty()) {
            getChildren().add(each);
        }
        getChildren().add(elsewhere);
    }

    /** One of several instruments: what it is, where it is, how it does. */
    private HBox line(String name, Device d) {
        Label label = Labels.section(d.label());
        label.setMinWidth(Theme.px(180));
        Label now = Labels.quiet("");
        now.setId("standing-" + name);
        states.add(now);
        HBox line = new HBox(10, label, address(d, "-" + name), now);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private TextField address(Device d, String suffix) {
        TextField address = new TextField(d.address() == null ? "" : d.address());
        address.setPrefWidth(Theme.px(150));
        address.setId("address" + suffix);
        address.setAccessibleText("Address of " + (suffix.isEmpty() ? "a real instrument" : d.label()));
        address.setPromptText(d.driver().equals("file") ? "file that grows" : "host:port or serial port");
        address.setOnAction(e -> connectAddress.fire());
        Labels.explained(
                address,
                "Where the instrument is: host:port, for instance 127.0.0.1:5020, or a serial port, for instance "
                        + "/dev/ttyUSB0");
        addresses.add(address);
        return address;
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
        if (!Notices.attempt(this, new Cautions(desk.bench())::require)) {
            return;
        }
        connect.setDisable(true);
        connectAddress.setDisable(true);
        state.setText("connecting...");
        Thread t = new Thread(
                () -> {
                    try {
                        LiveRig rig = opening.open();
                        Platform.runLater(() -> Notices.tell(this, model.connect(rig)));
                    } catch (IOException | RuntimeException e) {
                        Platform.runLater(() -> Notices.warn(this, Fault.said(e)));
                    } finally {
                        Platform.runLater(() -> {
                            connect.setDisable(false);
                            connectAddress.setDisable(false);
                            changed.run();
                            // Nothing that sets an output may have the keyboard without being asked.
                            connect.requestFocus();
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
        show(rehearse, mistake.getItems().size() > 1);
        real.setText(c.elsewhere());
        show(real, !c.elsewhere().isEmpty());
        show(connectAddress, !c.elsewhere().isEmpty());
        addresses.forEach(a -> show(a, !c.elsewhere().isEmpty()));
        tick();
    }

    /** Brings the state of what is connected up to now. */
    void tick() {
        state.setText(model.connection().state());
        for (int i = 0; i < states.size(); i++) {
            states.get(i).setText(model.standing(i));
        }
    }

    private static void show(Node n, boolean on) {
        Labels.shown(n, on);
    }
}
