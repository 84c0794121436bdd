package eagerneedle.rig.simulated;

import eagerneedle.core.capture.Prompts;
import eagerneedle.core.capture.Trigger;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.LevelOutputs;
import eagerneedle.core.reduce.LiveCondition;
import eagerneedle.core.reduce.LiveTarget;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Entries;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.PromptPlan;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.ShotPlan;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.core.trace.RawSamples;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * A run of a simulated rig, taken by the way that its sheet wants it captured: free running, cut about its trigger,
 * with prompted moments, or once it has settled; and what was entered with it.
 *
 * @param samples of every channel, by the sheet's names
 * @param entries prompted moments and readings by eye
 * @param clocks how the clocks of several instruments stood to that of the run, by device
 */
record Captured(Map<String, RawSamples> samples, Entries entries, Map<String, DeviceClock> clocks) {
    private static final double LATEST = 0.15;
    private static final int ATTEMPTS = 8;
    /** How often it is looked whether a run is over, s. */
    private static final double LOOK = 0.1;

    private Captured(Map<String, RawSamples> samples, Entries entries) {
        this(samples, entries, Map.of());
    }

    /**
     * Takes a run.
     *
     * @param before what is known of inputs and levels before it
     * @param run its number, and the seed of what a person does: how late readings are taken, how readings by eye
     *     scatter
     */
    static Captured of(SimulatedRig rig, Reduction before, String capture, String level, int run) {
        Sheet sheet = before.sheet();
        Capture plan = sheet.capture(capture);
        Map<String, Double> outputs = LevelOutputs.of(before, capture, level);
        Captured c = taken(rig, before, capture, level, outputs, run).only(plan.channels());
        List<String> devices = Clocks.devices(sheet, plan);
        if (devices.size() < 2 || rig.clocks().isEmpty()) {
            return c;
        }
        Clocks clocks = rig.clocks().get();
        double end = c.samples.values().stream()
                .filter(r -> r.size() > 0)
                .mapToDouble(r -> r.time()[r.size() - 1])
                .max()
                .orElse(0);
        return new Captured(clocks.stamped(c.samples, run), c.entries, clocks.known(devices, run, end));
    }

    /** With the samples of some channels, as nothing else is recorded either. */
    private Captured only(List<String> channels) {
        Map<String, RawSamples> kept = new LinkedHashMap<>(samples);
        kept.keySet().retainAll(channels);
        return new Captured(kept, entries, clocks);
    }

    private static Captured taken(
            SimulatedRig rig, Reduction before, String capture, String level, Map<String, Double> outputs, long seed) {
        Sheet sheet = before.sheet();
        Capture plan = sheet.capture(capture);
        Map<String, String> bench = new LinkedHashMap<>(Map.of("capture", capture, "level", level));
        bench.putAll(Turned.words(outputs));
        rig.arrange(bench);
        Random random = new Random(seed * 6364136223846793005L + 1442695040888963407L);
        if (plan.isByEye()) {
            // What an eye reads at the end of a run is read after as long as a run lasts.
            rig.begin();
            rig.advance(rig.duration());
            return new Captured(Map.of(), byEye(plan, level, random, rig.byEye()));
        }
        double rate = rate(sheet, plan);
        Entries entries = byEye(plan, level, random, rig.byEye());
        switch (plan.mode()) {
            case "prompted" -> {
                PromptPlan p = plan.promptPlan();
                Prompts prompts = Prompts.of(p.first(), p.every(), p.count());
                Map<String, RawSamples> all =
                        Rehearsal.stream(rig, sheet, rate, (int) ((prompts.due(p.count() - 1) + LATEST + 1) * rate));
                while (!prompts.over()) {
                    prompts = prompts.take(
                            Math.ceil((prompts.due(prompts.marks().size()) + LATEST * random.nextDouble()) * rate)
                                    / rate);
                }
                return new Captured(all, entries.marked(prompts.marks()));
            }
            case "hold" -> {
                Optional<LiveTarget> target = LiveTarget.of(before, capture, level);
                if (target.isPresent()) {
                    entries = entries.with(Seeking.of(rig, sheet, plan, target.get(), rate));
                }
                int n = (int) (Math.max(
                                rig.duration(),
                                plan.holdPlan().settle() + plan.holdPlan().seconds())
                        * rate);
                return new Captured(
                        cut(
                                Rehearsal.stream(
                                        rig, sheet, rate, n + plan.holdPlan().samples()),
                                n / rate,
                                Double.POSITIVE_INFINITY,
                                n / rate),
                        entries);
            }
            case "shot" -> {
                Map<String, RawSamples> all =
                        Rehearsal.stream(rig, sheet, rate, (int) (Math.min(rig.duration(), plan.longest()) * rate));
                double at = fired(sheet, plan, all);
                // What did not fire the trigger is done again, as a person would.
                for (int again = 0; Double.isNaN(at) && again < ATTEMPTS; again++) {
                    rig.arrange(bench);
                    all = Rehearsal.stream(rig, sheet, rate, (int) (Math.min(rig.duration(), plan.longest()) * rate));
                    at = fired(sheet, plan, all);
                }
                return new Captured(
                        Double.isNaN(at)
                                ? all
                                : cut(
                                        all,
                                        at - plan.shotPlan().before(),
                                        at + plan.shotPlan().after(),
                                        at),
                        entries);
            }
            default -> {
                Map<String, RawSamples> all =
                        Rehearsal.stream(rig, sheet, rate, (int) (Math.min(rig.duration(), plan.longest()) * rate));
                return new Captured(
                        LiveCondition.until(sheet, plan)
                                .map(until -> stopped(until, all))
                                .orElse(all),
                        entries);
            }
        }
    }

