package eagerneedle.app.capture;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.LivePage;
import eagerneedle.app.widget.Meanwhile;
import eagerneedle.app.widget.Typing;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.Finding;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * Traces of all channels of a capture, one above the other on one time axis, each with its newest mean and scatter over
 * a span of choice, or for a stored run with the statistics of what is seen of it.
 */
final class LiveTraces extends VBox {
    private static final int EXACT = 20_000;
    private static final double SHOWN = 6;
    private static final long NUMBERS_EVERY = 250_000_000L;
    private static final int MOST_COUNTED = 4000;
    private static final int COLUMNS = 700;
    private static final int AT_ONCE = 6;
    /** Half as long again as a frame that comes in time. */
    private static final long LATE = 25_000_000L;

    private static final String NOTHING_YET = "Nothing has come yet.";
    private static final String SEEN = "all that is seen";
    private final Desk desk;
    private final ChoiceBox<String> span = new ChoiceBox<>();
    private final ToggleButton hold = new ToggleButton("Hold the scale");
    private final HBox tools;
    private final VBox rows = new VBox(2);
    private final Map<String, TraceRow> traces = new LinkedHashMap<>();
    private final Map<String, QuickScale> scales = new LinkedHashMap<>();
    private final Map<String, List<Finding>> found = new LinkedHashMap<>();
    private final Map<String, DeviceClock> clocks = new HashMap<>();
    private long clocksKnown;
    private long counted;
    private final TraceTurns turns = new TraceTurns(AT_ONCE, LATE, System::nanoTime);
    private final Meanwhile numbers = new Meanwhile(Platform::runLater);
    private String capture = "";

    LiveTraces(Desk desk) {
        super(4);
        this.desk = desk;
        span.getItems().setAll(Typing.as("0.2 s"), "1 s", "5 s", "20 s", SEEN);
        span.setValue("1 s");
        span.setId("live-span");
        span.setAccessibleText("Span of the numbers");
        Labels.explained(
                span,
                "Mean and standard deviation are taken over the newest samples of this span, or over all that "
                        + "the picture shows; n says how many they are");
        hold.setId("hold-scale");
        hold.getStyleClass().add("quiet-button");
        hold.setOnAction(e -> traces.values().forEach(r -> r.plot().holdScale(hold.isSelected())));
        Labels.explained(hold, "Keeps the vertical scales as they are; otherwise they follow the data");
        Label over = Labels.quiet("numbers over");
        over.setMinWidth(USE_PREF_SIZE);
        span.setMinWidth(USE_PREF_SIZE);
        hold.setMinWidth(USE_PREF_SIZE);
        tools = new HBox(8, over, span, hold);
        tools.setAlignment(Pos.CENTER_RIGHT);
        VBox.setVgrow(rows, Priority.ALWAYS);
        getChildren().add(rows);
    }

    /** The channels to show; makes the rows anew when they are others. */
    void channels(String newCapture, List<String> channels) {
        capture = newCapture;
        scales.clear();
        tools.setVisible(!areGates(capture));
        tools.setManaged(tools.isVisible());
        if (List.copyOf(traces.keySet()).equals(channels)) {
            return;
        }
        traces.clear();
        numbers.forget();
        hold.setSelected(false);
        for (int i = 0; i < channels.size(); i++) {
            String c = channels.get(i);
            TraceRow row = new TraceRow(c, channel(c).label(), i == channels.size() - 1);
            row.plot()
                    .emptySays(
                            i == 0
                                    ? "Connect the instrument at Rig (key 2) to see its trace here, or import a file."
                                    : "");
            if (i > 0) {
                row.plot().share(traces.values().iterator().next().plot());
            }
            traces.put(c, row);
        }
        rows.getChildren().setAll(traces.values());
        traces.values().stream().findFirst().ifPresent(r -> r.also(tools));
    }

    /** The plot on top, whose time axis all share. */
    Optional<PlotView> first() {
        return traces.values().stream().findFirst().map(r -> r.plot());
    }

    /** The rig's channels and calibrations may have changed. */
    void refresh() {
        scales.clear();
    }

