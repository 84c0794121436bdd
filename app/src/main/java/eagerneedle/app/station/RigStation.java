package eagerneedle.app.station;

import eagerneedle.app.bench.LiveRig;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Stage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Command;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Lettering;
import eagerneedle.report.picture.Plot;
import eagerneedle.report.picture.PlotPainter;
import eagerneedle.report.picture.Surface;
import java.io.IOException;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Rig: a ribbon per channel with step and reach against need, the connection, live readings, preparation. */
public final class RigStation implements StationView {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm").withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final ScrollPane scroll = new ScrollPane();
    private final Map<String, PictureView> ribbons = new LinkedHashMap<>();
    private final Map<String, WindowStatistics> now = new LinkedHashMap<>();
    private final Map<String, String> trouble = new LinkedHashMap<>();
    private final FlowPane steps = new FlowPane(12, 12);
    private final Label state = Labels.quiet("");
    private final Button connect = new Button("Connect");
    private final TextField address = new TextField();
    private final Button connectAddress = new Button("Connect there");
    private final PlotView live = new PlotView("Live reading of the last ten seconds");
    private long lastTick;

    public RigStation(Desk desk) {
        this.desk = desk;
        Sheet sheet = desk.bench().sheet();
        VBox all = new VBox(12);
        all.getStyleClass().add("surface");
        all.getChildren().addAll(Labels.heading("Chains"), instrument(sheet));
        sheet.channels().forEach((name, channel) -> all.getChildren().add(chain(name, channel)));
        live.emptySays("Connect the instrument to see what it reads: the last ten seconds stand here.");
        live.setPrefHeight(190);
        live.setMinHeight(150);
        VBox.setVgrow(live, Priority.ALWAYS);
        all.getChildren().addAll(Labels.heading("Before switching on"), steps, live);
        scroll.setFitToHeight(true);
        scroll.setContent(all);
        scroll.setFitToWidth(true);
        refresh();
    }

    private Node instrument(Sheet sheet) {
        connect.setId("connect");
        connect.setDefaultButton(false);
        connect.setOnAction(e -> toggle());
        Labels.explained(connect, "Start and connect the simulated instrument of this bench");
        address.setPromptText("host:port");
        address.setPrefWidth(150);
        address.setId("address");
        Labels.explained(address, "Address of a line-protocol logger on this network, for instance 127.0.0.1:5020");
        connectAddress.setOnAction(e -> connectTo());
        connectAddress.setId("connect-there");
        connectAddress.setMinWidth(Region.USE_PREF_SIZE);
        connect.setMinWidth(Region.USE_PREF_SIZE);
        address.setOnAction(e -> connectTo());
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox row = new HBox(10, connect, state, gap, Labels.quiet("or a real one at"), address, connectAddress);
        row.setAlignment(Pos.CENTER_LEFT);
        if (sheet.devices().isEmpty()) {
            row.getChildren().setAll(Labels.quiet("This sheet names no instrument; readings are typed or imported."));
        }
        return row;
    }

    private Node chain(String name, Sheet.Channel channel) {
        PictureView picture = new PictureView("Chain of " + channel.label(), null);
        picture.setMinHeight(190);
        picture.setPrefHeight(190);
        ribbons.put(name, picture);
        HBox head = new HBox(12, Labels.section("Channel " + name), Labels.quiet((channel.tag() == null ? "" : "tag " + channel.tag())
                + (channel.rate() > 0 ? " · " + Notation.plain(channel.rate(), 4) + " samples a second" : "")));
        head.setAlignment(Pos.BASELINE_LEFT);
        return Labels.card(head, picture);
    }

    private void toggle() {
        if (desk.rig().isPresent()) {
            desk.disconnect();
            refresh();
            return;
        }
        Sheet.Device device = desk.bench().sheet().devices().values().iterator().next();
        if (device.rig() == null) {
            Notices.warn(connect, "This device has no simulated stand-in; connect to its address instead.");
            return;
        }
        open(() -> LiveRig.simulated(device, rate(), desk.pace()));
    }

