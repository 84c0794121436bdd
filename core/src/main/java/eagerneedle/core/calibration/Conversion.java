package eagerneedle.core.calibration;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.DoubleUnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * A calibration put to use: its coefficients are worked out once, and then turn any number of indications and traces
 * into the measurand.
 */
public final class Conversion {
    private final Calibration of;
    private final LabUnit span;
    private final List<Quantity> coefficients;
    private final double[] p;

    /** @throws eagerneedle.core.fit.FitException when the points do not determine the relation */
    public Conversion(Calibration calibration) {
        this.of = calibration;
        this.span = calibration.span();
        this.coefficients = calibration.coefficients();
        this.p = numbers(coefficients, span);
    }

    /** The measurand at an indication, with everything the calibration leaves uncertain. */
    public Quantity at(double indicated) {
        List<Quantity> c = coefficients;
        Quantity sum = Quantity.exact(0, span);
        double power = 1;
        for (int k = 0; k < c.size(); k++) {
            double coherent = k == 0 ? 1 : Math.pow(span.factor(), k - 1);
            sum = sum.plus(c.get(k).mapped(c.get(k).value() * power * coherent, span, power * coherent));
            power *= indicated;
        }
        Departure d = of.departure();
        return d.largest() == 0 || of.relation() != Relation.ADJUSTED
                ? sum
                : sum.with(
                        Leaf.typeB(
                                "calibration:" + of.id() + "/linearity",
                                of.channel() + ": linearity and hysteresis",
                                of.kind(),
                                Distribution.RECTANGULAR),
                        d.largest() / Math.sqrt(3));
    }

    /**
     * A trace of nominal indications turned into the measurand.
     *
     * @param chain the chain it was captured through; what of its influences the calibration does not take out stays.
     *     Null for none
     * @param started when the run began, for a drift that is taken out in proportion to time; null when that is not
     *     known
     */
    public Trace apply(Trace indicated, @Nullable Chain chain, @Nullable Instant started) {
        double[] v = new double[indicated.size()];
        List<Quantity> c = coefficients;
        Drift drift = drift(started, indicated);
        for (int i = 0; i < v.length; i++) {
            v[i] = value(p, indicated.value()[i]) - drift.correction(indicated.time()[i]);
        }
        double typical = v.length == 0 ? 0 : indicated.value()[v.length / 2];
        double slope = Math.abs((value(p, typical + 1e-6) - value(p, typical - 1e-6)) / 2e-6);
        List<Trace.Shared> shared = new ArrayList<>(remaining(chain, p));
        Quantity ends = at(typical);
        Set<Leaf> leaves = new TreeSet<>(ends.contributions().keySet());
        c.forEach(q -> leaves.addAll(q.contributions().keySet()));
        for (Leaf leaf : leaves) {
            double[] own = c.stream().mapToDouble(q -> q.contribution(leaf)).toArray();
            double constant =
                    own.length > 0 && java.util.Arrays.stream(own).allMatch(x -> x == 0) ? ends.contribution(leaf) : 0;
            double[] powers = new double[own.length];
            for (int k = 0; k < own.length; k++) {
                powers[k] = own[k] * (k == 0 ? 1 : Math.pow(span.factor(), k - 1));
            }
            shared.add(new Trace.Shared(leaf, effect(constant, powers)));
        }
        drift.leaf().ifPresent(l -> shared.add(new Trace.Shared(l, value -> drift.u())));
        return new Trace(indicated.name(), indicated.time(), v, indicated.unit(), indicated.step() * slope, shared);
    }

    /** What an influence does to a sample that has a value; a calibration by a line is turned round at once. */
    private DoubleUnaryOperator effect(double constant, double[] powers) {
        if (p.length != 2 || p[1] == 0 || powers.length != 2) {
            return value -> constant + value(powers, inverse(p, value));
        }
        double zero = p[0];
        double factor = p[1];
        double first = powers[0];
        double second = powers[1];
        return value -> constant + (second * ((value - zero) / factor) + first);
    }

    static double value(double[] p, double x) {
        double v = 0;
        for (int k = p.length - 1; k >= 0; k--) {
            v = v * x + p[k];
        }
        return v;
    }

