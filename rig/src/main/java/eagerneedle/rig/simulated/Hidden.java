package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Channel;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/** What is hidden in a rig, drawn from a seed, and what a careful person would read of it. */
final class Hidden {
    final Random random;
    private final Map<String, Quantity> truth = new LinkedHashMap<>();
    private final Map<String, String> readings = new LinkedHashMap<>();

    /** Seeds that follow one another give unrelated draws: the seed is scrambled first (Knuth's MMIX generator). */
    Hidden(long seed) {
        random = new Random(seed * 6364136223846793005L + 1442695040888963407L);
    }

    /** A number about a mean, with a standard deviation. */
    double about(double mean, double sd) {
        return mean + sd * random.nextGaussian();
    }

    /** A number anywhere within a half-width of a mean. */
    double within(double mean, double half) {
        return mean + half * (2 * random.nextDouble() - 1);
    }

    /** Hides an input that is read with a standard uncertainty; all in {@code unit}. The hidden value is returned. */
    double read(String name, double hidden, double u, String unit, int decimals) {
        is(name, hidden, unit);
        long digits = Math.round(u * Math.pow(10, decimals));
        readings.put(
                name,
                String.format(Locale.ROOT, "%." + decimals + "f(%d) %s", about(hidden, u), digits, unit)
                        .strip());
        return hidden;
    }

    /** Hides an input that is read within a largest error; all in {@code unit}. The hidden value is returned. */
    double readWithin(String name, double hidden, double limit, String unit, int decimals) {
        is(name, hidden, unit);
        readings.put(
                name,
                String.format(Locale.ROOT, "%." + decimals + "f limit %s %s", within(hidden, limit), limit, unit)
                        .strip());
        return hidden;
    }

    /**
     * Hides what is only marked on a thing: the mark is what is read, and the truth lies about it; in the unit of the
     * mark.
     */
    double marked(String name, String mark) {
        Reading r = Reading.parse(mark);
        is(
                name,
                r.distribution() == Distribution.RECTANGULAR
                        ? within(r.value(), r.u() * Math.sqrt(3))
                        : about(r.value(), r.u()),
                r.unit().symbol());
        readings.put(name, mark);
        return truth.get(name).value();
    }

    /** Says what a result is in truth. */
    void is(String name, double value, String unit) {
        is(name, Quantity.exact(value, LabUnit.parse(unit)));
    }

    void is(String name, Quantity value) {
        truth.put(name, value);
    }

    /** What is read of an input, as written. */
    void readsAs(String name, String reading) {
        readings.put(name, reading);
    }

    /**
     * The true value that stands at a point of a calibration, in the channel's unit: from hidden inputs, or the reading
     * with an error of its own.
     */
    double reference(Channel channel, Map<String, String> bench) {
        Channel.CalibrationPlan plan = channel.calibration();
        String part = bench.getOrDefault("part", "points");
        List<Channel.PointPlan> list =
                part.equals("verify") ? plan.verify() : part.equals("after") ? plan.after() : plan.points();
        String text = list.get(Integer.parseInt(bench.get("point"))).reference();
        try {
            Reading r = Reading.parse(text);
            return r.unit().convert(r.value(), channel.labUnit())
                    + r.u() * r.unit().scaleTo(channel.labUnit()) * random.nextGaussian();
        } catch (IllegalArgumentException formula) {
            Value v = Formula.parse(text)
                    .evaluate(Scope.over(
                            "truth",
                            truth.keySet(),
                            n -> Optional.ofNullable(truth.get(n)).map(Value.Scalar::new)));
            return ((Value.Scalar) v).quantity().in(channel.labUnit());
        }
    }

    /** The chain of a channel as it really is: every number moved by a draw of its own uncertainty. */
    Chain chain(Channel channel) {
        List<Link> links = new ArrayList<>();
        for (Link l : channel.chain()) {
            Link moved = l;
            for (String number : Chain.uncertainOf(l)) {
                moved = Chain.moved(moved, number, random.nextGaussian());
            }
            links.add(moved);
        }
        return Chain.of(links);
    }

    Map<String, Quantity> truth() {
        return truth;
    }

    Map<String, String> readings() {
        return readings;
    }
}
