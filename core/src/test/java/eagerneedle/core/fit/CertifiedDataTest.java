package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.function.FormulaFit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Parameters, standard uncertainties and residual SDs against published certified regression data (NIST statistical
 * reference data sets).
 */
class CertifiedDataTest {
    private static final double[][] NORRIS = {
        {0.1, 0.2},
        {338.8, 337.4},
        {118.1, 118.2},
        {888.0, 884.6},
        {9.2, 10.1},
        {228.1, 226.5},
        {668.5, 666.3},
        {998.5, 996.3},
        {449.1, 448.6},
        {778.9, 777.0},
        {559.2, 558.2},
        {0.3, 0.4},
        {0.1, 0.6},
        {778.1, 775.5},
        {668.8, 666.9},
        {339.3, 338.0},
        {448.9, 447.5},
        {10.8, 11.6},
        {557.7, 556.0},
        {228.3, 228.1},
        {998.0, 995.8},
        {888.8, 887.6},
        {119.6, 120.2},
        {0.3, 0.3},
        {0.6, 0.3},
        {557.6, 556.8},
        {339.3, 339.1},
        {888.0, 887.2},
        {998.5, 999.0},
        {778.9, 779.0},
        {10.2, 11.1},
        {117.6, 118.3},
        {228.9, 229.2},
        {668.4, 669.1},
        {449.2, 448.9},
        {0.2, 0.5}
    };

    private static final double[] PONTIUS_Y = {
        .11019, .21956, .32949, .43899, .54803, .65694, .76562, .87487, .98292, 1.09146, 1.20001, 1.30822, 1.41599,
        1.52399, 1.63194, 1.73947, 1.84646, 1.95392, 2.06128, 2.16844, .11052, .22018, .32939, .43886, .54798, .65739,
        .76596, .87474, .98300, 1.09150, 1.20004, 1.30818, 1.41613, 1.52408, 1.63159, 1.73965, 1.84696, 1.95445,
        2.06177, 2.16829
    };

    private static final double[] MISRA_Y = {
        10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.40, 75.47, 81.78
    };
    private static final double[] MISRA_X = {
        77.6, 114.9, 141.1, 190.8, 239.9, 289.0, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760.0
    };

    private static final double[] MGH09_Y = {
        0.1957, 0.1947, 0.1735, 0.16, 0.0844, 0.0627, 0.0456, 0.0342, 0.0323, 0.0235, 0.0246
    };
    private static final double[] MGH09_X = {4.0, 2.0, 1.0, 0.5, 0.25, 0.167, 0.125, 0.1, 0.0833, 0.0714, 0.0625};

    private static List<Quantity> numbers(double... values) {
        List<Quantity> out = new ArrayList<>();
        for (double v : values) {
            out.add(Quantity.number(v));
        }
        return out;
    }

    private static double[] column(double[][] data, int k) {
        double[] out = new double[data.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = data[i][k];
        }
        return out;
    }

    /** Log relative error: about the number of correct digits. */
    private static double digits(double got, double certified) {
        return got == certified ? 15 : -Math.log10(Math.abs(got - certified) / Math.abs(certified));
    }

    @Test
    void norris() {
        Fit f = PolynomialFit.ofPoints(
                numbers(column(NORRIS, 1)), numbers(column(NORRIS, 0)), 1, Scatter.FROM_RESIDUALS, "f", "scatter");
        assertThat(digits(f.parameter(0).value(), -0.262323073774029)).isGreaterThan(9);
        assertThat(digits(f.parameter(1).value(), 1.00211681802045)).isGreaterThan(9);
        assertThat(digits(f.parameter(0).u(), 0.232818234301152)).isGreaterThan(9);
        assertThat(digits(f.parameter(1).u(), 0.429796848199937e-3)).isGreaterThan(9);
        assertThat(digits(f.residualSd(), 0.884796396144373)).isGreaterThan(9);
        assertThat(f.dof()).isEqualTo(34);
    }

