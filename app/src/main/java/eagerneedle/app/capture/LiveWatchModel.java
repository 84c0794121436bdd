package eagerneedle.app.capture;

import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.quantity.Ranks;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.GateWatch;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.core.watch.TraceWatch;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What the watches say of the newest samples of a capture's channels, whichever instruments they come from: each by
 * itself, in turn, and what two of them show of each other.
 */
final class LiveWatchModel {
    private static final double LAST_S = 1;
    private static final double LAST_EDGES_S = 6;
    private static final double STILL = 5;
    private static final double HUM_S = 0.5;
    /** Samples in which the course of a run shows. */
    private static final int COURSE = 1200;

    private final Function<String, Channel> channels;
    private final Function<String, Function<RawSamples, Trace>> exact;
    private final Map<String, List<Finding>> found = new LinkedHashMap<>();
    private final Map<String, Double> typical = new LinkedHashMap<>();
    private int turn;

    /**
     * Watches of a session.
     *
     * @param channels as they are set up now, by name
     * @param exact what raw samples of a channel mean, for any thread to ask
     */
    LiveWatchModel(Function<String, Channel> channels, Function<String, Function<RawSamples, Trace>> exact) {
        this.channels = channels;
        this.exact = exact;
    }

    /**
     * What was found of one channel.
     *
     * @param typical its median; null when none of its samples are within reach
     */
    record Seen(
            String channel,
            List<Finding> findings,
            @Nullable Double typical) {}

    /** Turns to the next channel: how to look at its newest samples, which any thread may do. */
    Supplier<Seen> look(LiveRig rig, Capture plan) {
        List<String> names = plan.channels();
        found.keySet().retainAll(names);
        typical.keySet().retainAll(names);
        String name = names.get(turn++ % names.size());
        Channel channel = channels.apply(name);
        boolean recording = rig.isRecording();
        if (plan.mode().equals("gate")) {
            RawSamples states = recording ? rig.all(name) : rig.last(name, LAST_EDGES_S);
            return () -> new Seen(
                    name,
                    new GateWatch(channel.label()).look(0, states).map(List::of).orElse(List.of()),
                    null);
        }
        RawSamples newest = rig.last(name, Math.min(LAST_S, RateOfChange.MOST / rig.rate()));
        RawSamples course = recording ? rig.thinned(name, COURSE) : RawSamples.NONE;
        Function<RawSamples, Trace> reading = exact.apply(name);
        boolean row = plan.mode().equals("hold") && recording;
        return () -> sampled(name, channel, reading, newest, recording ? course : null, row);
    }

    /**
     * Looks at samples.
     *
     * @param course of the whole run; null while none is recorded
     * @param row true while a row is taken of what stands still
     */
    private static Seen sampled(
            String name,
            Channel channel,
            Function<RawSamples, Trace> reading,
            RawSamples raw,
            @Nullable RawSamples course,
            boolean row) {
        List<Finding> out = new ArrayList<>(
                new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(0, raw.time(), raw.values()));
        Trace t = reading.apply(raw);
        if (t.size() == 0) {
            return new Seen(name, out, null);
        }
        TraceWatch watch = new TraceWatch(
                channel.label(), channel.expectation(), channel.toChain().noiseAt(t.value()[t.size() - 1]));
        out.addAll(watch.look(0, t));
        if (course != null && out.isEmpty()) {
            out.addAll(watch.course(0, reading.apply(course)));
        }
        if (row || course == null && t.size() > 2 && WindowStatistics.of(t).steady(STILL)) {
            Optional<Finding> hum = watch.hum(0, t.time(), t.value(), t.unit());
            // A hum seen for too short a time looks like a jump.
            boolean longEnough = t.time()[t.size() - 1] - t.time()[0] > HUM_S;
            hum.or(() -> row && longEnough ? watch.contact(0, t) : Optional.empty())
                    .ifPresent(out::add);
        }
        return new Seen(name, out, Ranks.select(t.value().clone(), 0, t.size(), t.size() / 2));
    }

    /** Takes what a look has found. */
    void take(Seen seen) {
        found.put(seen.channel(), seen.findings());
        if (seen.typical() == null) {
            typical.remove(seen.channel());
        } else {
            typical.put(seen.channel(), seen.typical());
        }
    }

    /** Begins anew: what was seen before is over. */
    void forget() {
        found.clear();
        typical.clear();
    }

    /** What was found of a channel when it was looked at last. */
    List<Finding> of(String name) {
        return found.getOrDefault(name, List.of());
    }

    /** The first thing to be said: of a channel alone, or of two that show what is expected of each other. */
    String says(Capture plan) {
        List<Finding> all = new ArrayList<>();
        plan.channels().forEach(n -> all.addAll(of(n)));
        if (all.isEmpty() && typical.size() == plan.channels().size()) {
            List<TraceWatch.Tagged> tagged = new ArrayList<>();
            typical.forEach((n, value) -> tagged.add(new TraceWatch.Tagged(
                    n, channels.apply(n).label(), channels.apply(n).expectation(), value)));
            all.addAll(TraceWatch.bands(0, tagged));
        }
        return all.isEmpty()
                ? ""
                : all.get(0).message() + " " + all.get(0).cause() + " "
                        + all.get(0).remedy();
    }
}
