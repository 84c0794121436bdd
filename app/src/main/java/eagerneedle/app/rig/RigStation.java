package eagerneedle.app.rig;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.StepCard;
import eagerneedle.app.widget.TypedPanel;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.report.WiringCard;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * Rig: the connection, a card for each channel, touch to identify, outputs, preparation with timers, the wiring card.
 */
public final class RigStation implements StationView {
    private static final String NO_MISTAKE = "no mistake";
    private final Desk desk;
    private final ScrollPane scroll = new ScrollPane();
    private final Map<String, ChainCard> cards = new LinkedHashMap<>();
    private final List<StepCard> stepCards = new ArrayList<>();
    private final List<OutputPanel> outputPanels = new ArrayList<>();
    private final FlowPane steps = new FlowPane(12, 12);
    private final FlowPane outputs = new FlowPane(12, 8);
    private final Label state = Labels.quiet("");
    private final Button connect = new Button("Connect");
    private final ChoiceBox<String> mistake = new ChoiceBox<>();
    private final TextField address = new TextField();
    private final Button connectAddress = new Button("Connect there");
    private final PlotView live = new PlotView("Live reading of the last ten seconds");
    private final Label real = Labels.quiet("or a real one at");
    private final TypedPanel typed;
    private TouchPanel touch;
    private LiveRig shownOutputsOf;
    private long lastTick;

    public RigStation(Desk desk) {
        this.desk = desk;
        Sheet sheet = desk.bench().sheet();
        VBox all = new VBox(12);
        all.getStyleClass().add("surface");
        Button wiring = new Button("Wiring card...");
        wiring.setId("wiring-card");
        wiring.setOnAction(e -> saveWiring());
        Labels.explained(wiring, "A page for the bench: terminals, colours, polarity, settings, tags; as PDF or HTML");
        Button stock = new Button("Stockroom");
        stock.setId("rig-stockroom");
        stock.setOnAction(e -> desk.showStockroom());
        Labels.explained(stock, "All instruments with their specifications and calibrations");
        wiring.getStyleClass().add("quiet-button");
        stock.getStyleClass().add("quiet-button");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(10, Labels.heading("Chains"), gap, wiring, stock);
        head.setAlignment(Pos.CENTER_LEFT);
        typed = new TypedPanel(desk.bench().sheet(), desk::rig);
        all.getChildren().addAll(head, instrument(sheet), typed, outputs);
        sheet.channels().keySet().forEach(name -> {
            ChainCard card = new ChainCard(desk, name);
            cards.put(name, card);
            all.getChildren().add(card);
        });
        if (sheet.channels().size() > 1) {
            touch = new TouchPanel(desk);
            all.getChildren().add(touch);
        }
        live.emptySays("Connect the instrument to see what it reads: the last ten seconds stand here.");
        live.setPrefHeight(190);
        live.setMinHeight(150);
        VBox.setVgrow(live, Priority.ALWAYS);
        all.getChildren().addAll(Labels.heading("Before switching on"), steps);
        if (sheet.channels().size() == 1) {
            all.getChildren().add(live);
        }
        scroll.setFitToHeight(true);
        scroll.setContent(all);
        scroll.setFitToWidth(true);
    }

    private String device() {
        return desk.bench().sheet().devices().keySet().iterator().next();
    }