    @Test
    void pontius() {
        double[] x = new double[40];
        for (int i = 0; i < 40; i++) {
            x[i] = 150_000.0 * (i % 20 + 1);
        }
        Fit f = PolynomialFit.ofPoints(numbers(x), numbers(PONTIUS_Y), 2, Scatter.FROM_RESIDUALS, "f", "scatter");
        double[] certified = {0.673565789473684e-3, 0.732059160401003e-6, -0.316081871345029e-14};
        double[] u = {0.107938612033077e-3, 0.157817399981659e-9, 0.486652849992036e-16};
        for (int k = 0; k < 3; k++) {
            assertThat(digits(f.parameter(k).value(), certified[k]))
                    .as("coefficient " + k)
                    .isGreaterThan(9);
            assertThat(digits(f.parameter(k).u(), u[k])).as("uncertainty " + k).isGreaterThan(9);
        }
        assertThat(digits(f.residualSd(), 0.205177424076185e-3)).isGreaterThan(9);
    }

    @Test
    void lineThroughTheOrigin() {
        double[] x = new double[11];
        double[] y = new double[11];
        for (int i = 0; i < 11; i++) {
            x[i] = 60 + i;
            y[i] = 130 + i;
        }
        Fit f = FormulaFit.of(Formula.parse("y = b*x"), Map.of("x", x, "y", y), Map.of(), null, null);
        assertThat(digits(f.parameter(0).value(), 2.07438016528926)).isGreaterThan(9);
        assertThat(digits(f.parameter(0).u(), 0.165289256198347e-1)).isGreaterThan(9);
        assertThat(digits(f.residualSd(), 3.56753034006338)).isGreaterThan(9);
    }

    @ParameterizedTest
    @CsvSource({"500, 0.0001", "250, 0.0005"})
    void misraFromBothStarts(double b1, double b2) {
        Fit f = FormulaFit.of(
                Formula.parse("y = b1*(1 - exp(-b2*x))"),
                Map.of("x", MISRA_X, "y", MISRA_Y),
                Map.of("b1", b1, "b2", b2),
                null,
                null);
        assertThat(digits(f.parameter(0).value(), 2.3894212918e2)).isGreaterThan(6);
        assertThat(digits(f.parameter(1).value(), 5.5015643181e-4)).isGreaterThan(6);
        assertThat(digits(f.parameter(0).u(), 2.7070075241)).isGreaterThan(6);
        assertThat(digits(f.parameter(1).u(), 7.2668688436e-6)).isGreaterThan(6);
        assertThat(digits(f.residualSd(), 1.0187876330e-1)).isGreaterThan(6);
    }

    @ParameterizedTest
    @CsvSource({"25, 39, 41.5, 39", "0.25, 0.39, 0.415, 0.39"})
    void aRationalModelFromBothStarts(double b1, double b2, double b3, double b4) {
        Fit f = FormulaFit.of(
                Formula.parse("y = b1*(x^2 + x*b2) / (x^2 + x*b3 + b4)"),
                Map.of("x", MGH09_X, "y", MGH09_Y),
                Map.of("b1", b1, "b2", b2, "b3", b3, "b4", b4),
                null,
                null);
        double[] certified = {1.9280693458e-1, 1.9128232873e-1, 1.2305650693e-1, 1.3606233068e-1};
        double[] u = {1.1435312227e-2, 1.9633220911e-1, 8.0842031232e-2, 9.0025542308e-2};
        for (int k = 0; k < 4; k++) {
            int at = f.names().indexOf("b" + (k + 1));
            assertThat(digits(f.parameter(at).value(), certified[k]))
                    .as("b" + (k + 1))
                    .isGreaterThan(6);
            assertThat(digits(f.parameter(at).u(), u[k])).as("u of b" + (k + 1)).isGreaterThan(6);
        }
    }

    @Test
    void aFitThatCannotConvergeSaysSoAndGivesNoNumber() {
        assertThatThrownBy(() -> FormulaFit.of(
                        Formula.parse("y = b1*(1 - exp(-b2*x))"),
                        Map.of("x", MISRA_X, "y", MISRA_Y),
                        Map.of("b1", 1.0, "b2", 1e6),
                        null,
                        null))
                .isInstanceOf(FitException.class)
                .hasMessageContaining("did not converge");
        assertThatThrownBy(() -> FormulaFit.of(
                        Formula.parse("y = a + b + c*x"), Map.of("x", MISRA_X, "y", MISRA_Y), Map.of(), null, null))
                .isInstanceOf(FitException.class)
                .hasMessageContaining("cannot be told");
        assertThatThrownBy(() -> FormulaFit.of(
                        Formula.parse("y = a*x^2 + b*x + c"),
                        Map.of("x", new double[] {1, 2, 3}, "y", new double[] {1, 2, 3}),
                        Map.of(),
                        null,
                        null))
                .isInstanceOf(FitException.class)
                .hasMessageContaining("too few");
    }

