package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Worked examples of JCGM 100:2008, annex H, to the digits printed there. */
class GuideExamplesTest {
    private static final LabUnit NM = LabUnit.parse("nm");

    private static Quantity given(String name, double value, double u, LabUnit unit, double dof) {
        return Quantity.of(value, u, unit, Leaf.typeA(name, name, "guide", dof));
    }

    private static Quantity evaluate(String formula, Map<String, Quantity> names) {
        Scope scope = new Scope() {
            @Override
            public Optional<Value> lookup(String name) {
                return Optional.ofNullable(names.get(name)).map(Value.Scalar::new);
            }

            @Override
            public Collection<String> names() {
                return names.keySet();
            }

            @Override
            public String origin() {
                return "guide";
            }

            @Override
            public String label() {
                return "guide";
            }

            @Override
            public boolean planning() {
                return false;
            }

            @Override
            public Optional<Window> window(String name, Trace trace) {
                return Optional.empty();
            }
        };
        return ((Value.Scalar) Formula.parse(formula).evaluate(scope)).quantity();
    }

    /**
     * H.1, end-gauge calibration: first-order combined standard uncertainty 32 nm with 16 degrees of freedom, expanded
     * 93 nm at 99 %.
     */
    @Test
    void endGauge() {
        LabUnit perKelvin = LabUnit.parse("1/K");
        Quantity difference = Quantity.of(215, 5.8, NM, Leaf.typeA("repeated observations", "d", "guide", 24))
                .with(Leaf.typeA("random effects of comparator", "d", "guide", 5), 3.9)
                .with(Leaf.typeA("systematic effects of comparator", "d", "guide", 8), 6.7);
        assertThat(difference.u()).isCloseTo(9.7, within(0.05));
        assertThat(difference.dof()).isCloseTo(25.6, within(0.5));
        Quantity l = evaluate(
                        "l_s + d - l_s * (delta_alpha * theta + alpha_s * delta_theta)",
                        Map.of(
                                "l_s",
                                given("standard", 50_000_623, 25, NM, 18),
                                "d",
                                difference,
                                "delta_alpha",
                                given("difference of expansion", 0, 0.58e-6, perKelvin, 50),
                                "theta",
                                given("temperature", -0.1, 0.41, LabUnit.KELVIN, 1e9),
                                "alpha_s",
                                given("expansion", 11.5e-6, 1.2e-6, perKelvin, 1e9),
                                "delta_theta",
                                given("difference of temperature", 0, 0.029, LabUnit.KELVIN, 2)))
                .to(NM);
        assertThat(l.value()).isCloseTo(50_000_838, within(0.5));
        assertThat(l.u()).isCloseTo(32, within(0.5));
        assertThat(Math.floor(l.dof())).isBetween(16.0, 17.0);
        assertThat(new Coverage(0.99).factor(16)).isCloseTo(2.92, within(0.005));
        assertThat(Budget.of(l).lines().get(0).label()).isEqualTo("standard");
        assertThat(Math.abs(l.contribution(Leaf.typeA("difference of temperature", "", "", 2))))
                .isCloseTo(16.6, within(0.1));
        assertThat(Math.abs(l.contribution(Leaf.typeA("difference of expansion", "", "", 50))))
                .isCloseTo(2.9, within(0.05));
        assertThat(l.contribution(Leaf.typeA("expansion", "", "", 9))).isZero();
    }

    /**
     * H.2, simultaneous resistance and reactance. Quantities observed together share one leaf for each round of
     * observations, whose contribution to a mean is (x_k - mean) / sqrt(n (n - 1)); variances, covariances and degrees
     * of freedom are those of the guide.
     */
    @Test
    void resistanceAndReactance() {
        double[] v = {5.007, 4.994, 5.005, 4.990, 4.999};
        double[] i = {19.663e-3, 19.639e-3, 19.640e-3, 19.685e-3, 19.678e-3};
        double[] phi = {1.0456, 1.0438, 1.0468, 1.0428, 1.0433};
        Map<String, Quantity> names = Map.of(
                "V",
                together(v, LabUnit.parse("V")),
                "I",
                together(i, LabUnit.parse("A")),
                "phi",
                together(phi, LabUnit.RADIAN));
        assertThat(names.get("V").u()).isCloseTo(0.0032, within(0.00005));
        assertThat(names.get("V").correlation(names.get("I"))).isCloseTo(-0.36, within(0.005));
        assertThat(names.get("V").correlation(names.get("phi"))).isCloseTo(0.86, within(0.005));
        assertThat(names.get("I").correlation(names.get("phi"))).isCloseTo(-0.65, within(0.005));
        Quantity r = evaluate("V / I * cos(phi)", names);
        Quantity x = evaluate("V / I * sin(phi)", names);
        Quantity z = evaluate("V / I", names);
        assertThat(r.unit().symbol()).isEqualTo("ohm");
        assertThat(r.value()).isCloseTo(127.732, within(0.0005));
        assertThat(x.value()).isCloseTo(219.847, within(0.0005));
        assertThat(z.value()).isCloseTo(254.260, within(0.0005));
        assertThat(r.u()).isCloseTo(0.071, within(0.0005));
        assertThat(x.u()).isCloseTo(0.295, within(0.0008));
        assertThat(z.u()).isCloseTo(0.236, within(0.0008));
        assertThat(r.correlation(x)).isCloseTo(-0.588, within(0.001));
        assertThat(r.correlation(z)).isCloseTo(-0.485, within(0.001));
        assertThat(x.correlation(z)).isCloseTo(0.993, within(0.001));
        assertThat(r.dof()).isCloseTo(4, within(1e-9));
    }

