package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.hipparchus.distribution.continuous.FDistribution;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.MatrixUtils;

/**
 * The covariance of several output quantities (JCGM 102), which are never better known apart than together.
 *
 * @param outputs n quantities
 * @param matrix n by n covariances, each in the product of the two units
 * @param correlation n by n correlation coefficients; 0 beside a quantity without uncertainty
 */
public record Covariance(List<Quantity> outputs, double[][] matrix, double[][] correlation) {
    private static final double SINGULAR = 1e-9;

    public static Covariance of(List<Quantity> outputs) {
        int n = outputs.size();
        double[][] v = new double[n][n];
        double[][] r = new double[n][n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j <= i; j++) {
                v[i][j] = v[j][i] = outputs.get(i).covariance(outputs.get(j));
                r[i][j] = r[j][i] = i == j ? 1 : outputs.get(i).correlation(outputs.get(j));
            }
        }
        return new Covariance(List.copyOf(outputs), v, r);
    }

    /** True when some combination of the outputs has no uncertainty of its own: they are functions of each other. */
    public boolean isSingular() {
        return !bound().isEmpty();
    }

    /** Indices of the outputs that take part in a combination without uncertainty; empty when there is none. */
    public List<Integer> bound() {
        EigenDecompositionSymmetric eigen = new EigenDecompositionSymmetric(MatrixUtils.createRealMatrix(correlation));
        List<Integer> out = new ArrayList<>();
        for (int k = 0; k < outputs.size(); k++) {
            if (eigen.getEigenvalues()[k] < SINGULAR) {
                double[] vector = eigen.getEigenvector(k).toArray();
                for (int i = 0; i < vector.length; i++) {
                    if (Math.abs(vector[i]) > 1e-4 && !out.contains(i)) {
                        out.add(i);
                    }
                }
            }
        }
        out.sort(null);
        return List.copyOf(out);
    }

    /**
     * Coverage factor of the hyper-ellipsoidal coverage region (JCGM 102, 6.5.2): the region of outputs y with (y -
     * estimate)ᵀ V⁻¹ (y - estimate) at most the factor squared.
     *
     * @param dof degrees of freedom of the covariance, infinite when taken as known
     */
    public static double ellipsoidFactor(int outputs, double probability, double dof) {
        return Math.sqrt(
                Double.isInfinite(dof)
                        ? new ChiSquaredDistribution(outputs).inverseCumulativeProbability(probability)
                        : outputs * new FDistribution(outputs, dof).inverseCumulativeProbability(probability));
    }

    /**
     * Joint Monte Carlo of the outputs, so many draws (a multiple of 2000): n rows of draws, each in its output's unit.
     */
    public static double[][] draws(List<Quantity> outputs, int draws, long seed) {
        int row = 2000;
        DrawProgram program = new DrawProgram(outputs, true);
        LeafDraws source = new LeafDraws(program.leaves(), seed);
        double[][] registers = program.registers(row);
        double[][] leaves = new double[program.leaves().size()][row];
        double[][] out = new double[outputs.size()][draws];
        for (int at = 0; at < draws; at += row) {
            int n = Math.min(row, draws - at);
            source.fill(at / row, leaves, row);
            double[][] values = program.run(leaves, registers, row);
            for (int k = 0; k < out.length; k++) {
                System.arraycopy(values[k], 0, out[k], at, n);
            }
        }
        return out;
    }

    /**
     * Coverage factor of the ellipsoidal region found by Monte Carlo instead of from a distribution (JCGM 102, 7.7.2).
     */
    public double ellipsoidFactorByDraws(int draws, double probability, long seed) {
        if (isSingular()) {
            throw new ArithmeticException(
                    "These quantities are functions of each other; no region of full dimension covers them.");
        }
        double[][] d = draws(outputs, draws, seed);
        double[][] inverse =
                MatrixUtils.inverse(MatrixUtils.createRealMatrix(matrix)).getData();
        double[] distance = new double[draws];
        for (int i = 0; i < draws; i++) {
            for (int a = 0; a < d.length; a++) {
                for (int b = 0; b < d.length; b++) {
                    distance[i] += (d[a][i] - outputs.get(a).value())
                            * inverse[a][b]
                            * (d[b][i] - outputs.get(b).value());
                }
            }
        }
        Arrays.sort(distance);
        return Math.sqrt(distance[(int) Math.min(draws - 1, Math.round(probability * draws))]);
    }
}
