package eagerneedle.app.rig;

import eagerneedle.app.plot.DrawingView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.CautionCard;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.LivePage;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OutputPanel;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.StepCard;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.TypedPanel;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.store.FileName;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * Rig: the connection, a card for each channel, touch to identify, outputs, preparation with timers, the wiring card.
 */
public final class RigStation implements StationView {
    private static final long BETWEEN_LOOKS = 150_000_000L;
    private final Desk desk;
    private final RigModel model;
    private final ScrollPane scroll = new LivePage();
    private final CautionCard cautions;
    private final Optional<DrawingView> drawing;
    private final ConnectionBar connection;
    private final PlaceBar place;
    private final Map<String, ChainCard> cards = new LinkedHashMap<>();
    private final FlowPane stepPane = new FlowPane(12, 12);
    private final Rows<Sheet.Step> steps;
    private final FlowPane outputPane = new FlowPane(12, 8);
    private final PlotView live = new PlotView("Live reading of the last ten seconds");
    private final TypedPanel typed;
    private @Nullable TouchPanel touch;
    private @Nullable LiveRig shownOutputsOf;
    private long lastTick;

    public RigStation(Desk desk) {
        this.desk = desk;
        model = new RigModel(desk);
        place = new PlaceBar(desk);
        connection = new ConnectionBar(desk, model, this::refresh);
        steps = new Rows<>(
                stepPane, s -> new StepCard(desk.bench(), s, desk.site().staff()));
        Sheet sheet = desk.bench().sheet();
        typed = new TypedPanel(sheet, desk::rig);
        cautions = new CautionCard(desk, false);
        drawing = Apparatus.of(sheet).map(a -> DrawingView.of(a, sheet.title()));
        VBox acts = new VBox(10, connection, typed, Labels.heading("Before switching on"), stepPane);
        HBox.setHgrow(acts, Priority.ALWAYS);
        acts.setMinWidth(0);
        HBox bench = new HBox(22, acts);
        drawing.ifPresent(v -> {
            v.setId("drawing");
            v.setPrefSize(Theme.px(430), Theme.px(232));
            v.setMinSize(Theme.px(380), Theme.px(200));
            v.setMaxHeight(Theme.px(232));
            place.setPrefWrapLength(Theme.px(420));
            bench.getChildren().add(0, new VBox(10, v, place));
        });
        if (drawing.isEmpty()) {
            acts.getChildren().add(0, place);
        }
        VBox all = new VBox(12, cautions, bench, outputPane, head());
        all.getStyleClass().add("surface");
        sheet.channels().keySet().forEach(name -> {
            ChainCard card = new ChainCard(new ChainModel(desk, name));
            cards.put(name, card);
            card.setOnMouseEntered(e -> point(name));
            card.setOnMouseExited(e -> point(""));
            all.getChildren().add(card);
        });
        if (sheet.channels().size() > 1) {
            touch = new TouchPanel(desk);
            all.getChildren().add(touch);
        }
        live.emptySays("Connect the instrument to see what it reads: the last ten seconds stand here.");
        live.setPrefHeight(Theme.px(190));
        live.setMinHeight(Theme.px(150));
        VBox.setVgrow(live, Priority.ALWAYS);
        if (sheet.channels().size() == 1) {
            all.getChildren().add(live);
        }
        drawing.ifPresent(v -> v.onPoint(this::point));
        scroll.setFitToHeight(true);
        scroll.setContent(all);
        scroll.setFitToWidth(true);
    }

    /** What is pointed at is lit in both places: its channel and its place on the drawing. */
    private void point(String name) {
        drawing.ifPresent(v -> v.light(name));
        cards.forEach((channel, card) -> Labels.styled(card, "speaks", channel.equals(name)));
    }

    private HBox head() {
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
        return head;
    }

    private void saveWiring() {
        Path to = Files.askFor(scroll, model.wiringName(), "*.pdf", "*.html");
        if (to != null) {
            Notices.attempt(scroll, () -> {
                Files.write(to, model.wiring(to.toString().endsWith(".html")));
                Notices.tell(scroll, "Saved " + FileName.of(to) + ".");
            });
        }
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        boolean connected = desk.rig().isPresent();
        cautions.refresh();
        place.refresh();
        connection.refresh();
        typed.refresh();
        steps.show(model.preparation());
        tickSteps();
        outputs();
        if (!connected) {
            live.plot(null, false);
        }
        cards.values().forEach(c -> c.refresh(connected));
    }

    private void outputs() {
        LiveRig rig = desk.rig().orElse(null);
        if (rig == shownOutputsOf) {
            return;
        }
        shownOutputsOf = rig;
        outputPane.getChildren().clear();
        if (rig != null) {
            rig.outputs()
                    .forEach((name, guard) ->
                            outputPane.getChildren().add(new OutputPanel(name, model.output(name), guard)));
        }
        outputPane.setVisible(!outputPane.getChildren().isEmpty());
        outputPane.setManaged(outputPane.isVisible());
    }

    private void tickSteps() {
        stepPane.getChildren().forEach(n -> ((StepCard) n).tick());
    }

    @Override
    public void tick() {
        long t = System.nanoTime();
        if (t - lastTick < BETWEEN_LOOKS) {
            return;
        }
        lastTick = t;
        tickSteps();
        desk.rig().ifPresent(this::tick);
    }

    private void tick(LiveRig rig) {
        connection.tick();
        outputPane.getChildren().forEach(n -> ((OutputPanel) n).tick());
        cards.values().forEach(c -> c.tick(rig));
        if (touch != null) {
            touch.tick(rig);
        } else {
            cards.keySet().stream()
                    .findFirst()
                    .ifPresent(name -> live.plot(
                            lastSeconds(
                                    desk.bench().session().channel(desk.bench().sheet(), name), rig.last(name, 10)),
                            false));
        }
    }

    private static Plot lastSeconds(Channel channel, RawSamples raw) {
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