    /** The indication that gives a value, near the value itself: an indicator is never far off. */
    private static double inverse(double[] p, double value) {
        double x = p.length > 1 && p[1] != 0 ? (value - p[0]) / p[1] : value;
        for (int i = 0; i < 20 && p.length > 2; i++) {
            double slope = 0;
            for (int k = p.length - 1; k >= 1; k--) {
                slope = slope * x + k * p[k];
            }
            double next = x - (value(p, x) - value) / slope;
            if (Math.abs(next - x) < 1e-14 * (1 + Math.abs(x))) {
                return next;
            }
            x = next;
        }
        return x;
    }

    /**
     * The chain's own influences as far as the calibration does not take them out: an offset takes out what they do at
     * the point where it was found, a factor what they do in proportion; a line and an adjusted indicator leave
     * nothing.
     */
    private List<Trace.Shared> remaining(@Nullable Chain chain, double[] p) {
        if (chain == null || of.relation() != Relation.OFFSET && of.relation() != Relation.FACTOR) {
            return List.of();
        }
        double at = of.points().stream()
                .mapToDouble(CalibrationPoint::indication)
                .reduce(0, (a, b) -> Math.abs(b) > Math.abs(a) ? b : a);
        List<Trace.Shared> left = new ArrayList<>();
        for (Trace.Shared s : chain.shared(of.channel())) {
            double there = s.contribution().applyAsDouble(at);
            left.add(new Trace.Shared(s.leaf(), v -> {
                double indicated = inverse(p, v);
                return s.contribution().applyAsDouble(indicated)
                        - (of.relation() == Relation.OFFSET ? there : indicated * there / at);
            }));
        }
        return left;
    }

    /**
     * The drift found after use: mean error of the points of the check by this calibration, in {@link #unit()}; empty
     * without a check.
     */
    public Optional<Quantity> driftFound() {
        if (of.after() == null || of.after().points().isEmpty()) {
            return Optional.empty();
        }
        Quantity sum = Quantity.exact(0, span);
        for (int i = 0; i < of.after().points().size(); i++) {
            CalibrationPoint p = of.after().points().get(i);
            Quantity measured = at(p.indication())
                    .keeping(l -> false)
                    .with(
                            Leaf.typeA(
                                    "calibration:" + of.id() + "/after" + i,
                                    of.channel() + ": check after use",
                                    of.kind(),
                                    Math.max(1, p.samples() - 1)),
                            p.uIndication());
            sum = sum.plus(measured.minus(of.reference(of.after().points(), i, "after")));
        }
        return Optional.of(sum.scaled(1.0 / of.after().points().size()));
    }

    private record Drift(double start, double perSecond, double u, Optional<Leaf> leaf) {
        double correction(double time) {
            return start + perSecond * time;
        }
    }

    private Drift drift(@Nullable Instant started, Trace trace) {
        Quantity found = driftFound().orElse(null);
        AfterUse after = of.after();
        if (found == null || after == null || after.use() == AfterUse.Use.TELL) {
            return new Drift(0, 0, 0, Optional.empty());
        }
        Leaf leaf = Leaf.typeB(
                "calibration:" + of.id() + "/drift",
                of.channel() + ": drift until the check after use",
                of.kind(),
                Distribution.RECTANGULAR);
        double between = Duration.between(of.taken(), after.taken()).toMillis() / 1000.0;
        if (after.use() == AfterUse.Use.INFLUENCE || started == null || between <= 0) {
            return new Drift(0, 0, Math.abs(found.value()) / Math.sqrt(3), Optional.of(leaf));
        }
        double per = found.value() / between;
        double begin = Math.max(
                0, Math.min(between, Duration.between(of.taken(), started).toMillis() / 1000.0));
        double middle = trace.size() == 0 ? 0 : (begin + trace.time()[trace.size() / 2]) / between;
        return new Drift(per * begin, per, found.u() * Math.min(1, middle), Optional.of(leaf));
    }

    /**
     * Coefficients as plain numbers, so that the measurand in {@link #unit()} is their polynomial in the indication in
     * that unit.
     */
    static double[] numbers(List<Quantity> coefficients, LabUnit span) {
        double[] p = coefficients.stream().mapToDouble(Quantity::value).toArray();
        for (int k = 1; k < p.length; k++) {
            p[k] *= Math.pow(span.factor(), k - 1);
        }
        return p;
    }
}
