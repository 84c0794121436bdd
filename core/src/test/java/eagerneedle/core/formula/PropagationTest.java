package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The law of propagation in symbols: as a book has it, and the same numbers as the lineage gives. */
class PropagationTest {
    private static final Map<String, String> VALUES = new LinkedHashMap<>(Map.of(
            "a",
            "2.30(4)",
            "b",
            "1.70(3)",
            "c",
            "0.41(2)",
            "L",
            "1.200(2) m",
            "T",
            "2.198(5) s",
            "m",
            "0.250(1) kg",
            "h",
            "0.31(1)"));

    private static Scope scope() {
        return Scope.over(
                "test",
                VALUES.keySet(),
                n -> Optional.ofNullable(VALUES.get(n))
                        .map(v -> new Value.Scalar(Reading.parse(v).toQuantity("input:" + n, n, n))));
    }

    private static Quantity value(String formula) {
        return ((Value.Scalar) Formula.parse(formula).evaluate(scope())).quantity();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "4 * pi^2 * L / T^2; (u(g) / g)^2 = (u(L) / L)^2 + (2 * u(T) / T)^2",
                "sqrt(a) / b^3; (u(g) / g)^2 = (0.5 * u(a) / a)^2 + (3 * u(b) / b)^2",
                "a * (b + c); u(g)^2 = (b + c)^2 * u(a)^2 + a^2 * u(b)^2 + a^2 * u(c)^2",
                "a / (1 + b)^2; u(g)^2 = (1 / (1 + b)^2)^2 * u(a)^2 + (2 * (1 + b) * (a / (1 + b)^4))^2 * u(b)^2",
                "a - b; u(g)^2 = u(a)^2 + u(b)^2",
                "a * b; (u(g) / g)^2 = (u(a) / a)^2 + (u(b) / b)^2",
                "3 * a; u(g)^2 = 3^2 * u(a)^2",
                "sum(a) / count(a); u(g)^2 = (1 / count(a))^2 * u(sum(a))^2",
                "slope(line) * (1 + h); u(g)^2 = (1 + h)^2 * u(slope(line))^2 + (slope(line))^2 * u(h)^2"
            })
    void theLawIsWrittenAsItIsTaught(String formula, String law) {
        assertThat(Propagation.of(Formula.parse(formula)).standard("g")).isEqualTo(law);
    }

    @Test
    void limitsAddUp() {
        assertThat(Propagation.of(Formula.parse("a - b * c")).limits("g"))
                .isEqualTo("a(g) = a(a) + c * a(b) + b * a(c)");
        assertThat(Propagation.of(Formula.parse("a * b^2")).limits("g"))
                .isEqualTo("a(g) / abs(g) = a(a) / abs(a) + 2 * a(b) / abs(b)");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "a + b - c",
                "a * b / c",
                "a^3 / b",
                "a^b",
                "sqrt(a^2 + b^2)",
                "sin(a) * cos(b)",
                "tan(c)",
                "asin(c)",
                "acos(c)",
                "atan(a / b)",
                "exp(-a * b)",
                "ln(a / c)",
                "log10(a)",
                "sinh(c) + cosh(b)",
                "tanh(c)",
                "4 * pi^2 * L / T^2",
                "m * L^2 / T^2",
                "(a - b) / (a + b)",
                "2 * asin(c / a)",
                "-a * (b - c)^2",
                "e^c",
                "1 / (1 + h)",
                "a / a^2",
                "b - -c",
                "m * 9.81(2) m/s^2 * L"
            })
    void everyDerivativeIsTheOneOfTheLineage(String text) {
        Propagation p = Propagation.of(Formula.parse(text));
        Quantity result = value(text);
        double u2 = 0;
        for (Propagation.Term t : p.terms()) {
            Quantity derivative = value(Spelling.of(t.derivative()));
            Quantity x = value(t.name());
            Quantity part = Quantity.exact(derivative.value(), derivative.unit())
                    .times(Quantity.exact(x.u(), x.unit()))
                    .to(result.unit());
            u2 += part.value() * part.value();
        }
        assertThat(Math.sqrt(u2)).isCloseTo(result.u(), within(1e-12 + 1e-9 * result.u()));
    }

    @Test
    void whatIsNotAlgebraHasNoLaw() {
        assertThat(Propagation.of(Formula.parse("a < b")).terms()).isEmpty();
        assertThat(Propagation.of(Formula.parse("a < b")).standard("g")).isEmpty();
        assertThat(Propagation.of(Formula.parse("2 * pi")).terms()).isEmpty();
    }
}
