package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.MatrixUtils;

/**
 * Input quantities whose correlation is declared rather than derived (JCGM 100, 5.2.2; JCGM 101, 6.4.8).
 *
 * <p>The correlation matrix is split by its symmetric square root into independent leaves, one an input, each mostly
 * that input's own. From then on covariance, budget, degrees of freedom and Monte Carlo (jointly normal) follow as for
 * everything else.
 */
public final class Correlated {
    private Correlated() {}

    /**
     * Declares n inputs.
     *
     * @param inputs n quantities; their standard uncertainties count, their lineage is replaced
     * @param correlation n by n correlation coefficients, symmetric with ones on the diagonal
     * @param ids n leaf ids
     * @param labels n labels for budgets
     * @throws IllegalArgumentException when the matrix is not a correlation matrix
     */
    public static List<Quantity> of(
            List<Quantity> inputs, double[][] correlation, List<String> ids, List<String> labels) {
        int n = inputs.size();
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                double r = correlation[i][j];
                if (!(Math.abs(r) <= 1) || correlation[j][i] != r || i == j && r != 1) {
                    throw new IllegalArgumentException(
                            "A correlation lies between -1 and 1, the same both ways, and is 1 of a quantity "
                                    + "with itself; it is "
                                    + r + " between " + labels.get(i) + " and " + labels.get(j) + ".");
                }
            }
        }
        EigenDecompositionSymmetric eigen = new EigenDecompositionSymmetric(MatrixUtils.createRealMatrix(correlation));
        for (double value : eigen.getEigenvalues()) {
            if (value < -1e-10) {
                throw new IllegalArgumentException(
                        "The declared correlations contradict one another; no set of quantities can have them all.");
            }
        }
        double[][] root = new double[n][n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                for (int k = 0; k < n; k++) {
                    root[i][j] += eigen.getV().getEntry(i, k)
                            * Math.sqrt(Math.max(0, eigen.getEigenvalues()[k]))
                            * eigen.getV().getEntry(j, k);
                }
            }
        }
        List<Quantity> out = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Quantity q = Quantity.exact(inputs.get(i).value(), inputs.get(i).unit());
            for (int j = 0; j < n; j++) {
                q = q.with(
                        Leaf.typeB(ids.get(j), labels.get(j), "declared correlation", Distribution.NORMAL),
                        inputs.get(i).u() * root[i][j]);
            }
            out.add(q);
        }
        return List.copyOf(out);
    }
}
