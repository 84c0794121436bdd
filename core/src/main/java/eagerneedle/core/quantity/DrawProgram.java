package eagerneedle.core.quantity;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;

/**
 * The graph behind some quantities, laid out as steps that each work on a whole row of draws at once.
 *
 * <p>A row is short enough to stay in the processor's cache, so that a formula of ten inputs costs little more than
 * drawing them. Every quantity of the graph is computed once per row, however often it is used.
 */
final class DrawProgram {
    /** Fills register {@code out} for the first n draws. */
    private interface Step {
        void run(double[][] registers, double[][] leaves, int n, double[] out);
    }

    private static final int MANY = 8;
    private static final double NEARLY = 30;

    private final List<Leaf> leaves = new ArrayList<>();
    private final Map<Leaf, Integer> leafIndex = new LinkedHashMap<>();
    private final List<Step> steps = new ArrayList<>();
    private final IdentityHashMap<Quantity, Integer> register = new IdentityHashMap<>();
    private final int[] outputs;
    private volatile double largest;

    private final IdentityHashMap<Quantity, Map<Leaf, Double>> together = new IdentityHashMap<>();

    /** The graph leaf by leaf. */
    DrawProgram(List<Quantity> of) {
        this(of, false);
    }

    /** @param joint true when many nearly normal leaves may be drawn as the few sums in which they are used */
    DrawProgram(List<Quantity> of, boolean joint) {
        if (joint) {
            drawTogether(of);
        }
        of.forEach(this::layOut);
        outputs = of.stream().mapToInt(register::get).toArray();
    }

    /**
     * The scatters of thirty runs reach a result through two parameters of one line; drawing thirty leaves for two sums
     * would cost more than all the rest. So nearly normal leaves are replaced by as many as there are sums, with the
     * same covariance (Cholesky).
     */
    private void drawTogether(List<Quantity> of) {
        List<Quantity> sums = new ArrayList<>();
        IdentityHashMap<Quantity, Boolean> seen = new IdentityHashMap<>();
        Deque<Quantity> waiting = new ArrayDeque<>(of);
        while (!waiting.isEmpty()) {
            Quantity q = waiting.pop();
            if (seen.put(q, true) == null) {
                if (q.recipe() == null) {
                    sums.add(q);
                }
                for (Quantity part : parts(q)) {
                    waiting.push(part);
                }
            }
        }
        java.util.Set<Leaf> normal = new java.util.TreeSet<>();
        sums.forEach(q -> q.contributions().keySet().stream()
                .filter(DrawProgram::nearlyNormal)
                .forEach(normal::add));
        List<Quantity> using = sums.stream()
                .filter(q -> q.contributions().keySet().stream().anyMatch(normal::contains))
                .toList();
        if (normal.size() <= Math.max(MANY, 2 * using.size())) {
            return;
        }
        List<Quantity> only =
                using.stream().map(q -> q.keeping(normal::contains)).toList();
        double[][] l = new double[only.size()][only.size()];
        Digest digest = new Digest();
        normal.forEach(leaf -> digest.add(leaf.id()));
        List<Leaf> drawn = new ArrayList<>();
        for (int i = 0; i < l.length; i++) {
            double all = only.get(i).covariance(only.get(i));
            double rest = all;
            for (int j = 0; j < i; j++) {
                double c = only.get(i).covariance(only.get(j));
                for (int k = 0; k < j; k++) {
                    c -= l[i][k] * l[j][k];
                }
                l[i][j] = l[j][j] > 0 ? c / l[j][j] : 0;
                rest -= l[i][j] * l[i][j];
            }
            l[i][i] = rest > 1e-12 * all ? Math.sqrt(rest) : 0;
            drawn.add(Leaf.typeB("drawn together " + digest + "#" + i, "drawn together", "", Distribution.NORMAL));
        }
        for (int i = 0; i < l.length; i++) {
            Map<Leaf, Double> c = new LinkedHashMap<>(using.get(i).contributions());
            c.keySet().removeAll(normal);
            for (int j = 0; j <= i; j++) {
                if (l[i][j] != 0) {
                    c.put(drawn.get(j), l[i][j]);
                }
            }
            together.put(using.get(i), c);
        }
    }

    private static boolean nearlyNormal(Leaf leaf) {
        return leaf.seen() == null
                && (leaf.distribution() == Distribution.NORMAL
                        || leaf.distribution() == Distribution.STUDENT_T && leaf.dof() >= NEARLY);
    }

    /** The leaves the quantities rest on; rows of leaf draws come in this order. */
    List<Leaf> leaves() {
        return leaves;
    }

    /** The largest number met on the way in some draw, against which differences are rounding. */
    double largest() {
        return largest;
    }

    double[][] registers(int longest) {
        return new double[steps.size()][longest];
    }

    /**
     * Computes n draws of every output.
     *
     * @param draws one row a leaf, standardised
     * @param registers room from {@link #registers}, overwritten
     * @return the register of each output
     */
    double[][] run(double[][] draws, double[][] registers, int n) {
        for (int s = 0; s < registers.length; s++) {
            steps.get(s).run(registers, draws, n, registers[s]);
        }
        if (largest == 0) {
            for (double[] register : registers) {
                largest = Math.max(largest, Double.isFinite(register[0]) ? Math.abs(register[0]) : 0);
            }
        }
        double[][] out = new double[outputs.length][];
        for (int i = 0; i < out.length; i++) {
            out[i] = registers[outputs[i]];
        }
        return out;
    }

