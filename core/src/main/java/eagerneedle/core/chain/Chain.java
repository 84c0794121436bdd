package eagerneedle.core.chain;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.List;

/**
 * Sensor, conditioners and converter of one channel, composed forwards (measurand to counts) and backwards.
 *
 * <p>Uncertainties of gains, offsets and constants are propagated by moving each by its standard uncertainty and
 * reading the same count back: one general way for every law, exact for what matters here (first order), so that no law
 * needs derivatives of its own.
 *
 * @param stages in order from the measurand; none for a meter that shows the measurand itself
 * @param converter the last link
 */
public record Chain(List<Stage> stages, Converter converter) {
    private static final int SCAN = 200;

    public Chain {
        stages = List.copyOf(stages);
    }

    /**
     * The chain that links describe, the converter last; a meter that shows the measurand itself is a converter alone.
     *
     * @throws IllegalArgumentException with one sentence when a link makes no sense or does not fit its neighbour
     */
    public static Chain of(List<Link> links) {
        if (links.isEmpty() || !links.get(links.size() - 1).isConverter()) {
            throw new IllegalArgumentException("a chain ends with its converter and has one only.");
        }
        List<Stage> stages = new ArrayList<>();
        for (Link l : links.subList(0, links.size() - 1)) {
            if (l.isConverter() || l.to() == null) {
                throw new IllegalArgumentException(
                        l.isConverter()
                                ? "a chain ends with its converter and has one only."
                                : "a " + l.kind() + " needs the unit it gives ('to').");
            }
            stages.add(Stage.of(l));
        }
        Converter converter = Converter.of(links.get(links.size() - 1));
        for (int i = 0; i < stages.size(); i++) {
            LabUnit next = i + 1 < stages.size() ? stages.get(i + 1).input() : converter.input();
            String label = i + 1 < stages.size() ? stages.get(i + 1).label() : converter.label();
            if (!next.equals(stages.get(i).output())) {
                throw new IllegalArgumentException(stages.get(i).label() + " gives "
                        + stages.get(i).output().named() + ", but " + label + " takes " + next.named() + ".");
            }
        }
        return new Chain(stages, converter);
    }

    /** Names of the numbers of a link that have a standard uncertainty. */
    public static List<String> uncertainOf(Link link) {
        return link.uncertain();
    }

    /** A link with one uncertain number moved by k of its standard uncertainties. */
    public static Link moved(Link link, String number, double k) {
        return link.moved(number, k);
    }

    /** As it would be written. */
    public List<Link> links() {
        List<Link> links = new ArrayList<>(stages.stream().map(Stage::link).toList());
        links.add(converter.link());
        return links;
    }

    /** Unit of the measurand. */
    public LabUnit unit() {
        return stages.isEmpty() ? converter.input() : stages.get(0).input();
    }

    /** What arrives at the converter, in its unit; NaN outside the range of a law. */
    public double signal(double measurand) {
        return signal(measurand, stages.size());
    }

    /** What arrives at a stage, in its input unit. */
    public double signal(double measurand, int before) {
        double v = measurand;
        for (int i = 0; i < before; i++) {
            v = stages.get(i).forward(v);
        }
        return v;
    }

    /** Counts for a measurand value in {@link #unit()}, held at the rails. */
    public double counts(double measurand) {
        return converter.count(signal(measurand));
    }

    /** Counts before rounding and without rails. */
    public double exactCounts(double measurand) {
        return converter.exactCount(signal(measurand));
    }

    /** Indication in {@link #unit()} for a count, by the chain's nominal transfer; NaN where a law gives none. */
    public double indication(double count) {
        double v = converter.input(count);
        for (int i = stages.size() - 1; i >= 0; i--) {
            v = stages.get(i).backward(v);
        }
        return v;
    }

    /** Smallest step that can be seen at a value of the measurand, in {@link #unit()}. */
    public double stepAt(double measurand) {
        double c = exactCounts(measurand);
        double step = Math.abs(indication(c + 0.5) - indication(c - 0.5));
        return Double.isFinite(step)
                ? step
                : Math.abs(indication(c) - indication(c - Math.signum(c - converter.lowestCount() - 1)));
    }

    /** Largest step over a range of the measurand, in {@link #unit()}. */
    public double step(double low, double high) {
        double largest = 0;
        for (int i = 0; i <= SCAN; i++) {
            double s = stepAt(low + (high - low) * i / SCAN);
            largest = Double.isFinite(s) ? Math.max(largest, s) : largest;
        }
        return largest;
    }

    /** The step in the middle of the reach; for a straight chain the step everywhere. */
    public double step() {
        double[] reach = reach();
        return stepAt((reach[0] + reach[1]) / 2);
    }