    /** That of the first channel; of several instruments that of the fastest. */
    private static double rate(Sheet sheet, Capture plan) {
        return Clocks.devices(sheet, plan).size() < 2
                ? sheet.channel(plan.channels().get(0)).rate()
                : plan.channels().stream()
                        .mapToDouble(c -> sheet.channel(c).rate())
                        .max()
                        .orElse(1);
    }

    /** The samples up to where the sheet says that the run is over. */
    private static Map<String, RawSamples> stopped(LiveCondition until, Map<String, RawSamples> all) {
        double end = all.values().stream()
                .filter(r -> r.size() > 0)
                .mapToDouble(r -> r.time()[r.size() - 1])
                .max()
                .orElse(0);
        for (double now = LOOK; now < end; now += LOOK) {
            double soFar = now;
            if (until.holds(
                    c -> Objects.requireNonNull(all.get(c)).lastUntil(soFar),
                    c -> Objects.requireNonNull(all.get(c)).between(Double.NEGATIVE_INFINITY, soFar))) {
                Map<String, RawSamples> out = new LinkedHashMap<>();
                all.forEach((name, raw) -> out.put(name, raw.between(Double.NEGATIVE_INFINITY, soFar)));
                return out;
            }
        }
        return all;
    }

    private static Entries byEye(Capture plan, String level, Random random, Map<String, String> seen) {
        Entries entries = Entries.NONE;
        for (Map.Entry<String, Sheet.Input> e : plan.byEye().entrySet()) {
            if (seen.containsKey(e.getKey())) {
                entries = entries.read(e.getKey(), seen.get(e.getKey()));
                continue;
            }
            String text = plan.expected(level, e.getKey());
            int times = e.getValue().times();
            entries = entries.read(
                    e.getKey(),
                    IntStream.range(0, times)
                            .mapToObj(i -> scattered(text, times == 1, random))
                            .collect(Collectors.joining("; ")));
        }
        return entries;
    }

    /** A reading like the one that is expected; one that is built from its causes comes out as expected. */
    private static String scattered(String text, boolean withUncertainty, Random random) {
        if (!text.matches("\\s*[-+.(\\d].*")) {
            return text;
        }
        Reading r = Reading.parse(text);
        double v = r.value() + r.u() * random.nextGaussian();
        String number = withUncertainty
                ? Digits.bracketed(v, r.u())
                : Digits.bracketed(v, r.u()).replaceAll("\\(.*?\\)", "");
        return r.u() == 0 ? text : (number + " " + r.unit().symbol()).strip();
    }

    /** When the trigger fires; NaN when it does not. */
    private static double fired(Sheet sheet, Capture plan, Map<String, RawSamples> all) {
        ShotPlan shot = plan.shotPlan();
        String on = shot.on() == null ? plan.channels().get(0) : shot.on();
        Channel channel = sheet.channel(on);
        Chain chain = channel.toChain();
        Trigger.Way way = Trigger.Way.valueOf(shot.way().toUpperCase(Locale.ROOT));
        Reading r = Reading.parse(shot.atOrRate());
        Trigger trigger = shot.at() != null
                ? Trigger.level(
                        r.unit().convert(r.value(), channel.labUnit()),
                        way,
                        2 * chain.noiseAt(r.unit().convert(r.value(), channel.labUnit())))
                : Trigger.slope(Math.abs(r.value()), way, 5);
        RawSamples raw = Objects.requireNonNull(all.get(on));
        for (int i = 0; i < raw.size(); i++) {
            if (trigger.fires(raw.time()[i], chain.indication(raw.values()[i]))) {
                return raw.time()[i];
            }
        }
        return Double.NaN;
    }

    /** All channels from one moment to another, with time 0 at {@code zero}. */
    private static Map<String, RawSamples> cut(Map<String, RawSamples> all, double from, double to, double zero) {
        Map<String, RawSamples> out = new LinkedHashMap<>();
        all.forEach((name, raw) -> {
            RawSamples part = raw.between(from, to);
            double[] time = part.time().clone();
            for (int i = 0; i < time.length; i++) {
                time[i] -= zero;
            }
            out.put(name, new RawSamples(time, part.values()));
        });
        return out;
    }
}