    /** Depth first without recursion: a sum over a long column is a deep graph. */
    private void layOut(Quantity of) {
        Deque<Quantity> waiting = new ArrayDeque<>();
        waiting.push(of);
        while (!waiting.isEmpty()) {
            Quantity q = waiting.peek();
            boolean ready = true;
            for (Quantity part : parts(q)) {
                if (!register.containsKey(part)) {
                    waiting.push(part);
                    ready = false;
                }
            }
            if (ready) {
                waiting.pop();
                if (!register.containsKey(q)) {
                    steps.add(step(q));
                    register.put(q, steps.size() - 1);
                }
            }
        }
    }

    private static Quantity[] parts(Quantity q) {
        Recipe r = q.recipe();
        return r == null
                ? new Quantity[0]
                : r instanceof Recipe.Sum s
                        ? s.parts()
                        : r instanceof Recipe.Product p
                                ? new Quantity[] {p.a(), p.b()}
                                : r instanceof Recipe.Quotient d
                                        ? new Quantity[] {d.a(), d.b()}
                                        : r instanceof Recipe.Unary u
                                                ? new Quantity[] {u.of()}
                                                : ((Recipe.Nary) r).of();
    }

    /** The register that a quantity was laid out in before those that are made of it. */
    private int at(Quantity q) {
        return Objects.requireNonNull(register.get(q));
    }

    private Step step(Quantity q) {
        Recipe r = q.recipe();
        if (r == null) {
            return linear(q);
        } else if (r instanceof Recipe.Sum s) {
            return sum(s);
        } else if (r instanceof Recipe.Product p) {
            int a = at(p.a());
            int b = at(p.b());
            return (regs, z, n, out) -> {
                double[] x = regs[a];
                double[] y = regs[b];
                for (int i = 0; i < n; i++) {
                    out[i] = x[i] * y[i];
                }
            };
        } else if (r instanceof Recipe.Quotient d) {
            int a = at(d.a());
            int b = at(d.b());
            return (regs, z, n, out) -> {
                double[] x = regs[a];
                double[] y = regs[b];
                for (int i = 0; i < n; i++) {
                    out[i] = x[i] / y[i];
                }
            };
        } else if (r instanceof Recipe.Unary u) {
            int a = at(u.of());
            DoubleUnaryOperator f = u.f();
            return (regs, z, n, out) -> {
                double[] x = regs[a];
                for (int i = 0; i < n; i++) {
                    out[i] = f.applyAsDouble(x[i]);
                }
            };
        }
        return nary((Recipe.Nary) r);
    }

    private Step linear(Quantity q) {
        Map<Leaf, Double> contributions = together.getOrDefault(q, q.contributions());
        int[] which = new int[contributions.size()];
        double[] c = new double[which.length];
        int k = 0;
        for (Map.Entry<Leaf, Double> e : contributions.entrySet()) {
            which[k] = leafIndex.computeIfAbsent(e.getKey(), leaf -> {
                leaves.add(leaf);
                return leaves.size() - 1;
            });
            c[k++] = e.getValue();
        }
        double value = q.value();
        if (which.length == 1) {
            int only = which[0];
            double factor = c[0];
            return (regs, z, n, out) -> {
                double[] draws = z[only];
                for (int i = 0; i < n; i++) {
                    out[i] = value + factor * draws[i];
                }
            };
        }
        return (regs, z, n, out) -> {
            java.util.Arrays.fill(out, 0, n, value);
            for (int j = 0; j < which.length; j++) {
                double[] draws = z[which[j]];
                double factor = c[j];
                for (int i = 0; i < n; i++) {
                    out[i] += factor * draws[i];
                }
            }
        };
    }

    private Step sum(Recipe.Sum s) {
        int[] at = new int[s.parts().length];
        for (int i = 0; i < at.length; i++) {
            at[i] = at(s.parts()[i]);
        }
        if (at.length == 2) {
            double f = s.factors()[0];
            double g = s.factors()[1];
            double offset = s.offset();
            return (regs, z, n, out) -> {
                double[] x = regs[at[0]];
                double[] y = regs[at[1]];
                for (int i = 0; i < n; i++) {
                    out[i] = offset + f * x[i] + g * y[i];
                }
            };
        }
        return (regs, z, n, out) -> {
            java.util.Arrays.fill(out, 0, n, s.offset());
            for (int j = 0; j < at.length; j++) {
                double[] x = regs[at[j]];
                double factor = s.factors()[j];
                for (int i = 0; i < n; i++) {
                    out[i] += factor * x[i];
                }
            }
        };
    }

    private Step nary(Recipe.Nary r) {
        int[] at = new int[r.of().length];
        for (int i = 0; i < at.length; i++) {
            at[i] = at(r.of()[i]);
        }
        ToDoubleFunction<double[]> f = r.f();
        return (regs, z, n, out) -> {
            double[] arguments = new double[at.length];
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < at.length; j++) {
                    arguments[j] = regs[at[j]][i];
                }
                out[i] = f.applyAsDouble(arguments);
            }
        };
    }
}