    private Channel channel(String name) {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    private QuickScale scale(String name, String rawUnit) {
        return scales.computeIfAbsent(name + rawUnit, k -> {
            Calibration c = desk.bench()
                    .session()
                    .calibrationOf(name, desk.bench().sheet())
                    .orElse(null);
            return new QuickScale(channel(name), rawUnit, c == null || c.relation() == Relation.CLOSURE ? null : c);
        });
    }

    /** What a watch points at on a live trace, from now on. */
    void points(String name, List<Finding> findings) {
        found.put(name, findings);
    }

    /** From counts of a channel to a trace of the measurand, as it is set up now; any thread may ask it. */
    Function<RawSamples, Trace> exact(String name) {
        return scale(name, Run.COUNTS)::exact;
    }

    /**
     * Shows what the instruments send: of several each at the time that all have in common.
     *
     * @param run true for everything since the run began, false for the last seconds
     */
    void live(LiveRig rig, boolean run) {
        long now = System.nanoTime();
        if (now - clocksKnown > NUMBERS_EVERY) {
            clocks.clear();
            traces.keySet().forEach(n -> rig.clockNow(n).ifPresent(k -> clocks.put(n, k)));
            clocksKnown = now;
        }
        // Many traces take turns, so that a frame never takes longer than the eye notices.
        List<Map.Entry<String, TraceRow>> seen = traces.entrySet().stream()
                .filter(e -> LivePage.isSeen(e.getValue()))
                .toList();
        turns.take(seen, e -> drawing(rig, run, e.getKey(), e.getValue()).run());
        if (now - counted >= NUMBERS_EVERY && numbers.isFree() && !areGates(capture)) {
            counted = now;
            count(rig, run);
        }
    }

    /** Shows what was sent until now, of all channels, whether they are seen or not: a run ends here. */
    void end(LiveRig rig) {
        // Taken first and drawn then, so that all of them end together.
        traces.entrySet().stream()
                .map(e -> drawing(rig, true, e.getKey(), e.getValue()))
                .toList()
                .forEach(Runnable::run);
    }

    /** Takes what a channel has sent until now; to be drawn. */
    private Runnable drawing(LiveRig rig, boolean run, String name, TraceRow row) {
        Channel c = channel(name);
        Optional<DeviceClock> clock = Optional.ofNullable(clocks.get(name));
        DoubleUnaryOperator time = shared(clock);
        if (areGates(capture)) {
            RawSamples states = run ? rig.all(name) : rig.last(name, SHOWN);
            return () -> gate(row, c.label(), states, index(name));
        }
        if (run ? rig.count(name) > EXACT : rig.rate() * SHOWN > EXACT) {
            double to = rig.end(name);
            double from = run ? Double.NEGATIVE_INFINITY : to - SHOWN;
            Pyramid.Outline o =
                    rig.outline(name).map(p -> p.over(from, to, COLUMNS)).orElse(null);
            QuickScale scale = scale(name, rig.rawUnit(name));
            return () -> draw(row, name, outline(c, o, scale, time), time, o == null || o.size() == 0);
        }
        RawSamples raw = run ? rig.all(name) : rig.last(name, SHOWN);
        QuickScale scale = scale(name, Run.COUNTS);
        return () -> {
            Trace t = scale.exact(clock.map(k -> k.aligned(raw)).orElse(raw));
            Layer points =
                    t.size() < 2 ? null : new Layer.Points(c.label(), t.time(), t.value(), null, false, index(name));
            draw(row, name, points, time, raw.size() == 0);
        };
    }

    private void draw(TraceRow row, String name, @Nullable Layer layer, DoubleUnaryOperator time, boolean nothing) {
        Channel c = channel(name);
        if (layer == null) {
            row.plot().emptySays(nothing ? NOTHING_YET : "No sample of " + c.label() + " is within its range.");
            row.plot().plot(null, false);
        } else {
            row.plot().plot(shaded(plot(c, layer), found.getOrDefault(name, List.of()), time), false);
        }
    }

    /** Works the numbers out, of all rows at once: what is changed together is laid out once. */
    private void count(LiveRig rig, boolean run) {
        boolean seen = span.getValue().equals(SEEN);
        List<Supplier<TraceFigures>> each = new ArrayList<>();
        traces.keySet().forEach(name -> {
            double seconds = seen
                    ? run ? rig.end(name) : SHOWN
                    : Double.parseDouble(Typing.of(span.getValue()).replace(" s", ""));
            RawSamples newest =
                    rig.last(name, Math.min(seconds, (seen ? EXACT : MOST_COUNTED) / Math.max(1, rig.rate())));
            Channel c = channel(name);
            Function<RawSamples, Trace> reading = exact(name);
            each.add(() -> TraceFigures.newest(c, reading.apply(newest)));
        });
        List<TraceRow> shown = List.copyOf(traces.values());
        numbers.work(
                () -> each.stream().map(Supplier::get).toList(),
                figures -> IntStream.range(0, shown.size())
                        .forEach(i -> shown.get(i).says(figures.get(i))));
    }

    /** From the stamps of an instrument to the time that all have in common. */
    private static DoubleUnaryOperator shared(Optional<DeviceClock> clock) {
        return clock.<DoubleUnaryOperator>map(k -> k::time).orElse(DoubleUnaryOperator.identity());
    }

    private int index(String name) {
        return List.copyOf(traces.keySet()).indexOf(name);
    }

    private static Plot plot(Channel c, Layer layer) {
        return new Plot(
                "Live " + c.label(),
                new Plot.Axis("time", "s"),
                new Plot.Axis(c.label(), c.labUnit().pretty()),
                List.of(layer));
    }

    private @Nullable Layer outline(
            Channel c, Pyramid.@Nullable Outline o, QuickScale scale, DoubleUnaryOperator time) {
        if (o == null || o.size() == 0) {
            return null;
        }
        double[] low = new double[o.size()];
        double[] high = new double[o.size()];
        for (int i = 0; i < low.length; i++) {
            double a = scale.quick(o.low()[i]);
            double b = scale.quick(o.high()[i]);
            low[i] = Math.min(a, b);
            high[i] = Math.max(a, b);
        }
        return new Layer.Envelope(c.label(), Arrays.stream(o.time()).map(time).toArray(), low, high, 0);
    }

    /** True where the channels of a capture are light gates, whose states say less than their edges. */
    private boolean areGates(String capture) {
        Capture c = desk.bench().sheet().captures().get(capture);
        return c != null && c.mode().equals("gate");
    }

    /** A gate: how fast it is passed, and what is known of its last passage. */
    private static void gate(TraceRow row, String label, RawSamples states, int series) {
        row.plot().emptySays("A point stands here for every passage but the first two.");
        row.plot().plot(GatePlot.of(label, states, series).orElse(null), false);
        GateFigures f = GateFigures.of(states);
        row.says(new TraceFigures("", f.edges() + " edges, last block " + f.block() + ", last period " + f.period()));
    }

    /** Shows a stored run, or nothing; with the statistics of what is seen of each trace. */
    void stored(@Nullable Run run) {
        numbers.forget();
        traces.forEach((name, row) -> {
            if (run == null) {
                row.plot().plot(null, false);
                row.says(TraceFigures.NONE);
                return;
            }
            if (areGates(run.capture())) {
                gate(
                        row,
                        run.channel(desk.bench().sheet(), name).label(),
                        desk.bench().file().samples(run.id(), name),
                        index(name));
                return;
            }
            long n = desk.bench().file().count(run.id(), name);
            Optional<Trace> trace =
                    n > EXACT ? Optional.empty() : desk.bench().reduction().trace(run, name);
            Channel c = run.channel(desk.bench().sheet(), name);
            if (n > EXACT) {
                Pyramid p = desk.bench().file().overview(run.id(), name);
                Layer l = outline(
                        c,
                        p.over(p.start(), p.end(), 1500),
                        scale(name, run.rawUnit(name)),
                        shared(run.clock(desk.bench().sheet(), name)));
                row.plot().plot(l == null ? null : marked(run, c, plot(c, l)), false);
            } else {
                row.plot()
                        .plot(
                                trace.map(t -> marked(
                                                run,
                                                c,
                                                plot(
                                                        c,
                                                        new Layer.Points(
                                                                c.label(),
                                                                t.time(),
                                                                t.value(),
                                                                null,
                                                                false,
                                                                index(name)))))
                                        .orElse(null),
                                false);
            }
            row.says(TraceFigures.seen(c, trace.orElse(null), row.plot().visible()));
        });
    }

    /** With the samples shaded that watches point at. */
    private Plot marked(Run run, Channel c, Plot plot) {
        return shaded(
                plot,
                desk.bench().findings().stream()
                        .filter(f -> f.run() == run.id()
                                && f.message()
                                        .toLowerCase(Locale.ROOT)
                                        .contains(c.label().toLowerCase(Locale.ROOT)))
                        .toList(),
                DoubleUnaryOperator.identity());
    }

    /** @param time what a moment at which a finding points means on the picture */
    private static Plot shaded(Plot plot, List<Finding> findings, DoubleUnaryOperator time) {
        Plot out = plot;
        for (Finding f : findings) {
            if (!Double.isNaN(f.from()) && f.severity() != Finding.Severity.NOTE) {
                double from = time.applyAsDouble(f.from());
                out = out.with(new Layer.Span(from, Math.max(time.applyAsDouble(f.to()), from), false))
                        .with(new Layer.Words(
                                f.watch(),
                                from,
                                plot.whole().y1()
                                        - 0.06
                                                * (plot.whole().y1()
                                                        - plot.whole().y0()),
                                Ink.ATTENTION,
                                false));
            }
        }
        return out;
    }
}
