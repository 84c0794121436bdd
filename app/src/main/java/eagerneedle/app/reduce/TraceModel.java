package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.PlainWords;
import eagerneedle.core.trace.Cursor;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The trace of the run in hand: its pictures, its window, its figures, and what other windows would give. */
final class TraceModel {
    /** What stands for a value that is absent on purpose: nothing need be said of it. */
    private static final String NOTHING = "none";

    static final String ALL = "all channels";
    private static final double STEADY = 3;
    private static final double COARSE = 0.02;

    private final Desk desk;
    private @Nullable Command dragged;
    private final WindowsOtherwise otherwise;

    TraceModel(Desk desk) {
        this.desk = desk;
        this.otherwise = new WindowsOtherwise(desk);
    }

    private Reduction reduction() {
        return desk.bench().reduction();
    }

    /** The run in hand as it is now; absent when there is none or it was discarded. */
    Optional<Run> run() {
        return desk.run().flatMap(r -> desk.bench().session().run(r.id())).filter(r -> r.discard() == null);
    }

    private List<String> channels(Run run) {
        return desk.bench().sheet().capture(run.capture()).channels();
    }

    /** The window of what is seen: the one on that channel, otherwise the first of the capture. */
    private Optional<String> window(Run run, String channel) {
        Capture capture = desk.bench().sheet().capture(run.capture());
        return capture.windowOn(channel)
                .or(() -> capture.windows().keySet().stream().findFirst());
    }

    /** What may be chosen to be seen: each channel, and all of them when there are several. */
    List<String> sights(Run run) {
        List<String> labels = channels(run).stream()
                .map(c -> desk.bench().sheet().channel(c).label())
                .collect(Collectors.toCollection(ArrayList::new));
        if (labels.size() > 1) {
            labels.add(ALL);
        }
        return labels;
    }

    /** The channel on top for the i-th of {@link #sights}; empty where nothing was recorded. */
    String channel(Run run, int i) {
        List<String> names = channels(run);
        return names.isEmpty() ? "" : names.get(i >= 0 && i < names.size() ? i : 0);
    }

    /** The channels under the one on top when all are seen. */
    List<String> under(Run run, String top) {
        return channels(run).stream().filter(c -> !c.equals(top)).toList();
    }

    /** What was read by eye, and what stands in place of quantities that have no value, a line each. */
    String said(Run run) {
        String read = desk.bench().sheet().capture(run.capture()).byEye().entrySet().stream()
                .map(e -> e.getValue().label() + " "
                        + reduction()
                                .ofRun(run, e.getKey())
                                .quantity()
                                .map(Notation::bracket)
                                .orElse("not read"))
                .collect(Collectors.joining(" · "));
        String instead = instead(run);
        return read.isEmpty() || instead.isEmpty() ? capitalised(read) + instead : capitalised(read) + "\n" + instead;
    }

    private static String capitalised(String s) {
        return s.isEmpty() ? s : capital(s);
    }

    private String instead(Run run) {
        return reduction().ofRun(run).stream()
                .filter(e -> e.quantity().isEmpty()
                        && e.outcome().problem() == null
                        && !e.instead().isEmpty()
                        && !e.instead().equals(NOTHING))
                .map(e -> capital(e.label()) + ": " + words().say(e.instead()))
                .collect(Collectors.joining("\n"));
    }

    private PlainWords words() {
        return PlainWords.of(reduction().sheet());
    }

    static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    Optional<Plot> plot(Run run, String channel) {
        return channel.isEmpty() ? Optional.empty() : SessionPlots.run(reduction(), run, channel);
    }

    /** Why there is no picture of a channel. */
    String noPlot(Run run, String channel) {
        return channel.isEmpty()
                ? "Read by eye; nothing was recorded."
                : Optional.ofNullable(reduction().ofRun(run, channel).problem())
                        .map(words()::say)
                        .orElse("There is no trace.");
    }

    /** Residuals of the fit through a channel of the run; empty where none goes through it. */
    Optional<Plot> residuals(Run run, String channel) {
        return SessionPlots.residuals(reduction(), run, channel);
    }

    /** By how much an arrow key moves an edge of the window: one sample, s. */
    double step(Run run, String channel) {
        return channel.isEmpty()
                ? COARSE
                : reduction().trace(run, channel).map(Trace::interval).orElse(COARSE);
    }

