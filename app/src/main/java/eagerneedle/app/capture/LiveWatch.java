package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.core.watch.TraceWatch;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Label;

/**
 * What the watches say of the last second: one line here and in the watch strip, and the samples they point at shaded
 * on the traces.
 */
final class LiveWatch {
    private static final long EVERY = 150_000_000L;
    private final Desk desk;
    private final LiveTraces traces;
    private final Label line = Labels.wrapped("");
    private final Map<String, List<Finding>> found = new LinkedHashMap<>();
    private long last;
    private int turn;

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

    /**
     * Looks at the next channel when it is its turn: many channels never hold one frame up. @param gates true when
     * edges are captured, of which nothing is to be said live
     */
    void tick(LiveRig rig, List<String> channels, boolean gates) {
        long now = System.nanoTime();
        if (now - last < EVERY / channels.size()) {
            return;
        }
        last = now;
        found.keySet().retainAll(channels);
        String c = channels.get(turn++ % channels.size());
        found.put(c, gates ? List.of() : look(rig, c));
        traces.points(c, found.get(c));
        String says = rig.news();
        if (says.isEmpty()) {
            says = channels.stream()
                    .flatMap(name -> found.getOrDefault(name, List.of()).stream())
                    .findFirst()
                    .map(f -> f.message() + " " + f.cause() + " " + f.remedy())
                    .orElse("");
        }
        line.setText(says.isEmpty() ? "" : "▲ " + says);
        line.setManaged(!says.isEmpty());
        Notices.live(line, says);
    }

    private List<Finding> look(LiveRig rig, String name) {
        Channel channel = desk.bench().session().channel(desk.bench().sheet(), name);
        RawSamples raw = rig.last(name, Math.min(1.0, RateOfChange.MOST / rig.rate()));
        List<Finding> found = new ArrayList<>(
                new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(0, raw.time(), raw.values()));
        Trace t = traces.exact(name, raw);
        if (t.size() > 0) {
            found.addAll(new TraceWatch(
                            channel.label(),
                            channel.expectation(),
                            channel.toChain().noiseAt(t.value()[t.size() - 1]))
                    .look(0, t));
        }
        return found;
    }
}
