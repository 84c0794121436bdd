package eagerneedle.core.arithmetic;

import eagerneedle.core.formula.Expr;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A formula of plain numbers and its derivatives, compiled to arithmetic on arrays.
 *
 * <p>Gives the same numbers as evaluating the formula in the language itself, to rounding, at the speed of loops
 * written by hand: names are scalars, alike for all rows, or columns; what follows from scalars alone is worked out
 * once a call, the rest in blocks of rows that stay in the processor's first cache. Derivatives are those of the rules
 * of differentiation (not differences), built from the same values. Immutable; used from any thread.
 *
 * <p>Formulas that need more of the language than arithmetic and elementary functions have no program.
 */
public final class Program {
    private static final int BLOCK = 512;

    private final Node[] nodes;
    private final int[] outputs;

    private Program(List<Node> nodes, int[] outputs) {
        this.nodes = nodes.toArray(Node[]::new);
        this.outputs = outputs;
    }

    /**
     * Compiles a formula: its value and the derivatives by all scalars and then by all columns.
     *
     * @param scalars names that are alike for all rows
     * @param columns names that have a value a row
     * @return empty where the formula needs more than plain arithmetic
     */
    public static Optional<Program> of(Expr e, List<String> scalars, List<String> columns) {
        return of(e, scalars, columns, false);
    }

    /**
     * Compiles a formula of quantities, whose names stand for numbers in coherent units; so is its value. Whether its
     * units fit is not looked at here.
     */
    public static Optional<Program> inCoherentUnits(Expr e, List<String> scalars, List<String> columns) {
        return of(e, scalars, columns, true);
    }

    private static Optional<Program> of(Expr e, List<String> scalars, List<String> columns, boolean units) {
        Map<String, Node> names = new HashMap<>();
        for (int k = 0; k < scalars.size(); k++) {
            names.put(scalars.get(k), Node.scalar(k));
        }
        for (int k = 0; k < columns.size(); k++) {
            names.put(columns.get(k), Node.column(k));
        }
        Compiler compiler = new Compiler(names, units);
        int value = compiler.value(e);
        if (value < 0) {
            return Optional.empty();
        }
        int[] outputs = new int[1 + scalars.size() + columns.size()];
        outputs[0] = value;
        for (int k = 1; k < outputs.length; k++) {
            Node by = k <= scalars.size() ? Node.scalar(k - 1) : Node.column(k - 1 - scalars.size());
            outputs[k] = compiler.derivative(value, by, new HashMap<>());
        }
        return Optional.of(new Program(compiler.nodes(), outputs));
    }

    /** How many arrays {@link #run} can fill: one for the value and one for each derivative. */
    public int outputs() {
        return outputs.length;
    }

    /**
     * Computes n rows.
     *
     * @param scalars their values
     * @param columns n values each
     * @param from index of the first row
     * @param to index behind the last row
     * @param out value and derivatives, in the order of {@link #of}, to be filled at the same rows; null for those not
     *     wanted
     */
    public void run(double[] scalars, double[][] columns, int from, int to, double[][] out) {
        boolean[] wanted = wanted(out);
        double[] single = new double[nodes.length];
        double[][] rows = new double[nodes.length][];
        for (int i = 0; i < nodes.length; i++) {
            Node n = nodes[i];
            if (!wanted[i]) {
                continue;
            }
            switch (n.kind()) {
                case CONSTANT -> single[i] = n.number();
                case SCALAR -> single[i] = scalars[n.input()];
                case COLUMN -> rows[i] = new double[Math.min(BLOCK, to - from)];
                case STEP -> {
                    if (n.rows()) {
                        rows[i] = new double[Math.min(BLOCK, to - from)];
                    } else {
                        single[i] = Steps.single(n, single[n.a()], n.b() < 0 ? 0 : single[n.b()]);
                    }
                }
            }
        }
        for (int start = from; start < to; start += BLOCK) {
            int n = Math.min(BLOCK, to - start);
            for (int i = 0; i < nodes.length; i++) {
                Node node = nodes[i];
                if (rows[i] != null && node.kind() == Node.Kind.COLUMN) {
                    System.arraycopy(columns[node.input()], start, rows[i], 0, n);
                } else if (rows[i] != null) {
                    Steps.rows(node, rows, single, rows[i], n);
                }
            }
            for (int k = 0; k < out.length; k++) {
                if (out[k] != null && rows[outputs[k]] != null) {
                    System.arraycopy(rows[outputs[k]], 0, out[k], start, n);
                } else if (out[k] != null) {
                    Arrays.fill(out[k], start, start + n, single[outputs[k]]);
                }
            }
        }
    }

    /** How many numbers {@link #one} needs room for. */
    public int room() {
        return nodes.length;
    }

    /**
     * Computes one row: what follows a curve step by step asks for so many of them that arrays would cost more than the
     * arithmetic.
     *
     * @param scalars their values
     * @param row value of each column
     * @param room at least {@link #room} numbers, overwritten
     * @param out value and all derivatives, in the order of {@link #of}, filled
     */
    public void one(double[] scalars, double[] row, double[] room, double[] out) {
        for (int i = 0; i < nodes.length; i++) {
            Node n = nodes[i];
            room[i] = switch (n.kind()) {
                case CONSTANT -> n.number();
                case SCALAR -> scalars[n.input()];
                case COLUMN -> row[n.input()];
                case STEP -> Steps.single(n, room[n.a()], n.b() < 0 ? 0 : room[n.b()]);
            };
        }
        for (int k = 0; k < outputs.length; k++) {
            out[k] = room[outputs[k]];
        }
    }

    private boolean[] wanted(double[][] out) {
        boolean[] wanted = new boolean[nodes.length];
        for (int k = 0; k < out.length; k++) {
            if (out[k] != null) {
                wanted[outputs[k]] = true;
            }
        }
        for (int i = nodes.length - 1; i >= 0; i--) {
            if (wanted[i] && nodes[i].kind() == Node.Kind.STEP) {
                wanted[nodes[i].a()] = true;
                if (nodes[i].b() >= 0) {
                    wanted[nodes[i].b()] = true;
                }
            }
        }
        return wanted;
    }
}
