package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.function.FormulaFit;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Curves: errors in both variables, generalised least squares, named models, predictions and second opinions. */
class CurveFitTest {
    private static final LabUnit S = LabUnit.SECOND;
    private static final LabUnit V = LabUnit.parse("V");
    private static final double[] PEARSON_X = {0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4};
    private static final double[] PEARSON_Y = {5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5};
    private static final double[] YORK_WX = {1000, 1000, 500, 800, 200, 80, 60, 20, 1.8, 1};
    private static final double[] YORK_WY = {1, 1.8, 4, 8, 20, 20, 70, 70, 100, 500};

    private static Quantity own(String id, double value, double u, LabUnit unit) {
        return u == 0
                ? Quantity.exact(value, unit)
                : Quantity.of(value, u, unit, Leaf.typeB(id, id, "", Distribution.NORMAL));
    }

    private static List<Quantity> exact(LabUnit unit, double... v) {
        return Arrays.stream(v).mapToObj(x -> Quantity.exact(x, unit)).toList();
    }

    private static double[] inverseRoots(double[] w) {
        return Arrays.stream(w).map(x -> 1 / Math.sqrt(x)).toArray();
    }

    /**
     * Pearson's points with York's weights; York, Evensen, Martinez and Delgado 2004, American Journal of Physics 72,
     * 367.
     */
    @Test
    void errorsInBothVariablesOnTheClassicalPoints() {
        Fit columns = FormulaFit.of(
                Formula.parse("y = a + b*x"),
                Map.of("x", PEARSON_X, "y", PEARSON_Y),
                Map.of(),
                inverseRoots(YORK_WX),
                inverseRoots(YORK_WY));
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < 10; i++) {
            x.add(own("x" + i, PEARSON_X[i], 1 / Math.sqrt(YORK_WX[i]), LabUnit.ONE));
            y.add(own("y" + i, PEARSON_Y[i], 1 / Math.sqrt(YORK_WY[i]), LabUnit.ONE));
        }
        Fit points = PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_UNCERTAINTIES, "f", "s");
        for (Fit f : List.of(columns, points)) {
            assertThat(f.parameter(0).value()).isCloseTo(5.47991022403, within(1e-9));
            assertThat(f.parameter(1).value()).isCloseTo(-0.48053340745, within(1e-10));
            assertThat(f.parameter(0).u()).isCloseTo(0.29497, within(1e-4));
            assertThat(f.parameter(1).u()).isCloseTo(0.0580, within(1e-4));
            assertThat(f.chiSquared()).isCloseTo(11.86635, within(1e-4));
        }
    }

    @Test
    void correlatedErrorsOfOnePointAreHeeded() {
        // Both coordinates of every point share one influence along the line itself: it moves points along the line and
        // says nothing against it.
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            Leaf along = Leaf.typeB("along" + i, "along", "", Distribution.NORMAL);
            x.add(Quantity.number(i).with(along, 0.1));
            y.add(Quantity.number(2 * i + (i % 2 == 0 ? 0.01 : -0.01))
                    .with(along, 0.2)
                    .with(Leaf.typeB("up" + i, "up", "", Distribution.NORMAL), 0.01));
        }
        Fit f = PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_UNCERTAINTIES, "f", "s");
        assertThat(f.parameter(1).u()).isLessThan(0.01);
        assertThat(f.chiSquared()).isBetween(4.0, 7.0);
    }

    @Test
    void generalisedLeastSquaresAgreesWithTheMatrixFormula() {
        Leaf shared = Leaf.typeB("shared", "shared", "", Distribution.NORMAL);
        double[] c = {0.3, 0.3, -0.2, 0.1, 0.4};
        double[] t = {0, 1, 2, 3, 4};
        double[] v = {1.1, 2.9, 5.2, 6.8, 9.1};
        double[] u = {0.1, 0.2, 0.1, 0.3, 0.2};
        List<Quantity> y = new ArrayList<>();
        double[][] m = new double[5][5];
        for (int i = 0; i < 5; i++) {
            y.add(own("y" + i, v[i], u[i], V).with(shared, c[i]));
            for (int j = 0; j < 5; j++) {
                m[i][j] = c[i] * c[j] + (i == j ? u[i] * u[i] : 0);
            }
        }
        Fit f = PolynomialFit.ofPoints(exact(S, t), y, 1, Scatter.GENERALISED, "f", "s");
        var inverse = org.hipparchus.linear.MatrixUtils.inverse(org.hipparchus.linear.MatrixUtils.createRealMatrix(m));
        var design = org.hipparchus.linear.MatrixUtils.createRealMatrix(
                new double[][] {{1, 0}, {1, 1}, {1, 2}, {1, 3}, {1, 4}});
        var covariance = org.hipparchus.linear.MatrixUtils.inverse(
                design.transpose().multiply(inverse).multiply(design));
        double[] beta =
                covariance.multiply(design.transpose()).multiply(inverse).operate(v);
        assertThat(f.parameter(0).value()).isCloseTo(beta[0], within(1e-10));
        assertThat(f.parameter(1).value()).isCloseTo(beta[1], within(1e-10));
        assertThat(f.parameter(0).u()).isCloseTo(Math.sqrt(covariance.getEntry(0, 0)), within(1e-10));
        assertThat(f.parameter(0).covariance(f.parameter(1))).isCloseTo(covariance.getEntry(0, 1), within(1e-10));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "decay | 1.5 + 4 * exp(-x / 2.2) | 2.2 | tau",
                "decay | 9 - 4 * exp(-x / 0.7) | 0.7 | tau",
                "saturation | 3 * (1 - exp(-x / 1.4)) | 1.4 | tau",
                "half_saturation | 5 * x / (0.8 + x) | 0.8 | half",
                "power_law | 2 * x^1.7 | 1.7 | exponent",
                "power_law | 2 / x^0.5 | -0.5 | exponent",
                "logarithm | 2 + 3 * ln(x) | 3 | factor",
                "logistic | 7 / (1 + exp(-(x - 3) / 0.5)) | 3 | middle",
                "damped_cosine | 0.3 + 2 * exp(-x / 4) * cos(2 * pi * x / 1.3 + 0.4) | 1.3 | period",
                "broken_line | 2 + if(x < 2.7, 1, 0) * (x - 2.7) * 1.5 + if(x < 2.7, 0, 1) * (x - 2.7) * 0.2 | "
                        + "2.7 | break",
                "two_exponentials | 3 * exp(-x / 0.4) + 1 * exp(-x / 3) | 3 | tau2"
            })
    void namedModelsFindTheirOwnStartAndExactDataReturnThem(String id, String truth, double value, String parameter) {
        double[] x = new double[41];
        double[] y = new double[41];
        for (int i = 0; i < 41; i++) {
            x[i] = 0.05 + 0.15 * i;
            y[i] = ((Value.Scalar) Formula.parse(truth)
                            .evaluate(Scope.over("t", Map.of("x", new Value.Scalar(Quantity.number(x[i]))))))
                    .quantity()
                    .value();
        }
        Fit f = NamedModel.named(id)
                .fit(Points.of(exact(S, x), exact(V, y)), new FitOptions(Scatter.FROM_RESIDUALS, "f", "s"));
        assertThat(f.parameter(f.names().indexOf(parameter)).value()).isCloseTo(value, within(1e-6 * Math.abs(value)));
        double[] g = new double[f.names().size() + 1];
        double[] p = f.parameters().stream().mapToDouble(Quantity::value).toArray();
        f.law().at(1.234, p, g);
        for (int k = 0; k < p.length; k++) {
            double h = 1e-6 * Math.max(1e-3, Math.abs(p[k]));
            double[] up = p.clone();
            double[] down = p.clone();
            up[k] += h;
            down[k] -= h;
            double numerical =
                    (f.law().at(1.234, up, new double[g.length]) - f.law().at(1.234, down, new double[g.length]))
                            / (2 * h);
            assertThat(g[k]).as(f.names().get(k)).isCloseTo(numerical, within(1e-6 * (1 + Math.abs(numerical))));
        }
        double slope =
                (f.law().at(1.234 + 1e-6, p, new double[g.length]) - f.law().at(1.234 - 1e-6, p, new double[g.length]))
                        / 2e-6;
        assertThat(g[p.length]).isCloseTo(slope, within(1e-5 * (1 + Math.abs(slope))));
    }

    @Test
    void arrheniusTakesCelsiusAndGivesJoulePerMole() {
        double[] t = {15, 25, 35, 45, 55, 65};
        double[] y = Arrays.stream(t)
                .map(c -> 3e6 * Math.exp(-48_000 / (8.31446261815324 * (c + 273.15))))
                .toArray();
        Fit f = NamedModel.ARRHENIUS.fit(
                Points.of(exact(LabUnit.parse("degC"), t), exact(LabUnit.parse("1/s"), y)),
                new FitOptions(Scatter.FROM_RESIDUALS, "f", "s"));
        assertThat(f.parameter(1).in(LabUnit.parse("kJ/mol"))).isCloseTo(48, within(1e-5));
    }

    @Test
    void nonLinearParametersAreCoveredAsStated() {
        SplittableRandom random = new SplittableRandom(21);
        int[] covered = new int[3];
        double[] truth = {1, 5, 2};
        for (int s = 0; s < 2000; s++) {
            List<Quantity> x = new ArrayList<>();
            List<Quantity> y = new ArrayList<>();
            for (int i = 0; i < 25; i++) {
                x.add(Quantity.exact(0.4 * i, S));
                y.add(Quantity.exact(1 + 5 * Math.exp(-0.2 * i) + 0.15 * random.nextGaussian(), V));
            }
            Fit f = NamedModel.DECAY.fit(Points.of(x, y), new FitOptions(Scatter.FROM_RESIDUALS, "f", "s"));
            for (int k = 0; k < 3; k++) {
                covered[k] += Math.abs(f.parameter(k).value() - truth[k]) <= Coverage.DEFAULT.expanded(f.parameter(k))
                        ? 1
                        : 0;
            }
        }
        System.out.println("decay parameters covered in "
                + Arrays.toString(
                        Arrays.stream(covered).mapToDouble(c -> c / 20.0).toArray()) + " %");
        for (int c : covered) {
            assertThat(c / 2000.0).isBetween(0.93, 0.97);
        }
    }

    @Test
    void inversePredictionIsCoveredAsStated() {
        SplittableRandom random = new SplittableRandom(22);
        int covered = 0;
        for (int s = 0; s < 2000; s++) {
            List<Quantity> x = new ArrayList<>();
            List<Quantity> y = new ArrayList<>();
            for (int i = 0; i < 8; i++) {
                x.add(Quantity.exact(i, S));
                y.add(Quantity.exact(2 + 3 * i + 0.2 * random.nextGaussian(), V));
            }
            Fit f = PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_RESIDUALS, "f", "s");
            double reading = 2 + 3 * 4.3 + 0.2 / Math.sqrt(3) * random.nextGaussian();
            Quantity q = f.inverse(Quantity.exact(reading, V)
                    .with(Leaf.typeA("r", "r", "", f.dof()).inPool(f.scatterPool()), f.residualSd() / Math.sqrt(3)));
            covered += Math.abs(q.value() - 4.3) <= Coverage.DEFAULT.expanded(q) ? 1 : 0;
        }
        System.out.println("inverse prediction covered in " + covered / 20.0 + " %");
        assertThat(covered / 2000.0).isBetween(0.93, 0.97);
    }

    @Test
    void errorsInBothAreCoveredAsStated() {
        SplittableRandom random = new SplittableRandom(23);
        int covered = 0;
        for (int s = 0; s < 1000; s++) {
            List<Quantity> x = new ArrayList<>();
            List<Quantity> y = new ArrayList<>();
            for (int i = 0; i < 10; i++) {
                x.add(own("x" + i, i + 0.2 * random.nextGaussian(), 0.2, S));
                y.add(own("y" + i, 1 + 2 * i + 0.3 * random.nextGaussian(), 0.3, V));
            }
            Quantity slope = PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_UNCERTAINTIES, "f", "s")
                    .parameter(1);
            covered += Math.abs(slope.value() - 2) <= Coverage.DEFAULT.expanded(slope) ? 1 : 0;
        }
        assertThat(covered / 1000.0).isBetween(0.93, 0.97);
    }

    @Test
    void inverseAndForwardPredictionsUndoEachOther() {
        List<Quantity> y = exact(V, 0.1, 1.1, 3.9, 9.2, 15.8, 25.1);
        Fit f = PolynomialFit.ofPoints(exact(S, 0, 1, 2, 3, 4, 5), y, 2, Scatter.FROM_RESIDUALS, "f", "s");
        Quantity there = f.at(Quantity.exact(3.3, S));
        assertThat(f.inverse(there).value()).isCloseTo(3.3, within(1e-9));
        assertThat(f.inverse(there).u())
                .as("the same parameters there and back")
                .isCloseTo(0, within(1e-9));
        assertThat(f.rSquared()).isBetween(0.99, 1.0);
        assertThat(f.readingAt(Quantity.exact(3.3, S), "r").u()).isGreaterThan(there.u());
        assertThatThrownBy(() -> f.inverse(Quantity.exact(90, V))).hasMessageContaining("does not reach");
        Fit hill = PolynomialFit.ofPoints(
                exact(S, -2, -1, 0, 1, 2), exact(V, 0, 3, 4.1, 3, 0), 2, Scatter.FROM_RESIDUALS, "f", "s");
        assertThatThrownBy(() -> hill.inverse(Quantity.exact(2, V))).hasMessageContaining("at 2 places");
    }

    @Test
    void aWildPointIsPointedOutByTheSecondOpinion() {
        double[] t = new double[12];
        double[] v = new double[12];
        for (int i = 0; i < 12; i++) {
            t[i] = i;
            v[i] = 1 + 2 * i + 0.05 * Math.sin(7 * i);
        }
        Fit clean = PolynomialFit.ofPoints(exact(S, t), exact(V, v), 1, Scatter.FROM_RESIDUALS, "f", "s");
        assertThat(SecondOpinion.of(clean).remark()).isEmpty();
        v[10] += 1.5;
        Fit pulled = PolynomialFit.ofPoints(exact(S, t), exact(V, v), 1, Scatter.FROM_RESIDUALS, "f", "s");
        SecondOpinion robust = SecondOpinion.of(pulled);
        assertThat(Math.abs(robust.parameters()[1] - 2))
                .isLessThan(0.5 * Math.abs(pulled.parameter(1).value() - 2));
        assertThat(robust.weights()[10]).isLessThan(0.4);
        assertThat(robust.remark()).hasValueSatisfying(r -> assertThat(r).contains("look at point 11"));
    }

    /** A wild point carries least squares off and inflates its uncertainty; it must not hide behind that. */
    @Test
    void aVeryWildPointCannotHide() {
        for (int at = 0; at < 12; at++) {
            SplittableRandom random = new SplittableRandom(at);
            double[] t = new double[12];
            double[] v = new double[12];
            double[] line = new double[12];
            for (int i = 0; i < 12; i++) {
                t[i] = i;
                v[i] = 1 + 2 * i + 0.01 * random.nextGaussian();
                line[i] = 1 + 2 * i;
            }
            v[at] += 100;
            line[at] -= 7;
            for (double[] y : new double[][] {v, line}) {
                SecondOpinion robust = SecondOpinion.of(
                        PolynomialFit.ofPoints(exact(S, t), exact(V, y), 1, Scatter.FROM_RESIDUALS, "f", "s"));
                int wild = at + 1;
                assertThat(robust.remark())
                        .as("point " + wild)
                        .hasValueSatisfying(r -> assertThat(r).containsPattern("look at point .*\\b" + wild + "\\b"));
                assertThat(robust.weights()[at]).isLessThan(0.01);
                assertThat(robust.parameters()[1]).isCloseTo(2, within(0.01));
            }
        }
    }

    @Test
    void theSecondOpinionIsSilentOnCleanDataAndItsWorkIsBounded() {
        int alarms = 0;
        for (int seed = 0; seed < 300; seed++) {
            SplittableRandom random = new SplittableRandom(seed);
            double[] t = new double[15];
            double[] v = new double[15];
            for (int i = 0; i < 15; i++) {
                t[i] = i;
                v[i] = 1 + 2 * i + random.nextGaussian();
            }
            alarms += SecondOpinion.of(PolynomialFit.ofPoints(
                                    exact(S, t), exact(V, v), 1, Scatter.FROM_RESIDUALS, "f", "s"))
                            .remark()
                            .isPresent()
                    ? 1
                    : 0;
        }
        assertThat(alarms).isLessThan(6);
        long[] calls = {0};
        double[] x = new double[250];
        double[] y = new double[250];
        for (int i = 0; i < 250; i++) {
            x[i] = i / 10.0;
            y[i] = Math.exp(-x[i]) + 0.5 * Math.sin(40 * x[i]);
        }
        Fit base = NamedModel.DECAY.fit(
                Points.of(exact(S, x), exact(V, y)), new FitOptions(Scatter.FROM_RESIDUALS, "f", "s"));
        Fit counted = new Fit(
                base.model(),
                base.names(),
                base.parameters(),
                base.x(),
                base.y(),
                base.fitted(),
                base.xUnit(),
                base.yUnit(),
                base.residualSd(),
                base.chiSquared(),
                base.dof(),
                base.remarks(),
                (at, p, g) -> {
                    calls[0]++;
                    return base.law().at(at, p, g);
                });
        SecondOpinion.of(counted);
        assertThat(calls[0] / 250).as("passes over the points").isLessThan(160 * 20);
    }

    @Test
    void modelsAreComparedInWordsOnTheSameResponseOnly() {
        SplittableRandom random = new SplittableRandom(24);
        double[] t = new double[40];
        double[] bent = new double[40];
        double[] straight = new double[40];
        for (int i = 0; i < 40; i++) {
            t[i] = 0.25 * i;
            bent[i] = 3 * Math.exp(-t[i] / 3) + 0.02 * random.nextGaussian();
            straight[i] = 3 - 0.2 * t[i] + 0.02 * random.nextGaussian();
        }
        FitOptions choices = new FitOptions(Scatter.FROM_RESIDUALS, "f", "s");
        Fit line = PolynomialFit.ofPoints(exact(S, t), exact(V, bent), 1, Scatter.FROM_RESIDUALS, "f", "s");
        Fit decay = NamedModel.DECAY.fit(Points.of(exact(S, t), exact(V, bent)), choices);
        ModelComparison c = ModelComparison.of(List.of(line, decay));
        assertThat(c.best().fit()).isSameAs(decay);
        assertThat(c.advice()).contains("residuals of the straight line bend").contains("is ruled out");
        Fit one = PolynomialFit.ofPoints(exact(S, t), exact(V, straight), 1, Scatter.FROM_RESIDUALS, "f", "s");
        Fit two = PolynomialFit.ofPoints(exact(S, t), exact(V, straight), 2, Scatter.FROM_RESIDUALS, "f", "s");
        assertThat(ModelComparison.of(List.of(one, two)).best().share()).isLessThan(0.9);
        assertThatThrownBy(() -> ModelComparison.of(List.of(line, one))).hasMessageContaining("same response");
    }

    @Test
    void lackOfFitNeedsRepeats() {
        double[] t = {0, 0, 1, 1, 2, 2, 3, 3};
        double[] v = {0.01, -0.01, 1.01, 0.99, 4.01, 3.99, 9.01, 8.99};
        Fit line = PolynomialFit.ofPoints(exact(S, t), exact(V, v), 1, Scatter.FROM_RESIDUALS, "f", "s");
        Fit parabola = PolynomialFit.ofPoints(exact(S, t), exact(V, v), 2, Scatter.FROM_RESIDUALS, "f", "s");
        assertThat(ModelComparison.lackOfFit(line).orElseThrow()).isLessThan(1e-4);
        assertThat(ModelComparison.lackOfFit(parabola).orElseThrow()).isGreaterThan(0.5);
        assertThat(ModelComparison.lackOfFit(PolynomialFit.ofPoints(
                        exact(S, 0, 1, 2, 3), exact(V, 0, 1, 4, 9), 1, Scatter.FROM_RESIDUALS, "f", "s")))
                .isEmpty();
    }

    @Test
    void aFormulaWithUnitsChecksThemAndGivesParametersTheirs() {
        double[] t = {0, 1, 2, 3, 4, 5};
        double[] v = Arrays.stream(t).map(x -> 2 * Math.exp(-x / 1.5)).toArray();
        Points points = Points.of(exact(S, t), exact(V, v));
        Fit f = FormulaFit.model(
                        Formula.parse("a * exp(-x / tau)"),
                        Map.of("a", Quantity.exact(1, V), "tau", Quantity.exact(3000, LabUnit.parse("ms"))))
                .fit(points, new FitOptions(Scatter.FROM_RESIDUALS, "f", "s"));
        assertThat(f.parameter(1).unit()).isEqualTo(LabUnit.parse("ms"));
        assertThat(f.parameter(1).value()).isCloseTo(1500, within(1e-6));
        assertThatThrownBy(() -> FormulaFit.model(
                                Formula.parse("a * exp(-x / tau)"),
                                Map.of("a", Quantity.exact(1, V), "tau", Quantity.exact(3, V)))
                        .fit(points, new FitOptions(Scatter.FROM_RESIDUALS, "f", "s")))
                .hasMessageContaining("pure number");
        assertThatThrownBy(() -> FormulaFit.model(Formula.parse("a * x"), Map.of()))
                .hasMessageContaining("needs a starting value");
    }
}