    /**
     * The numbers of what lies in the window, or at the cursors where they are set; empty when there are none.
     *
     * @param cursors none, one or two times, s
     */
    String figures(String channel, double... cursors) {
        Run run = run().orElse(null);
        Optional<Trace> t = run == null || channel.isEmpty()
                ? Optional.empty()
                : reduction().trace(run, channel);
        if (run == null || t.isEmpty()) {
            return "";
        }
        try {
            return cursors.length == 0 ? statistics(run, channel, t.get()) : atCursors(t.get(), cursors);
        } catch (IllegalArgumentException e) {
            return String.valueOf(e.getMessage());
        }
    }

    private String statistics(Run run, String channel, Trace t) {
        Trace in = window(run, channel)
                .flatMap(w -> reduction().window(run, w))
                .map(t::within)
                .orElse(t);
        if (in.size() < 3 || SessionPlots.ownPoints(reduction(), run, t).isPresent()) {
            return "";
        }
        WindowStatistics s = WindowStatistics.of(in);
        String unit = (" " + t.unit().pretty()).stripTrailing();
        return "window: n %d · mean %s%s · SD %s · least %s, greatest %s%s · %s"
                .formatted(
                        s.n(),
                        Notation.bracketed(s.mean(), s.uMean()),
                        unit,
                        Notation.figures(s.sd(), 2),
                        Notation.plain(s.min(), 5),
                        Notation.plain(s.max(), 5),
                        unit,
                        s.steady(STEADY) ? "steady" : "drifting");
    }

    private static String atCursors(Trace t, double... cursors) {
        Cursor a = Cursor.at(t, cursors[0], "cursor a");
        if (cursors.length == 1) {
            return "a: " + a.moment() + ", " + a.value() + "   (a second click sets b)";
        }
        Cursor b = Cursor.at(t, cursors[1], "cursor b");
        Quantity dt = b.moment().minus(a.moment());
        Quantity dv = b.value().minus(a.value());
        LabUnit per = dv.unit().per(LabUnit.SECOND);
        return "a " + a.moment() + ": " + a.value() + " · b " + b.moment() + ": " + b.value() + " · b − a: " + dt + ", "
                + dv + (dt.value() == 0 ? "" : ", " + dv.dividedBy(dt).to(per));
    }

    /** Leaves the samples between two times, s, out of the run in hand, for a reason; they stay in the file. */
    void leaveOut(double a, double b, String reason) {
        run().ifPresent(run ->
                desk.bench().apply(new RunCommand.VoidSamples(run.id(), Math.min(a, b), Math.max(a, b), reason)));
    }

    /**
     * Moves the window of a run, within its trace. While the hand still drags, the last place waits for
     * {@link #preview}.
     */
    void move(Run run, String channel, double from, double to, boolean finished) {
        Optional<String> window = window(run, channel);
        Trace t = reduction().trace(run, channel).orElse(null);
        if (t == null || window.isEmpty()) {
            return;
        }
        double first = t.time()[0];
        double last = t.time()[t.size() - 1];
        double a = Math.max(first, Math.min(from, last));
        double b = Math.min(last, Math.max(to, first));
        if (!(b > a)) {
            return;
        }
        Command command = new ReducingCommand.SetWindow(run.id(), window.get(), new Window(a, b, "moved by hand"));
        dragged = finished ? null : command;
        if (finished) {
            desk.bench().apply(command);
        }
    }

    /** Moves a moment of a run, within its trace; the windows that follow it go with it. */
    void moveMoment(Run run, String channel, String name, double to, boolean finished) {
        Trace t = reduction().trace(run, channel).orElse(null);
        if (t == null || t.size() < 2) {
            return;
        }
        double at = Math.max(t.time()[0], Math.min(to, t.time()[t.size() - 1]));
        double half = t.interval() / 2;
        String label = Objects.requireNonNull(
                        desk.bench().sheet().capture(run.capture()).quantities().get(name))
                .label();
        Command command = new ReducingCommand.SetMoment(
                run.id(), name, label == null ? name : label, new Window(at - half, at + half, "set by hand"));
        dragged = finished ? null : command;
        if (finished) {
            desk.bench().apply(command);
        }
    }

    /** Shows what follows from where the hand has dragged to; more places come than can be shown. */
    void preview() {
        if (dragged != null) {
            Command latest = dragged;
            dragged = null;
            desk.bench().preview(latest);
        }
    }

    /** What other windows, and other moments, would give; absent without a headline and a window. */
    Optional<WindowsOtherwise.Otherwise> otherwise(Run run, String channel) {
        return window(run, channel).flatMap(w -> otherwise.of(run, w));
    }
}
