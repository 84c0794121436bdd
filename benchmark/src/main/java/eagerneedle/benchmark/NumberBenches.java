package eagerneedle.benchmark;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Value;
import eagerneedle.core.function.FormulaFit;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Segmentation;
import eagerneedle.core.trace.Trace;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.MultivariateJacobianFunction;
import org.hipparchus.util.Pair;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The number engine against straight loops, or against the numerical library alone. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 1)
@Measurement(iterations = 3, time = 1)
public class NumberBenches {
    private static final int DRAWS = 1_000_000;
    private static final int POINTS = 10_000;
    private static final String TEN = "(a + b) * c / (d + e0) + f * g - h^2 / (i + 5) + sin(j)";
    private final Map<String, Value> ten = new HashMap<>();
    private final double[] x = new double[POINTS];
    private final double[] y = new double[POINTS];
    private final Formula curve = Formula.parse("y = p + q * exp(-x / r) + s * x");
    private final Formula formula = Formula.parse(TEN);
    private Quantity drawn;
    private Trace steps;

    @Setup
    public void prepare() {
        int k = 0;
        for (String name : new String[] {"a", "b", "c", "d", "e0", "f", "g", "h", "i", "j"}) {
            Leaf leaf = Leaf.typeB(name, name, "bench", Distribution.NORMAL);
            ten.put(name, new Value.Scalar(Quantity.of(1 + 0.3 * k++, 0.05, LabUnit.ONE, leaf)));
        }
        drawn = evaluate();
        SplittableRandom random = new SplittableRandom(1);
        for (int i = 0; i < POINTS; i++) {
            x[i] = 10.0 * i / POINTS;
            y[i] = 1 + 5 * Math.exp(-x[i] / 2) + 0.1 * x[i] + 0.05 * random.nextGaussian();
        }
        double[] t = new double[300];
        double[] v = new double[300];
        for (int i = 0; i < 300; i++) {
            t[i] = 0.1 * i;
            v[i] = Math.abs(i % 100 - 50) * 0.1 + 0.02 * random.nextGaussian();
        }
        steps = new Trace("steps", t, v, LabUnit.parse("V"), 0, List.of());
    }

    private Quantity evaluate() {
        return ((Value.Scalar) formula.evaluate(eagerneedle.core.formula.Scope.over("bench", ten))).quantity();
    }

    @Benchmark
    public double monteCarloOfAMillion() {
        return MonteCarlo.of(drawn, Coverage.DEFAULT, MonteCarlo.Settings.DEFAULT.exactly(DRAWS))
                .sd();
    }

    @Benchmark
    public double plainDrawsOfAMillion() {
        SplittableRandom random = new SplittableRandom(2);
        double sum = 0;
        double squares = 0;
        double[] in = new double[10];
        for (int n = 0; n < DRAWS; n++) {
            for (int k = 0; k < 10; k++) {
                in[k] = 1 + 0.3 * k + 0.05 * random.nextGaussian();
            }
            double f = (in[0] + in[1]) * in[2] / (in[3] + in[4])
                    + in[5] * in[6]
                    - in[7] * in[7] / (in[8] + 5)
                    + Math.sin(in[9]);
            sum += f;
            squares += f * f;
        }
        return squares - sum * sum / DRAWS;
    }

    @Benchmark
    public Object formulaFit() {
        return FormulaFit.of(curve, Map.of("x", x, "y", y), Map.of("p", 0.5, "q", 4.0, "r", 1.0, "s", 0.0), null, null);
    }

    @Benchmark
    public Object libraryFit() {
        MultivariateJacobianFunction f = point -> {
            double p = point.getEntry(0);
            double q = point.getEntry(1);
            double r = point.getEntry(2);
            double s = point.getEntry(3);
            double[] value = new double[POINTS];
            double[][] jacobian = new double[POINTS][];
            for (int i = 0; i < POINTS; i++) {
                double e = Math.exp(-x[i] / r);
                value[i] = p + q * e + s * x[i];
                jacobian[i] = new double[] {1, e, q * e * x[i] / (r * r), x[i]};
            }
            return new Pair<>(new ArrayRealVector(value, false), MatrixUtils.createRealMatrix(jacobian));
        };
        return new LevenbergMarquardtOptimizer()
                .optimize(new LeastSquaresBuilder()
                        .start(new double[] {0.5, 4, 1, 0})
                        .target(y)
                        .model(f)
                        .maxEvaluations(1000)
                        .maxIterations(1000)
                        .build());
    }

    @Benchmark
    public Object changePoints() {
        return Segmentation.linearPieces(steps);
    }

    /** Cost of a straight line over every stretch, from running sums: what any exhaustive search does at least. */
    @Benchmark
    public double plainStretches() {
        int n = steps.size();
        double[] v = steps.value();
        double[] a = new double[n + 1];
        double[] b = new double[n + 1];
        double[] c = new double[n + 1];
        for (int i = 0; i < n; i++) {
            a[i + 1] = a[i] + v[i];
            b[i + 1] = b[i] + v[i] * i;
            c[i + 1] = c[i] + v[i] * v[i];
        }
        double total = 0;
        for (int end = 5; end <= n; end++) {
            for (int start = 0; start <= end - 5; start++) {
                double m = end - start;
                double w0 = a[end] - a[start];
                double w1 = b[end] - b[start] - (start + end - 1) / 2.0 * w0;
                total += c[end] - c[start] - w0 * w0 / m - w1 * w1 * 12 / (m * (m * m - 1));
            }
        }
        return total;
    }

    @Benchmark
    public Object formulaEvaluation() {
        return evaluate();
    }

    @Benchmark
    public double plainEvaluation() {
        double[] in = new double[10];
        for (int k = 0; k < 10; k++) {
            in[k] = ((Value.Scalar) ten.get("abcdefghij".substring(k, k + 1).replace("e", "e0")))
                    .quantity()
                    .value();
        }
        return (in[0] + in[1]) * in[2] / (in[3] + in[4])
                + in[5] * in[6]
                - in[7] * in[7] / (in[8] + 5)
                + Math.sin(in[9]);
    }
}
