package eagerneedle.app.station;

import eagerneedle.app.bench.LiveRig;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.WatchStrip;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.core.watch.TraceWatch;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Label;

/** What the watches say of the last second: one line here and in the watch strip, and the samples they point at shaded on the traces. */
final class LiveWatch {
    private static final long EVERY = 150_000_000L;
    private final Desk desk;
    private final LiveTraces traces;
    private final Label line = Labels.wrapped("");
    private long last;

    LiveWatch(Desk desk, LiveTraces traces) {
        this.desk = desk;
        this.traces = traces;
        line.setId("live-watch");
        line.getStyleClass().add("attention");
        clear();
    }

    Label line() {
        return line;
    }

    void clear() {
        line.setText("");
        line.setManaged(false);
    }

    /** Looks again when it is time. @param gates true when edges are captured, of which nothing is to be said live */
    void tick(LiveRig rig, List<String> channels, boolean gates) {
        long now = System.nanoTime();
        if (now - last < EVERY) {
            return;
        }
        last = now;
        String says = rig.news();
        for (String c : channels) {
            List<Finding> found = gates ? List.of() : look(rig, c);
            traces.points(c, found);
            if (says.isEmpty() && !found.isEmpty()) {
                Finding f = found.get(0);
                says = f.message() + " " + f.cause() + " " + f.remedy();
            }
        }
        line.setText(says.isEmpty() ? "" : "▲ " + says);
        line.setManaged(!says.isEmpty());
        if (line.getScene() != null && line.getScene().lookup("#watch-strip") instanceof WatchStrip strip) {
            strip.live(says);
        }
    }

    private List<Finding> look(LiveRig rig, String name) {
        Sheet.Channel channel = desk.bench().session().channel(desk.bench().sheet(), name);
        RawSamples raw = rig.last(name, Math.min(1.0, RateOfChange.MOST / rig.rate()));
        List<Finding> found = new ArrayList<>(new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(0, raw.time(), raw.values()));
        Trace t = traces.exact(name, raw);
        if (t.size() > 0) {
            found.addAll(new TraceWatch(channel.label(), channel.expectation(), channel.toChain().noiseAt(t.value()[t.size() - 1])).look(0, t));
        }
        return found;
    }
}
