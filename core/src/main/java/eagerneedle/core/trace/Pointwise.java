package eagerneedle.core.trace;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BinaryOperator;
import java.util.function.UnaryOperator;

/**
 * Arithmetic on traces, sample by sample. Units, domains and derivatives are those of quantities: each sample is
 * reckoned with as one whose uncertainty is 1, so that what becomes of it is the derivative, and what samples share
 * goes through by the chain rule.
 */
public final class Pointwise {
    private static final Leaf FIRST = Leaf.typeA("pointwise:1", "first", "pointwise", Double.POSITIVE_INFINITY);
    private static final Leaf SECOND = Leaf.typeA("pointwise:2", "second", "pointwise", Double.POSITIVE_INFINITY);

    private Pointwise() {}

    /** A function of every sample. */
    public static Trace of(String name, Trace a, UnaryOperator<Quantity> f) {
        return of(name, a, Quantity.exact(0, LabUnit.ONE), false, (x, y) -> f.apply(x));
    }

    /** Of every sample of a trace and one quantity; the quantity first where it is said so. */
    public static Trace of(String name, Trace a, Quantity q, boolean quantityFirst, BinaryOperator<Quantity> f) {
        double[] alike = new double[a.size()];
        Arrays.fill(alike, q.value());
        List<Trace.Shared> shared = new ArrayList<>();
        q.contributions().forEach((leaf, c) -> shared.add(new Trace.Shared(leaf, v -> q.contribution(leaf))));
        Trace constant = new Trace(name, a.time(), alike, q.unit(), 0, shared);
        return combined(name, a, constant, quantityFirst ? (x, y) -> f.apply(y, x) : f);
    }

    /**
     * Of two traces on the clock of the first, over the time that both cover; the second is straight between its
     * samples.
     *
     * @throws IllegalArgumentException where they have no time in common
     */
    public static Trace of(String name, Trace a, Trace b, BinaryOperator<Quantity> f) {
        if (share(a, b)) {
            return combined(name, a, b, f);
        }
        if (a.size() == 0 || b.size() == 0) {
            throw new IllegalArgumentException("One of the traces holds no samples.");
        }
        int from = a.indexAt(b.time()[0]);
        int to = from;
        while (to < a.size() && a.time()[to] <= b.time()[b.size() - 1]) {
            to++;
        }
        if (to <= from) {
            throw new IllegalArgumentException(
                    "The traces " + a.name() + " and " + b.name() + " have no time in common.");
        }
        return combined(name, a.slice(from, to), b, f);
    }

    /** True when both have the same clock, so that nothing has to be read between samples. */
    public static boolean share(Trace a, Trace b) {
        return Arrays.equals(a.time(), b.time());
    }

    private static Trace combined(String name, Trace a, Trace b, BinaryOperator<Quantity> f) {
        int n = a.size();
        double[] value = new double[n];
        double[] byA = new double[n];
        double[] byB = new double[n];
        LabUnit unit = LabUnit.ONE;
        double squares = 0;
        // An exact number stays one: some exponents have to be.
        boolean isExact = b.time() == a.time() && b.shared().isEmpty() && b.step() == 0 && isConstant(b);
        for (int i = 0; i < n; i++) {
            double y = b.valueAt(a.time()[i]);
            Quantity second = isExact ? Quantity.exact(y, b.unit()) : Quantity.of(y, 1, b.unit(), SECOND);
            Quantity r = f.apply(Quantity.of(a.value()[i], 1, a.unit(), FIRST), second);
            unit = i == 0 ? r.unit() : unit;
            value[i] = r.value();
            byA[i] = r.contribution(FIRST);
            byB[i] = r.contribution(SECOND);
            squares += Math.pow(byA[i] * a.step(), 2) + Math.pow(byB[i] * b.step(), 2);
        }
        Map<Leaf, double[]> each = new LinkedHashMap<>();
        act(a, a, byA, each);
        act(b, a, byB, each);
        List<Trace.Shared> shared = new ArrayList<>();
        each.forEach((leaf, c) -> {
            if (Arrays.stream(c).anyMatch(v -> v != 0)) {
                shared.add(Trace.Shared.oneByOne(leaf, a.time(), c));
            }
        });
        return new Trace(name, a.time().clone(), value, unit, n == 0 ? 0 : Math.sqrt(squares / n), shared);
    }

    private static boolean isConstant(Trace t) {
        for (double v : t.value()) {
            if (v != t.value()[0]) {
                return false;
            }
        }
        return true;
    }

    /** Adds what the influences of an operand do through its derivatives. */
    private static void act(Trace of, Trace clock, double[] by, Map<Leaf, double[]> each) {
        for (Trace.Shared s : of.shared()) {
            double[] sum = each.computeIfAbsent(s.leaf(), l -> new double[by.length]);
            for (int i = 0; i < by.length; i++) {
                double t = clock.time()[i];
                sum[i] += by[i] * s.at(t, of.valueAt(t));
            }
        }
    }
}
