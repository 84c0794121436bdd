package eagerneedle.core.arithmetic;

import eagerneedle.core.formula.Elementary;
import java.util.Objects;

/** The loops: one for each operation, and each way its operands can be rows or single numbers. */
final class Steps {
    private Steps() {}

    /** The step of two single numbers. */
    static double single(Node n, double a, double b) {
        return switch (n.does()) {
            case FUNCTION -> n.of().valueAt(a);
            case SLOPE -> n.of().slopeAt(a);
            default -> n.does().of(a, b);
        };
    }

    /**
     * The step of the first n rows.
     *
     * @param rows by node; null for those that are single numbers
     * @param single by node
     * @param out filled
     */
    static void rows(Node node, double[][] rows, double[] single, double[] out, int n) {
        double[] a = rows[node.a()];
        double[] b = node.b() < 0 ? null : rows[node.b()];
        if (node.b() < 0) {
            one(node, a, out, n);
        } else if (a != null && b != null) {
            both(node.does(), a, b, out, n);
        } else if (a != null) {
            withSingle(node.does(), a, single[node.b()], out, n);
        } else {
            ofSingle(node.does(), single[node.a()], Objects.requireNonNull(b), out, n);
        }
    }

    private static void one(Node node, double[] a, double[] out, int n) {
        switch (node.does()) {
            case NEGATE -> {
                for (int i = 0; i < n; i++) {
                    out[i] = -a[i];
                }
            }
            case SQRT -> {
                for (int i = 0; i < n; i++) {
                    out[i] = Math.sqrt(a[i]);
                }
            }
            case SLOPE -> {
                for (int i = 0; i < n; i++) {
                    out[i] = node.of().slopeAt(a[i]);
                }
            }
            default -> function(node.of(), a, out, n);
        }
    }

    private static void function(Elementary f, double[] a, double[] out, int n) {
        switch (f) {
            case EXP -> {
                for (int i = 0; i < n; i++) {
                    out[i] = Math.exp(a[i]);
                }
            }
            case LN -> {
                for (int i = 0; i < n; i++) {
                    out[i] = Math.log(a[i]);
                }
            }
            case SIN -> {
                for (int i = 0; i < n; i++) {
                    out[i] = Math.sin(a[i]);
                }
            }
            case COS -> {
                for (int i = 0; i < n; i++) {
                    out[i] = Math.cos(a[i]);
                }
            }
            default -> {
                for (int i = 0; i < n; i++) {
                    out[i] = f.valueAt(a[i]);
                }
            }
        }
    }

    private static void both(Op op, double[] a, double[] b, double[] out, int n) {
        switch (op) {
            case ADD -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] + b[i];
                }
            }
            case SUBTRACT -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] - b[i];
                }
            }
            case MULTIPLY -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] * b[i];
                }
            }
            case DIVIDE -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] / b[i];
                }
            }
            case CHAIN -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] == 0 ? 0 : a[i] * b[i];
                }
            }
            default -> {
                for (int i = 0; i < n; i++) {
                    out[i] = op.of(a[i], b[i]);
                }
            }
        }
    }

    private static void withSingle(Op op, double[] a, double b, double[] out, int n) {
        switch (op) {
            case ADD -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] + b;
                }
            }
            case SUBTRACT -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] - b;
                }
            }
            case MULTIPLY -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] * b;
                }
            }
            case DIVIDE -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] / b;
                }
            }
            case CHAIN -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a[i] == 0 ? 0 : a[i] * b;
                }
            }
            default -> {
                for (int i = 0; i < n; i++) {
                    out[i] = op.of(a[i], b);
                }
            }
        }
    }

    private static void ofSingle(Op op, double a, double[] b, double[] out, int n) {
        switch (op) {
            case ADD -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a + b[i];
                }
            }
            case SUBTRACT -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a - b[i];
                }
            }
            case MULTIPLY -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a * b[i];
                }
            }
            case DIVIDE -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a / b[i];
                }
            }
            case CHAIN -> {
                for (int i = 0; i < n; i++) {
                    out[i] = a == 0 ? 0 : a * b[i];
                }
            }
            default -> {
                for (int i = 0; i < n; i++) {
                    out[i] = op.of(a, b[i]);
                }
            }
        }
    }
}