    /**
     * Lowest and highest measurand that can be reached: laws, limits of stages and converter rails together, in
     * {@link #unit()}.
     */
    public double[] reach() {
        double low = stages.isEmpty()
                ? converter.input(converter.lowestCount())
                : stages.get(0).lowest();
        double high = stages.isEmpty()
                ? converter.input(converter.highestCount())
                : stages.get(0).highest();
        for (int i = 0; i < stages.size(); i++) {
            double a = end(stages.get(i), low);
            double b = end(stages.get(i), high);
            boolean last = i == stages.size() - 1;
            low = Math.max(
                    Math.min(a, b),
                    last
                            ? converter.input(converter.lowestCount())
                            : stages.get(i + 1).lowest());
            high = Math.min(
                    Math.max(a, b),
                    last
                            ? converter.input(converter.highestCount())
                            : stages.get(i + 1).highest());
        }
        for (int i = stages.size() - 1; i >= 0; i--) {
            Stage s = stages.get(i);
            boolean falls = end(s, s.highest()) < end(s, s.lowest());
            double a = s.backward(falls ? high : low);
            double b = s.backward(falls ? low : high);
            // At the very end of a law, rounding may put a value outside it: then the end of the stage is the end.
            low = Double.isNaN(a) ? s.lowest() : Math.max(s.lowest(), a);
            high = Double.isNaN(b) ? s.highest() : Math.min(s.highest(), b);
        }
        return new double[] {low, high};
    }

    /** What a stage gives at an end of its range, where the end may be infinite. */
    private static double end(Stage s, double at) {
        double y = s.forward(Double.isInfinite(at) ? Math.copySign(1e12, at) : at);
        return Double.isInfinite(at) && s.law().linear()
                ? Math.copySign(Double.POSITIVE_INFINITY, y - s.forward(0))
                : y;
    }

    /**
     * Standard deviation of the noise of one sample that the links state, in {@link #unit()}, at a value of the
     * measurand.
     */
    public double noiseAt(double measurand) {
        double sum = 0;
        for (int i = 0; i <= stages.size(); i++) {
            Link link = i < stages.size() ? stages.get(i).link() : converter.link();
            if (link.noise() != null) {
                double there = backward(
                                signal(measurand, Math.min(i + 1, stages.size())) + link.noise(),
                                Math.min(i + 1, stages.size()))
                        - measurand;
                sum += there * there;
            }
        }
        return Math.sqrt(sum);
    }

    private double backward(double signal, int from) {
        double v = signal;
        for (int i = from - 1; i >= 0; i--) {
            v = stages.get(i).backward(v);
        }
        return v;
    }

    /** The influences of a chain that no channel owns, for looking at one chain alone. */
    public List<Trace.Shared> shared() {
        return shared("");
    }

    /**
     * The influences of the chain that all its samples share: gains, offsets, constants, departures from the laws. They
     * belong to the channel: what a link is called carries no identity, and two gauges of one label have two errors.
     *
     * @param owner the channel, by its name in the sheet
     */
    public List<Trace.Shared> shared(String owner) {
        List<Trace.Shared> out = new ArrayList<>();
        List<Link> links = links();
        for (int i = 0; i < links.size(); i++) {
            Link link = links.get(i);
            String root = link.identity(owner, i);
            int at = i;
            for (String name : link.uncertain()) {
                List<Link> moved = new ArrayList<>(links);
                moved.set(i, link.moved(name, 1));
                Chain other = of(moved);
                out.add(new Trace.Shared(
                        Leaf.typeB(
                                root + "/" + name,
                                link.label() + ": " + name.replace('_', ' '),
                                link.label(),
                                distribution(link, name)),
                        v -> other.indication(exactCounts(v)) - v));
            }
            if (link.nonlinearity() != null && i < stages.size()) {
                double span = link.nonlinearity() / Math.sqrt(3) * Math.abs(stageSpan(i));
                out.add(new Trace.Shared(
                        Leaf.typeB(
                                root + "/nonlinearity",
                                link.label() + ": departure from its law",
                                link.label(),
                                Distribution.RECTANGULAR),
                        v -> backward(signal(v, at) + span, at) - v));
            }
        }
        return out;
    }

    private static Distribution distribution(Link link, String name) {
        return link.constant(name).distribution();
    }

    private double stageSpan(int i) {
        double[] reach = reach();
        return signal(reach[1], i) - signal(reach[0], i);
    }

    /** A measurand value as the chain can know it: with the chain's own influences and half a step of rounding. */
    public Quantity known(double measurand, String origin) {
        Quantity q = Quantity.exact(measurand, unit());
        for (Trace.Shared s : shared(origin)) {
            q = q.plus(Quantity.of(0, Math.abs(s.contribution().applyAsDouble(measurand)), difference(), s.leaf()));
        }
        return q.plus(Quantity.of(
                0,
                stepAt(measurand) / Math.sqrt(12),
                difference(),
                Leaf.typeB(
                        origin + "/step",
                        converter.label() + ": one step",
                        converter.label(),
                        Distribution.RECTANGULAR)));
    }

    /** The unit of a difference of two values of the measurand. */
    private LabUnit difference() {
        return unit().difference();
    }
}