    private static Quantity together(double[] values, LabUnit unit) {
        int n = values.length;
        double mean = java.util.Arrays.stream(values).average().orElseThrow();
        Quantity q = Quantity.exact(mean, unit);
        for (int k = 0; k < n; k++) {
            q = q.with(
                    Leaf.typeA("round" + k, "rounds", "guide", n - 1).inPool("rounds"),
                    (values[k] - mean) / Math.sqrt(n * (n - 1.0)));
        }
        return q;
    }

    /** H.3, calibration of a thermometer by a straight line, and its correction at 30 °C. */
    @Test
    void thermometer() {
        double[] t = {21.521, 22.012, 22.512, 23.003, 23.507, 23.999, 24.513, 25.002, 25.503, 26.010, 26.511};
        double[] b = {-0.171, -0.169, -0.166, -0.159, -0.164, -0.165, -0.156, -0.157, -0.159, -0.161, -0.160};
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int k = 0; k < t.length; k++) {
            x.add(Quantity.exact(t[k] - 20, LabUnit.KELVIN));
            y.add(Quantity.exact(b[k], LabUnit.KELVIN));
        }
        Fit f = PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_RESIDUALS, "f", "scatter");
        assertThat(f.parameter(0).value()).isCloseTo(-0.1712, within(0.00005));
        assertThat(f.parameter(0).u()).isCloseTo(0.0029, within(0.00005));
        assertThat(f.parameter(1).value()).isCloseTo(0.00218, within(0.000005));
        assertThat(f.parameter(1).u()).isCloseTo(0.00067, within(0.000005));
        assertThat(f.parameter(0).correlation(f.parameter(1))).isCloseTo(-0.930, within(0.0005));
        assertThat(f.residualSd()).isCloseTo(0.0035, within(0.00005));
        Quantity at30 = f.at(10);
        assertThat(at30.value()).isCloseTo(-0.1494, within(0.00005));
        assertThat(at30.u()).isCloseTo(0.0041, within(0.00005));
        assertThat(at30.dof()).isCloseTo(9, within(1e-9));
    }

    /** JCGM 101, 9.2.2: the additive model of four standard normal inputs has the standard uncertainty 2. */
    @Test
    void additiveModel() {
        Quantity sum = Quantity.number(0);
        for (int k = 0; k < 4; k++) {
            sum = sum.plus(given("x" + k, 0, 1, LabUnit.ONE, 1e12));
        }
        assertThat(sum.u()).isEqualTo(2);
        assertThat(Coverage.DEFAULT.expanded(sum)).isCloseTo(3.92, within(0.005));
    }

    /** JCGM 101, 9.3: mass calibration, first order: 1.234 mg with 0.0539 mg. */
    @Test
    void massCalibration() {
        LabUnit mg = LabUnit.parse("mg");
        LabUnit density = LabUnit.parse("kg/m^3");
        Map<String, Quantity> names = Map.of(
                "m_R",
                given("reference mass", 100_000, 0.050, mg, 1e9),
                "dm",
                given("difference", 1.234, 0.020, mg, 1e9),
                "rho_a",
                given("air", 1.20, 0.10 / Math.sqrt(3), density, 1e9),
                "rho_W",
                given("weight", 8000, 1000 / Math.sqrt(3), density, 1e9),
                "rho_R",
                given("reference density", 8000, 50 / Math.sqrt(3), density, 1e9),
                "m_nom",
                Quantity.exact(100_000, mg),
                "rho_0",
                Quantity.exact(1.2, density));
        Quantity m = evaluate("(m_R + dm) * (1 + (rho_a - rho_0) * (1 / rho_W - 1 / rho_R)) - m_nom", names)
                .to(mg);
        assertThat(m.value()).isCloseTo(1.234, within(0.0005));
        assertThat(m.u()).isCloseTo(0.0539, within(0.00005));
    }
}
