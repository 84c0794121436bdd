package eagerneedle.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;

/** Formulas of quantities in plain numbers: the same curve, or none at all. */
class UnitCurveTest {
    private static final FitOptions HOW = new FitOptions(Scatter.FROM_RESIDUALS, "f", "s");

    private static Quantity q(double value, String unit) {
        return Quantity.exact(value, LabUnit.parse(unit));
    }

    private static Points points(int n, String xUnit, String yUnit, DoubleUnaryOperator law) {
        Random random = new Random(3);
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            x.add(q(1 + i, xUnit));
            y.add(q(law.applyAsDouble(1 + i) * (1 + 1e-3 * random.nextGaussian()), yUnit));
        }
        return Points.of(x, y);
    }

    private static Map<String, Quantity> start(Object... namesAndValues) {
        Map<String, Quantity> out = new LinkedHashMap<>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            out.put((String) namesAndValues[i], (Quantity) namesAndValues[i + 1]);
        }
        return out;
    }

    private static Fit fit(String formula, Map<String, Quantity> start, Points points) {
        return FormulaFit.model(Formula.parse(formula), start).fit(points, HOW);
    }

    @Test
    void aDecayInMillivoltsOverMinutesIsFoundInTheUnitsOfItsStart() {
        Points points = points(40, "min", "mV", t -> 20 * Math.exp(-t / 12) + 3);
        Fit f = fit("a * exp(-x / tau) + b", start("a", q(0.01, "V"), "tau", q(300, "s"), "b", q(1, "mV")), points);
        assertThat(f.parameter(0).unit()).isEqualTo(LabUnit.parse("V"));
        assertThat(f.parameter(0).value()).isCloseTo(0.020, within(2e-4));
        assertThat(f.parameter(1).in(LabUnit.parse("min"))).isCloseTo(12, within(0.3));
        assertThat(f.parameter(2).value()).isCloseTo(3, within(0.1));
    }

    @Test
    void literalsAnglesAndTemperaturesGiveWhatTheLanguageGives() {
        Points lengths = points(12, "cm", "m", x -> 0.05 + 0.01 * 2 * x);
        assertThat(fit("5 cm + k * x", start("k", q(1, "mm/mm")), lengths)
                        .parameter(0)
                        .value())
                .isCloseTo(2, within(5e-3));
        Points angles = points(30, "deg", "mm", x -> 40 * Math.sin(Math.toRadians(x)));
        assertThat(fit("r * sin(x)", start("r", q(1, "cm")), angles)
                        .parameter(0)
                        .in(LabUnit.parse("mm")))
                .isCloseTo(40, within(0.1));
        Points hot = points(30, "K", "ohm", x -> 100 * (1 + 0.004 * x));
        Fit linear = fit("r * (1 + alpha * x)", start("r", q(90, "ohm"), "alpha", q(0.003, "1/K")), hot);
        assertThat(linear.parameter(0).value()).isCloseTo(100, within(0.2));
        assertThat(linear.parameter(1).value()).isCloseTo(0.004, within(5e-5));
    }

    @Test
    void whereTheLanguageSaysOtherwiseThereIsNoProgram() {
        Points points = points(8, "s", "m", x -> x);
        Formula line = Formula.parse("v * x");
        Map<String, Quantity> start = start("v", q(1, "m/s"));
        Curve true1 = law(1, 1);
        Optional<Curve> same = UnitCurve.of(line, start, points, true1);
        assertThat(same).isPresent();
        double[] g = new double[2];
        assertThat(same.get().at(3, new double[] {2}, g)).isEqualTo(6);
        assertThat(g).containsExactly(3, 2);
        assertThat(UnitCurve.of(line, start, points, law(1 + 1e-6, 1)))
                .as("another value")
                .isEmpty();
        assertThat(UnitCurve.of(line, start, points, law(1, 0)))
                .as("another derivative")
                .isEmpty();
        assertThat(UnitCurve.of(Formula.parse("mean(x) * v"), start, points, true1))
                .as("more than arithmetic")
                .isEmpty();
    }

    private static Curve law(double factor, double slope) {
        return (x, p, g) -> {
            g[0] = x;
            g[1] = slope * p[0];
            return factor * p[0] * x;
        };
    }

    @Test
    void unitsThatDoNotFitAreRefusedAsBefore() {
        Points points = points(8, "s", "m", x -> x);
        assertThatThrownBy(() -> fit("v * x", start("v", q(1, "kg")), points)).hasMessageContaining("kg");
        assertThatThrownBy(() -> fit("v * exp(x)", start("v", q(1, "m")), points))
                .isInstanceOf(RuntimeException.class);
    }

    /** A program with a wrong factor would be refused, and the fit be right but slow: here it must be taken. */
    @Test
    void unitsThatAreNotCoherentAreCompiledToo() {
        Points points = points(8, "min", "mV", t -> t);
        Curve careful = (x, p, g) -> {
            g[0] = 1e3 * x * 60;
            g[1] = 1e3 * p[0] * 60;
            return 1e3 * p[0] * x * 60;
        };
        Map<String, Quantity> start = start("k", q(0.001, "V/s"));
        assertThat(UnitCurve.of(Formula.parse("k * x"), start, points, careful)).isPresent();
    }
}