    @Test
    void statedUncertaintiesWeightACurve() {
        double[] x = {0, 1, 2, 3};
        double[] y = {1.1, 2.9, 5.2, 6.8};
        double[] u = {0.1, 0.2, 0.1, 0.3};
        Fit curve = FormulaFit.of(Formula.parse("y = a + b*x"), Map.of("x", x, "y", y), Map.of(), null, u);
        List<Quantity> ys = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            ys.add(Quantity.of(
                    y[i],
                    u[i],
                    LabUnit.ONE,
                    Leaf.typeB("y" + i, "y", "", eagerneedle.core.quantity.Distribution.NORMAL)));
        }
        Fit line = PolynomialFit.ofPoints(numbers(x), ys, 1, Scatter.FROM_UNCERTAINTIES, "f", "scatter");
        for (int k = 0; k < 2; k++) {
            assertThat(digits(curve.parameter(k).value(), line.parameter(k).value()))
                    .isGreaterThan(9);
            assertThat(digits(curve.parameter(k).u(), line.parameter(k).u())).isGreaterThan(9);
        }
        assertThat(digits(curve.chiSquared(), line.chiSquared())).isGreaterThan(9);
    }

    /** Six nearly dependent regressors; Longley 1967. */
    @Test
    void severalRegressorsThatNearlyDependOnEachOther() {
        double[][] rows = {
            {60323, 83.0, 234289, 2356, 1590, 107608, 1947},
            {61122, 88.5, 259426, 2325, 1456, 108632, 1948},
            {60171, 88.2, 258054, 3682, 1616, 109773, 1949},
            {61187, 89.5, 284599, 3351, 1650, 110929, 1950},
            {63221, 96.2, 328975, 2099, 3099, 112075, 1951},
            {63639, 98.1, 346999, 1932, 3594, 113270, 1952},
            {64989, 99.0, 365385, 1870, 3547, 115094, 1953},
            {63761, 100.0, 363112, 3578, 3350, 116219, 1954},
            {66019, 101.2, 397469, 2904, 3048, 117388, 1955},
            {67857, 104.6, 419180, 2822, 2857, 118734, 1956},
            {68169, 108.4, 442769, 2936, 2798, 120445, 1957},
            {66513, 110.8, 444546, 4681, 2637, 121950, 1958},
            {68655, 112.6, 482704, 3813, 2552, 123366, 1959},
            {69564, 114.2, 502601, 3931, 2514, 125368, 1960},
            {69331, 115.7, 518173, 4806, 2572, 127852, 1961},
            {70551, 116.9, 554894, 4007, 2827, 130081, 1962}
        };
        Map<String, double[]> columns = new java.util.LinkedHashMap<>();
        columns.put("y", column(rows, 0));
        for (int k = 1; k <= 6; k++) {
            columns.put("x" + k, column(rows, k));
        }
        Fit f = FormulaFit.of(
                Formula.parse("y = b0 + b1*x1 + b2*x2 + b3*x3 + b4*x4 + b5*x5 + b6*x6"), columns, Map.of(), null, null);
        double[] certified = {
            -3482258.63459582,
            15.0618722713733,
            -0.358191792925910e-01,
            -2.02022980381683,
            -1.03322686717359,
            -0.511041056535807e-01,
            1829.15146461355
        };
        double[] u = {
            890420.383607373,
            84.9149257747669,
            0.334910077722432e-01,
            0.488399681651699,
            0.214274163161675,
            0.226073200069370,
            455.478499142212
        };
        for (int k = 0; k < 7; k++) {
            assertThat(digits(f.parameter(k).value(), certified[k])).as("b" + k).isGreaterThan(9);
            assertThat(digits(f.parameter(k).u(), u[k])).as("u(b" + k + ")").isGreaterThan(9);
        }
    }
}