    private void connectTo() {
        Sheet.Device device = desk.bench().sheet().devices().values().iterator().next();
        String text = address.getText().strip();
        open(() -> LiveRig.at(device.label(), text, rate()));
    }

    private double rate() {
        return desk.bench().sheet().channels().values().stream().mapToDouble(Sheet.Channel::rate).max().orElse(10);
    }

    private interface Opening {
        LiveRig open() throws IOException;
    }

    private void open(Opening opening) {
        connect.setDisable(true);
        connectAddress.setDisable(true);
        state.setText("connecting...");
        Thread t = new Thread(() -> {
            try {
                LiveRig rig = opening.open();
                Platform.runLater(() -> {
                    desk.connect(rig);
                    Notices.tell(scroll, rig.label() + " is connected and sends.");
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
        }, "connecting");
        t.setDaemon(true);
        t.start();
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        boolean connected = desk.rig().isPresent();
        connect.setText(connected ? "Disconnect" : "Connect the simulated " + desk.bench().sheet().devices().values().stream().findFirst().map(Sheet.Device::label).orElse("instrument"));
        state.setText(desk.rig().map(r -> r.label() + ", " + r.state().name().toLowerCase(java.util.Locale.ROOT) + (r.isSimulated() ? ", simulated" : "")).orElse(""));
        address.setDisable(connected);
        connectAddress.setDisable(connected);
        steps.getChildren().clear();
        for (Sheet.Step step : desk.bench().sheet().prepare()) {
            steps.getChildren().add(step(desk, step));
        }
        if (!connected) {
            live.plot(null, false);
            now.clear();
            trouble.clear();
        }
        desk.bench().sheet().channels().forEach((name, c) -> paintChain(name, c));
    }

    /** A card with a sign-off for one step. */
    static Node step(Desk desk, Sheet.Step step) {
        var at = desk.bench().session().signOffs().get(step.id());
        CheckBox box = new CheckBox(step.text());
        box.setWrapText(true);
        box.setId("step-" + step.id());
        box.setSelected(at != null);
        box.setPrefWidth(200);
        box.setMinHeight(Region.USE_PREF_SIZE);
        box.setOnAction(e -> desk.bench().apply(new Command.SignOff(step.id(), step.text(), box.isSelected() ? desk.bench().clock().instant() : null)));
        VBox card = Labels.card(box, Labels.quiet(at == null ? "to be signed off" : "signed off " + TIME.format(at)));
        card.setPrefWidth(226);
        return card;
    }

    @Override
    public void tick() {
        long t = System.nanoTime();
        if (desk.rig().isEmpty() || t - lastTick < 150_000_000L) {
            return;
        }
        lastTick = t;
        LiveRig rig = desk.rig().get();
        state.setText(rig.label() + ", " + rig.state().name().toLowerCase(java.util.Locale.ROOT) + (rig.isSimulated() ? ", simulated" : ""));
        desk.bench().sheet().channels().forEach((name, channel) -> {
            RawSamples raw = rig.last(name, 1.0);
            reading(channel, raw).ifPresentOrElse(s -> now.put(name, s), () -> now.remove(name));
            String why = raw.size() == 0 ? "no samples" : new SampleWatch(channel.label(), channel.toChain(), 0).look(0, raw.time(), raw.values()).stream().findFirst().map(f -> f.message()).orElse("");
            trouble.put(name, why);
            paintChain(name, channel);
        });
        desk.bench().sheet().channels().entrySet().stream().findFirst().ifPresent(first -> live.plot(lastSeconds(first.getValue(), rig.last(first.getKey(), 10)), false));
    }

    private static Plot lastSeconds(Sheet.Channel channel, RawSamples raw) {
        Chain chain = channel.toChain();
        double[] v = new double[raw.size()];
        for (int i = 0; i < v.length; i++) {
            v[i] = chain.indication(raw.values()[i]);
        }
        return new Plot("Live " + channel.label(), new Plot.Axis("time", "s"), new Plot.Axis(channel.label() + " by nominal transfer", channel.labUnit().pretty()),
                List.of(new Plot.Points(channel.label(), raw.time(), v, null, false, 0)));
    }

    /** Statistics of live samples by the nominal chain; empty when there are too few good ones. */
    static java.util.Optional<WindowStatistics> reading(Sheet.Channel channel, RawSamples raw) {
        Chain chain = channel.toChain();
        SampleWatch watch = new SampleWatch(channel.label(), chain, 0);
        List<double[]> good = new ArrayList<>();
        for (int i = 0; i < raw.size(); i++) {
            if (!watch.beyondReach(raw.values()[i])) {
                good.add(new double[] {raw.time()[i], chain.indication(raw.values()[i])});
            }
        }
        if (good.size() < 4) {
            return java.util.Optional.empty();
        }
        double[] t = good.stream().mapToDouble(g -> g[0]).toArray();
        double[] v = good.stream().mapToDouble(g -> g[1]).toArray();
        return java.util.Optional.of(WindowStatistics.of(new Trace(channel.label(), t, v, channel.labUnit(), chain.step(), List.of())));
    }

    private void paintChain(String name, Sheet.Channel channel) {
        Chain chain = channel.toChain();
        WindowStatistics live = now.get(name);
        String why = trouble.getOrDefault(name, "");
        ribbons.get(name).show((s, w, h) -> {
            double x = 0;
            double wide = Math.min(206, (w - 190) / (chain.stages().size() + 1));
            for (Stage stage : chain.stages()) {
                ribbon(s, x, 4, wide, stage.kind(), stage.label(), stage.transfer());
                x += wide + 5;
            }
            ribbon(s, x, 4, wide, "converter", chain.converter().label(), chain.converter().transfer());
            x += wide + 22;
            s.text("now", x, 24, Surface.Align.LEFT, Lettering.text(11.5), Ink.QUIET);
            String reading = live == null ? (desk.rig().isPresent() ? "out of reach" : "not connected") : Notation.bracketed(live.mean(), Math.max(live.sd(), chain.step() / Math.sqrt(12)));
            s.text(reading, x, 48, Surface.Align.LEFT, live == null ? Lettering.text(14) : Lettering.figures(19), live == null ? Ink.QUIET : Ink.INK);
            if (live != null) {
                s.text(channel.labUnit().pretty() + ", scatter of one sample", x, 64, Surface.Align.LEFT, Lettering.text(11), Ink.QUIET);
            }
            reach(s, channel, chain, live, w);
            if (!why.isEmpty() && desk.rig().isPresent()) {
                s.polygon(new double[] {6, 12, 0}, new double[] {172, 183, 183}, Ink.ATTENTION);
                s.text(why, 18, 183, Surface.Align.LEFT, Lettering.text(12.5), Ink.INK);
            } else {
                advice(s, channel, chain, live);
            }
        });
    }

    private static void ribbon(Surface s, double x, double y, double w, String kind, String label, String transfer) {
        double nose = 9;
        double h = 60;
        s.polygon(new double[] {x, x + w - nose, x + w, x + w - nose, x, x + nose}, new double[] {y, y, y + h / 2, y + h, y + h, y + h / 2}, Ink.REACH);
        s.text(kind, x + 20, y + 17, Surface.Align.LEFT, Lettering.text(11.5), Ink.QUIET);
        s.text(eagerneedle.report.picture.BudgetPicture.fitting(s, label, w - 34), x + 20, y + 34, Surface.Align.LEFT, Lettering.text(12.5), Ink.INK);
        s.text(transfer, x + 20, y + 51, Surface.Align.LEFT, Lettering.figures(11.5), Ink.TRACE1);
    }

    private static void reach(Surface s, Sheet.Channel channel, Chain chain, WindowStatistics live, double w) {
        double[] reach = chain.reach();
        LabUnit unit = channel.labUnit();
        double margin = (reach[1] - reach[0]) * 0.06;
        double left = 90;
        double right = w - 190;
        java.util.function.DoubleUnaryOperator px = v -> left + (v - reach[0] + margin) / (reach[1] - reach[0] + 2 * margin) * (right - left);
        double y = 102;
        s.text("reach", 4, y + 12, Surface.Align.LEFT, Lettering.text(12), Ink.QUIET);
        s.rectangle(px.applyAsDouble(reach[0]), y, px.applyAsDouble(reach[1]) - px.applyAsDouble(reach[0]), 15, Ink.REACH, null, 4);
        if (channel.needs() != null) {
            double a = px.applyAsDouble(Reading.parse(channel.needs().get(0)).unit().convert(Reading.parse(channel.needs().get(0)).value(), unit));
            double b = px.applyAsDouble(Reading.parse(channel.needs().get(1)).unit().convert(Reading.parse(channel.needs().get(1)).value(), unit));
            s.rectangle(a, y, b - a, 15, Ink.BAND, null, 0);
            s.text("needed", (a + b) / 2, y + 11.5, Surface.Align.CENTRE, Lettering.text(11), Ink.GOOD);
        }
        double[] ticks = PlotPainter.ticks(reach[0], reach[1], 6);
        for (double t : ticks) {
            s.line(px.applyAsDouble(t), y + 15, px.applyAsDouble(t), y + 20, Ink.QUIET, 1);
            s.text(Notation.plain(t, 3), px.applyAsDouble(t), y + 33, Surface.Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        }
        s.text(unit.pretty(), right + 4, y + 33, Surface.Align.LEFT, Lettering.text(11), Ink.QUIET);
        if (live != null) {
            double p = px.applyAsDouble(live.mean());
            s.polygon(new double[] {p - 5, p + 5, p}, new double[] {y - 9, y - 9, y}, Ink.NEEDLE);
        }
        s.text("one step: " + Notation.plain(chain.step(), 2) + " " + unit.pretty(), w - 4, y + 4, Surface.Align.RIGHT, Lettering.text(12), Ink.INK);
        s.text("reach " + Notation.plain(reach[0], 3) + " to " + Notation.plain(reach[1], 3) + " " + unit.pretty(), w - 4, y + 21, Surface.Align.RIGHT, Lettering.text(12), Ink.QUIET);
    }

    private static void advice(Surface s, Sheet.Channel channel, Chain chain, WindowStatistics live) {
        String says;
        boolean good = true;
        double[] reach = chain.reach();
        LabUnit unit = channel.labUnit();
        if (channel.needs() != null && (value(channel.needs().get(0), unit) < reach[0] || value(channel.needs().get(1), unit) > reach[1])) {
            says = "The needed range is not within reach: choose a wider range or move the sensor.";
            good = false;
        } else if (channel.wantsStep() != null && value(channel.wantsStep(), unit) < chain.step()) {
            says = "One step is larger than the " + channel.wantsStep() + " this method needs: more gain or more bits.";
            good = false;
        } else {
            says = "Step and reach suffice" + (channel.wantsStep() == null ? "" : " (a step of " + channel.wantsStep() + " would do)")
                    + (live == null ? "." : "; scatter is " + Notation.plain(live.sd() / chain.step(), 2) + " steps.");
        }
        if (good) {
            s.circle(7, 178, 4.5, Ink.GOOD, null, 0);
        } else {
            s.polygon(new double[] {6, 12, 0}, new double[] {172, 183, 183}, Ink.ATTENTION);
        }
        s.text(says, 18, 183, Surface.Align.LEFT, Lettering.text(12.5), Ink.INK);
    }

    private static double value(String reading, LabUnit unit) {
        Reading r = Reading.parse(reading);
        return r.unit().convert(r.value(), unit);
    }
}