    private Node instrument(Sheet sheet) {
        if (sheet.devices().isEmpty()) {
            return Labels.quiet("This sheet names no instrument; readings are typed or imported.");
        }
        Sheet.Device d = sheet.devices().get(device());
        connect.setId("connect");
        connect.setDefaultButton(false);
        connect.setOnAction(e -> toggle());
        Labels.explained(
                connect,
                d.rig() != null
                        ? "Start and connect the simulated instrument of this bench"
                        : "Open fields to type what the display shows");
        mistake.getItems().add(NO_MISTAKE);
        if (d.rig() != null) {
            mistake.getItems().addAll(Rigs.faults(d.rig()));
        }
        mistake.getSelectionModel().selectFirst();
        mistake.setId("mistake");
        mistake.setAccessibleText("Mistake to rehearse");
        Labels.explained(mistake, "Rehearse with a mistake made at the bench, such as leads exchanged");
        address.setPromptText(d.driver().equals("file") ? "file that grows" : "host:port or serial port");
        address.setText(d.address() == null ? "" : d.address());
        address.setPrefWidth(150);
        address.setId("address");
        address.setAccessibleText("Address of a real instrument");
        Labels.explained(
                address,
                "Where the instrument is: host:port, for instance 127.0.0.1:5020, or a serial port, for instance "
                        + "/dev/ttyUSB0");
        connectAddress.setOnAction(
                e -> open(() -> LiveRig.at(sheet, device(), address.getText().strip(), rate())));
        connectAddress.setId("connect-there");
        connectAddress.setMinWidth(Region.USE_PREF_SIZE);
        connect.setMinWidth(Region.USE_PREF_SIZE);
        address.setOnAction(e -> connectAddress.fire());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        real.setMinWidth(Region.USE_PREF_SIZE);
        state.setMinWidth(0);
        HBox row = new HBox(10, connect, mistake, state, gap, real, address, connectAddress);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private void toggle() {
        if (desk.rig().isPresent()) {
            desk.disconnect();
            refresh();
            return;
        }
        if (byHand()) {
            open(() -> LiveRig.at(desk.bench().sheet(), device(), "", rate()));
            return;
        }
        Set<String> faults = mistake.getValue().equals(NO_MISTAKE) ? Set.of() : Set.of(mistake.getValue());
        open(() -> LiveRig.simulated(desk.bench().sheet(), device(), rate(), desk.pace(), faults));
    }

    private Sheet.Device named() {
        return desk.bench().sheet().devices().get(device());
    }

    private boolean byHand() {
        return named().driver().equals("manual") && named().rig() == null;
    }

    private double rate() {
        Sheet sheet = desk.bench().sheet();
        return sheet.channels().keySet().stream()
                .mapToDouble(n -> desk.bench().session().channel(sheet, n).rate())
                .max()
                .orElse(10);
    }

    private interface Opening {
        LiveRig open() throws IOException;
    }

    private void open(Opening opening) {
        connect.setDisable(true);
        connectAddress.setDisable(true);
        state.setText("connecting...");
        Thread t = new Thread(
                () -> {
                    try {
                        LiveRig rig = opening.open();
                        Platform.runLater(() -> {
                            desk.connect(rig);
                            Notices.tell(
                                    scroll,
                                    rig.label()
                                            + (rig.typed().isEmpty()
                                                    ? " is connected and sends."
                                                    : " is ready: type what it shows."));
                        });
                    } catch (IOException | RuntimeException e) {
                        Platform.runLater(() -> Notices.warn(scroll, e.getMessage()));
                    } finally {
                        Platform.runLater(() -> {
                            connect.setDisable(false);
                            connectAddress.setDisable(false);
                            refresh();
                        });
                    }
                },
                "connecting");
        t.setDaemon(true);
        t.start();
    }

    private void saveWiring() {
        java.nio.file.Path to = Files.askFor(scroll, desk.bench().sheet().id() + " wiring.pdf", "*.pdf", "*.html");
        if (to != null) {
            Notices.attempt(scroll, () -> {
                Files.write(
                        to,
                        to.toString().endsWith(".html")
                                ? WiringCard.html(
                                                desk.bench().sheet(),
                                                desk.bench().session())
                                        .getBytes(java.nio.charset.StandardCharsets.UTF_8)
                                : WiringCard.pdf(
                                        desk.bench().sheet(), desk.bench().session()));
                Notices.tell(scroll, "Saved " + FileName.of(to) + ".");
            });
        }
    }

    @Override
    public Node node() {
        return scroll;
    }

    private String words(LiveRig rig) {
        return rig.label() + ", " + rig.state().name().toLowerCase(java.util.Locale.ROOT)
                + (rig.isSimulated() ? ", simulated" : "");
    }

    @Override
    public void refresh() {
        boolean connected = desk.rig().isPresent();
        boolean named = !desk.bench().sheet().devices().isEmpty();
        connect.setText(
                connected
                        ? "Disconnect"
                        : !named
                                ? ""
                                : byHand() ? "Take readings by hand" : "Connect the simulated " + named().label());
        connect.setVisible(connected || named && (byHand() || named().rig() != null));
        connect.setManaged(connect.isVisible());
        typed.refresh();
        state.setText(desk.rig().map(this::words).orElse(""));
        mistake.setDisable(connected);
        mistake.setVisible(mistake.getItems().size() > 1);
        mistake.setManaged(mistake.isVisible());
        real.setText(named && named().rig() == null ? named().label() + " at" : "or a real one at");
        for (Node n : List.of(real, address, connectAddress)) {
            n.setVisible(!connected && named && !byHand());
            n.setManaged(n.isVisible());
        }
        steps.getChildren().clear();
        stepCards.clear();
        for (Sheet.Step step : preparation()) {
            StepCard card = new StepCard(desk.bench(), step);
            stepCards.add(card);
            steps.getChildren().add(card);
        }
        outputs();
        if (!connected) {
            live.plot(null, false);
        }
        cards.values().forEach(ChainCard::refresh);
    }

    /**
     * The sheet's steps; where none of them waits, the warm-up of every instrument in a chain that needs one comes
     * first.
     */
    private List<Sheet.Step> preparation() {
        Sheet sheet = desk.bench().sheet();
        Map<String, Sheet.Step> all = new LinkedHashMap<>();
        if (sheet.prepare().stream().noneMatch(s -> s.minutes() > 0)) {
            sheet.channels()
                    .keySet()
                    .forEach(name -> desk.bench().session().channel(sheet, name).chain().stream()
                            .filter(l -> l.warmUp() != null && l.warmUp() > 0)
                            .forEach(l -> {
                                String key = l.instrument() == null
                                        ? l.label().replaceAll("[^A-Za-z0-9]+", "-")
                                        : l.instrument();
                                all.putIfAbsent(
                                        key,
                                        new Sheet.Step(
                                                "warm-" + key,
                                                l.label() + (l.instrument() == null ? "" : " " + l.instrument())
                                                        + " warmed up",
                                                l.warmUp()));
                            }));
        }
        sheet.prepare().forEach(s -> all.put("step " + s.id(), s));
        return List.copyOf(all.values());
    }

    private void outputs() {
        LiveRig rig = desk.rig().orElse(null);
        if (rig == shownOutputsOf) {
            return;
        }
        shownOutputsOf = rig;
        outputPanels.clear();
        if (rig != null) {
            rig.outputs()
                    .forEach((name, guard) -> outputPanels.add(new OutputPanel(
                            name,
                            desk.bench()
                                    .sheet()
                                    .devices()
                                    .get(device())
                                    .outputs()
                                    .get(name),
                            guard)));
        }
        outputs.getChildren().setAll(outputPanels);
        outputs.setVisible(!outputPanels.isEmpty());
        outputs.setManaged(!outputPanels.isEmpty());
    }

    @Override
    public void tick() {
        long t = System.nanoTime();
        if (t - lastTick < 150_000_000L) {
            return;
        }
        lastTick = t;
        stepCards.forEach(StepCard::tick);
        LiveRig rig = desk.rig().orElse(null);
        if (rig == null) {
            return;
        }
        state.setText(words(rig));
        outputPanels.forEach(OutputPanel::tick);
        cards.values().forEach(c -> c.tick(rig));
        if (touch != null) {
            touch.tick(rig);
        } else {
            String first = desk.bench().sheet().channels().keySet().iterator().next();
            live.plot(
                    lastSeconds(desk.bench().session().channel(desk.bench().sheet(), first), rig.last(first, 10)),
                    false);
        }
    }

    private static Plot lastSeconds(Channel channel, eagerneedle.core.trace.RawSamples raw) {
        Trace t = LiveReadings.trace(channel, raw);
        return new Plot(
                "Live " + channel.label(),
                new Plot.Axis("time", "s"),
                new Plot.Axis(
                        channel.label() + " by nominal transfer",
                        channel.labUnit().pretty()),
                List.of(new Layer.Points(channel.label(), t.time(), t.value(), null, false, 0)));
    }
}
