package eagerneedle.core.formula;

import eagerneedle.core.quantity.LabUnit;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A formula of plain numbers laid out for repeated evaluation with derivatives (forward mode), as fits need it.
 *
 * <p>Gives the same numbers as evaluating the formula in the language itself, some hundred times faster. Formulas that
 * need more of the language than arithmetic and elementary functions have no such layout.
 */
public final class CurveFormula {
    private interface Node {
        /** Fills {@code out}: the value and then the derivatives. */
        public void at(double[] in, double[] out);
    }

    private final Node root;
    private final int names;

    private CurveFormula(Node root, int names) {
        this.root = root;
        this.names = names;
    }

    /** The layout over these names in this order; empty where the formula needs more than plain arithmetic. */
    public static Optional<CurveFormula> of(Expr e, List<String> names) {
        Map<String, Integer> index = new HashMap<>();
        for (String n : names) {
            index.put(n, index.size());
        }
        Node root = lay(e, index);
        return root == null ? Optional.empty() : Optional.of(new CurveFormula(root, names.size()));
    }

    /**
     * Value and derivatives.
     *
     * @param in values by name, in the order given to {@link #of}
     * @param out room for one more than there are names: the value, then the derivative by each name
     */
    public void at(double[] in, double[] out) {
        root.at(in, out);
    }

    int names() {
        return names;
    }

    private static Node lay(Expr e, Map<String, Integer> index) {
        int m = index.size() + 1;
        if (e instanceof Expr.Literal l) {
            if (l.reading().u() != 0 || !l.reading().unit().equals(LabUnit.ONE)) {
                return null;
            }
            return constant(l.reading().value());
        } else if (e instanceof Expr.Name n) {
            Integer at = index.get(n.name());
            if (at == null) {
                Double c = Evaluator.CONSTANTS.get(n.name());
                return c == null ? null : constant(c);
            }
            return (in, out) -> {
                Arrays.fill(out, 0);
                out[0] = in[at];
                out[at + 1] = 1;
            };
        } else if (e instanceof Expr.Prefix p && !p.op().equals("not")) {
            Node a = lay(p.operand(), index);
            return a == null || p.op().equals("+")
                    ? a
                    : (in, out) -> {
                        a.at(in, out);
                        for (int k = 0; k < m; k++) {
                            out[k] = -out[k];
                        }
                    };
        } else if (e instanceof Expr.Infix i) {
            return infix(i, index, m);
        } else if (e instanceof Expr.Call c) {
            return call(c, index);
        }
        return null;
    }

    private static Node constant(double value) {
        return (in, out) -> {
            Arrays.fill(out, 0);
            out[0] = value;
        };
    }

    private static Node infix(Expr.Infix i, Map<String, Integer> index, int m) {
        Node a = lay(i.left(), index);
        Node b = lay(i.right(), index);
        if (a == null || b == null) {
            return null;
        }
        double[] y = new double[m];
        return switch (i.op()) {
            case "+", "-" -> {
                double sign = i.op().equals("+") ? 1 : -1;
                yield (in, out) -> {
                    a.at(in, out);
                    b.at(in, y);
                    for (int k = 0; k < m; k++) {
                        out[k] += sign * y[k];
                    }
                };
            }
            case "*" ->
                (in, out) -> {
                    a.at(in, out);
                    b.at(in, y);
                    for (int k = 1; k < m; k++) {
                        out[k] = out[k] * y[0] + out[0] * y[k];
                    }
                    out[0] *= y[0];
                };
            case "/" ->
                (in, out) -> {
                    a.at(in, out);
                    b.at(in, y);
                    double q = out[0] / y[0];
                    for (int k = 1; k < m; k++) {
                        out[k] = (out[k] - q * y[k]) / y[0];
                    }
                    out[0] = q;
                };
            case "^" ->
                (in, out) -> {
                    a.at(in, out);
                    b.at(in, y);
                    power(out, y, m);
                };
            default -> null;
        };
    }

    private static void power(double[] out, double[] exponent, int m) {
        double base = out[0];
        double p = exponent[0];
        double v = Math.pow(base, p);
        double byBase = p == 0 ? 0 : p * Math.pow(base, p - 1);
        for (int k = 1; k < m; k++) {
            double d = out[k] == 0 ? 0 : byBase * out[k];
            out[k] = exponent[k] == 0 ? d : d + v * Math.log(base) * exponent[k];
        }
        out[0] = v;
    }

    private static Node call(Expr.Call c, Map<String, Integer> index) {
        if (c.arguments().size() != 1 || c.arguments().get(0).name() != null) {
            return null;
        }
        Node a = lay(c.arguments().get(0).value(), index);
        Elementary f = c.function().equals("sqrt") ? null : Elementary.named(c.function());
        if (a == null || f == null && !c.function().equals("sqrt")) {
            return null;
        }
        return (in, out) -> {
            a.at(in, out);
            double x = out[0];
            double slope = f == null ? 0.5 / Math.sqrt(x) : f.slopeAt(x);
            out[0] = f == null ? Math.sqrt(x) : f.valueAt(x);
            for (int k = 1; k < out.length; k++) {
                out[k] = out[k] == 0 ? 0 : out[k] * slope;
            }
        };
    }
}
