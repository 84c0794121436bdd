package eagerneedle.core.chain;

import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One piece of advice on a chain.
 *
 * @param about range, step, noise or rate
 * @param good true when nothing is to be done
 * @param says one sentence
 * @param fix the one sensible thing to do about it; null when there is none, or more than one
 */
public record Advice(
        String about, boolean good, String says, @Nullable Fix fix) {
    private static final double[] NICE = {1, 2, 4, 5};
    private static final double USED = 0.9;
    private static final double FINER = 0.95;
    private static final double SAMPLES_IN_FASTEST = 10;

    /**
     * Something to be done with one click. What is not touched is null.
     *
     * @param label what the button says
     * @param chain the chain with it
     * @param rate samples a second
     * @param average conversions averaged into one sample
     */
    public record Fix(
            String label,
            @Nullable List<Link> chain,
            @Nullable Double rate,
            @Nullable Integer average) {}

    /**
     * What is needed of a chain.
     *
     * @param low lowest measurand needed, in the chain's unit; NaN when not stated
     * @param high highest
     * @param step step wanted, in the unit of differences; NaN when not stated
     * @param rate samples a second
     * @param average conversions averaged into one sample
     * @param fastest time in which the fastest thing of interest happens, in s; NaN when not stated
     * @param noise standard deviation of live samples, in the unit of differences; NaN when nothing is connected
     */
    public record Need(double low, double high, double step, double rate, int average, double fastest, double noise) {}

    /** Advice on everything that can be judged, range first. */
    public static List<Advice> on(Chain chain, Need need) {
        List<Advice> out = new ArrayList<>();
        if (!Double.isNaN(need.low())) {
            out.add(range(chain, need));
        }
        if (!Double.isNaN(need.step())) {
            Advice step = step(chain, need);
            out.add(step);
            // What looks like noise of a step or two is the step itself.
            if (step.good()) {
                noise(chain, need, out);
            }
        }
        if (!Double.isNaN(need.fastest()) && need.rate() > 0) {
            out.add(rate(need));
        }
        return out;
    }

    /** Advice that asks for something, or the good news when there is nothing to ask for. */
    public static List<Advice> pressing(List<Advice> all) {
        List<Advice> bad = all.stream().filter(a -> !a.good()).toList();
        return bad.isEmpty() ? all.stream().limit(1).toList() : bad;
    }

    private static Advice range(Chain chain, Need need) {
        double[] reach = chain.reach();
        double slack = 1e-9 * (need.high() - need.low());
        if (need.low() >= reach[0] - slack && need.high() <= reach[1] + slack) {
            return new Advice("range", true, "The reach holds what is needed.", null);
        }
        List<Link> links = chain.links();
        Fix fix = null;
        for (int i = links.size() - 1; i >= 0 && fix == null; i--) {
            fix = wider(links, i, need);
        }
        String where = limiting(chain, need.low() < reach[0] ? need.low() : need.high());
        return new Advice(
                "range",
                false,
                "What is needed goes beyond the reach: " + where + " is at its limit."
                        + (fix == null ? " Choose a wider one or move the sensor." : ""),
                fix);
    }

    /** Which part of the chain is the first that cannot take a value. */
    private static String limiting(Chain chain, double value) {
        double v = value;
        for (Stage s : chain.stages()) {
            if (!(v >= s.lowest() && v <= s.highest())) {
                return s.label();
            }
            v = s.forward(v);
        }
        return chain.converter().label();
    }

    private static boolean holds(List<Link> links, Need need) {
        double[] reach = Chain.of(links).reach();
        return need.low() >= reach[0] && need.high() <= reach[1];
    }

    /**
     * Another setting of one link with which the chain reaches far enough: the largest gain or the narrowest range that
     * does.
     */
    private static @Nullable Fix wider(List<Link> links, int i, Need need) {
        Fix best = null;
        double finest = Double.POSITIVE_INFINITY;
        for (List<Link> tried : settings(links, i)) {
            if (holds(tried, need)) {
                double step = Chain.of(tried).step(need.low(), need.high());
                if (step < finest) {
                    finest = step;
                    best = new Fix(words(tried.get(i)), tried, null, null);
                }
            }
        }
        return best;
    }

    /**
     * Settings of a chain with which one step is finer than now and the reach still holds what is needed: for each of
     * its links that can be set, the finest.
     *
     * @return none where nothing is said to be needed
     */
    public static List<Fix> finest(Chain chain, Need need) {
        List<Fix> out = new ArrayList<>();
        List<Link> links = chain.links();
        for (int i = 0; i < links.size() && !Double.isNaN(need.low()); i++) {
            List<Link> best = null;
            double finest = FINER * chain.step(need.low(), need.high());
            for (List<Link> tried : settings(links, i)) {
                double step = Chain.of(tried).step(need.low(), need.high());
                if (holds(tried, need) && step < finest) {
                    finest = step;
                    best = tried;
                }
            }
            if (best != null) {
                out.add(new Fix(words(best.get(i)), best, null, null));
            }
        }
        return out;
    }

    private static String words(Link l) {
        List<Double> range = l.range();
        return range != null
                ? "set range " + Notation.plain(range.get(0), 4) + " to "
                        + Notation.plain(range.get(1), 4) + " "
                        + LabUnit.parse(l.from()).pretty()
                : "set gain " + Notation.plain(l.constant("gain").value(), 4);
    }

    private static List<List<Link>> settings(List<Link> links, int i) {
        List<List<Link>> out = new ArrayList<>();
        Link link = links.get(i);
        if (link.gains() != null && link.law() == null) {
            String written = link.gain() == null ? "1" : link.gain();
            ChainReading now = ChainReading.of(written, "");
            for (double gain : link.gains()) {
                out.add(replaced(
                        links,
                        i,
                        link.withGain(
                                gain == now.value()
                                        ? written
                                        : now.u() == 0
                                                ? Digits.plain(gain, 12)
                                                : gain + " ± " + Math.abs(gain * now.u() / now.value()))));
            }
        }
        if (link.ranges() != null) {
            link.ranges().forEach(r -> out.add(replaced(links, i, link.withRange(r.get(0), r.get(1)))));
        }
        return out;
    }

    private static List<Link> replaced(List<Link> links, int i, Link link) {
        List<Link> copy = new ArrayList<>(links);
        copy.set(i, link);
        return copy;
    }

    private static Advice step(Chain chain, Need need) {
        String unit = chain.unit().difference().pretty();
        boolean ranged = !Double.isNaN(need.low());
        double step = ranged ? chain.step(need.low(), need.high()) : chain.step();
        if (step <= need.step()) {
            return new Advice(
                    "step",
                    true,
                    "One step is " + Notation.plain(step, 2) + " " + unit + ", fine enough for the "
                            + Notation.plain(need.step(), 2) + " " + unit + " wanted.",
                    null);
        }
        Fix fix = ranged ? finer(chain, need) : null;
        List<Link> finer = fix == null ? null : fix.chain();
        return new Advice(
                "step",
                false,
                "One step is " + Notation.plain(step, 2) + " " + unit + ", coarser than the "
                        + Notation.plain(need.step(), 2) + " " + unit + " wanted."
                        + (fix == null || finer == null
                                ? " A converter of more bits would help."
                                : " " + effect(fix.label(), finer, need, unit)),
                fix);
    }

    private static String effect(String what, List<Link> links, Need need, String unit) {
        return capital(what) + " and it is " + Notation.plain(Chain.of(links).step(need.low(), need.high()), 2) + " "
                + unit + ".";
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    /**
     * The least change that makes the step fine enough and keeps the reach: another setting, or an amplifier before the
     * converter.
     */
    private static @Nullable Fix finer(Chain chain, Need need) {
        List<Link> links = chain.links();
        Fix best = null;
        double coarsest = 0;
        for (int i = 0; i < links.size(); i++) {
            for (List<Link> tried : settings(links, i)) {
                double step = Chain.of(tried).step(need.low(), need.high());
                if (holds(tried, need) && step <= need.step() && step > coarsest) {
                    coarsest = step;
                    best = new Fix(words(tried.get(i)), tried, null, null);
                }
            }
        }
        return best != null ? best : amplifier(chain, need);
    }

    private static @Nullable Fix amplifier(Chain chain, Need need) {
        Converter c = chain.converter();
        double low = chain.signal(need.low());
        double high = chain.signal(need.high());
        double top = c.input(c.highestCount());
        double bottom = c.input(c.lowestCount());
        for (double decade = 1; decade < 1e5; decade *= 10) {
            for (double nice : NICE) {
                double gain = nice * decade;
                boolean fits = gain > 1
                        && gain * Math.max(low, high) <= USED * top
                        && gain * Math.min(low, high) >= (bottom < 0 ? USED * bottom : bottom);
                if (fits) {
                    List<Link> links = new ArrayList<>(chain.links());
                    String u = links.get(links.size() - 1).from();
                    links.add(
                            links.size() - 1,
                            Link.linear("conditioner", "amplifier", u, u, Digits.plain(gain, 6), null));
                    if (Chain.of(links).step(need.low(), need.high()) <= need.step()) {
                        return new Fix("add gain " + Notation.plain(gain, 6), links, null, null);
                    }
                }
            }
        }
        return null;
    }

    private static void noise(Chain chain, Need need, List<Advice> out) {
        double middle =
                Double.isNaN(need.low()) ? (chain.reach()[0] + chain.reach()[1]) / 2 : (need.low() + need.high()) / 2;
        double noise = Double.isNaN(need.noise()) ? chain.noiseAt(middle) / Math.sqrt(need.average()) : need.noise();
        String unit = chain.unit().difference().pretty();
        double step = chain.stepAt(middle);
        if (!(noise > 0)) {
            return;
        }
        if (noise > need.step()) {
            int n = (int) Math.ceil(need.average() * Math.pow(noise / need.step(), 2));
            boolean sensible = n <= 1000;
            out.add(new Advice(
                    "noise",
                    false,
                    "The noise of one sample, " + Notation.plain(noise, 2) + " " + unit + ", is more than the "
                            + Notation.plain(need.step(), 2) + " " + unit + " wanted."
                            + (sensible
                                    ? " " + n + " conversions a sample bring it down, if it is white."
                                    : " Averaging alone will not do: look for its source."),
                    sensible ? new Fix("average " + n, null, null, n) : null));
        } else if (noise < step / 3 && need.average() > 1) {
            out.add(new Advice(
                    "noise",
                    true,
                    "The noise is " + Notation.plain(noise / step, 2)
                            + " of a step: averaging gains nothing, the converter's step is the limit.",
                    null));
        } else {
            out.add(new Advice(
                    "noise",
                    true,
                    "The noise of one sample is " + Notation.plain(noise / step, 2) + " of a step.",
                    null));
        }
    }

    private static Advice rate(Need need) {
        double wanted = SAMPLES_IN_FASTEST / need.fastest();
        if (need.rate() >= wanted * (1 - 1e-9)) {
            return new Advice(
                    "rate",
                    true,
                    Notation.plain(need.rate(), 4) + " samples a second follow what happens in "
                            + Notation.plain(need.fastest(), 2) + " s.",
                    null);
        }
        double nice = nice(wanted);
        return new Advice(
                "rate",
                false,
                Notation.plain(need.rate(), 4) + " samples a second are too few for what happens in "
                        + Notation.plain(need.fastest(), 2) + " s: fast changes would be missed or look slow.",
                new Fix("set " + Notation.plain(nice, 6) + " a second", null, nice, null));
    }

    private static double nice(double atLeast) {
        for (double decade = Math.pow(10, Math.floor(Math.log10(atLeast))); ; decade *= 10) {
            for (double n : new double[] {1, 2, 5}) {
                if (n * decade >= atLeast * (1 - 1e-9)) {
                    return n * decade;
                }
            }
        }
    }
}
