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
import java.util.function.BiFunction;
import java.util.function.Function;

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
    private final BiFunction<String, RawSamples, Trace> exact;
    private final Map<String, List<Finding>> found = new LinkedHashMap<>();
    private final Map<String, Double> typical = new LinkedHashMap<>();
    private int turn;

    /**
     * Watches of a session.
     *
     * @param channels as they are set up now, by name
     * @param exact what raw samples of a channel mean
     */
    LiveWatchModel(Function<String, Channel> channels, BiFunction<String, RawSamples, Trace> exact) {
        this.channels = channels;
        this.exact = exact;
    }

    /** Looks at the next channel; its name. */
    String look(LiveRig rig, Capture plan) {
        List<String> names = plan.channels();
        found.keySet().retainAll(names);
        typical.keySet().retainAll(names);
        String name = names.get(turn++ % names.size());
        Channel channel = channels.apply(name);
        if (plan.mode().equals("gate")) {
            RawSamples states = rig.isRecording() ? rig.all(name) : rig.last(name, LAST_EDGES_S);
            found.put(
                    name,
                    new GateWatch(channel.label()).look(0, states).map(List::of).orElse(List.of()));
        } else {
            found.put(name, sampled(rig, plan, name, channel));
        }
        return name;
    }

    private List<Finding> sampled(LiveRig rig, Capture plan, String name, Channel channel) {
        RawSamples raw = rig.last(name, Math.min(LAST_S, RateOfChange.MOST / rig.rate()));
        List<Finding> out = new ArrayList<>(
                new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(0, raw.time(), raw.values()));
        Trace t = exact.apply(name, raw);
        if (t.size() == 0) {
            typical.remove(name);
            return out;
        }
        typical.put(name, Ranks.select(t.value().clone(), 0, t.size(), t.size() / 2));
        TraceWatch watch = new TraceWatch(
                channel.label(), channel.expectation(), channel.toChain().noiseAt(t.value()[t.size() - 1]));
        out.addAll(watch.look(0, t));
        if (rig.isRecording() && out.isEmpty()) {
            out.addAll(watch.course(0, exact.apply(name, rig.thinned(name, COURSE))));
        }
        boolean row = plan.mode().equals("hold") && rig.isRecording();
        if (row || !rig.isRecording() && t.size() > 2 && WindowStatistics.of(t).steady(STILL)) {
            Optional<Finding> hum = watch.hum(0, t.time(), t.value(), t.unit());
            // A hum seen for too short a time looks like a jump.
            boolean longEnough = t.time()[t.size() - 1] - t.time()[0] > HUM_S;
            hum.or(() -> row && longEnough ? watch.contact(0, t) : Optional.empty())
                    .ifPresent(out::add);
        }
        return out;
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
