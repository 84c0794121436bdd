package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.function.Functions;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FormulaTest {
    private static Quantity evaluate(String text) {
        return ((Value.Scalar) Formula.parse(text).evaluate(Scope.empty("test"))).quantity();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 + 2 * 3 | 7",
                "(1 + 2) * 3 | 9",
                "2^3^2 | 512",
                "-2^2 | -4",
                "2^-1 | 0.5",
                "2^-1 * 4 | 2",
                "10 - 3 - 2 | 5",
                "12 / 3 / 2 | 2",
                "-3 + 5 | 2",
                "--4 | 4",
                "2 * -3 | -6",
                "sqrt(16) | 4",
                "pi | 3.141592653589793",
                "e^1 | 2.718281828459045",
                "if(1 < 2, 5, 6) | 5",
                "if(not 1 < 2 or 3 > 4, 5, 6) | 6",
                "if(1 <= 1 and 2 >= 3, 5, 6) | 6",
                "sum(column(1, 2, 3)) | 6",
                "count(column(4, 4)) | 2",
                "abs(-2.5) | 2.5",
                "atan2(0, -1) | 3.141592653589793",
                "1e3 | 1000",
                "ln(e) | 1",
                "log10(1000) | 3",
                "3 · 2 | 6",
                "5 − 2 | 3"
            })
    void arithmeticFollowsItsRules(String text, double expected) {
        assertThat(evaluate(text).in(LabUnit.ONE)).isCloseTo(expected, within(1e-12));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "9.81 m/s^2 * 2 kg | 19.62 | N",
                "3 m / 2 s | 1.5 | m/s",
                "sqrt(4 m^2) | 2 | m",
                "20 degC + 5 K | 25 | degC",
                "30 degC - 20 degC | 10 | K",
                "to(90 km/h, \"m/s\") | 25 | m/s",
                "sin(30 deg) | 0.5 | ''",
                "2 V / 4 ohm | 0.5 | A",
                "5 mm + 1 cm | 15 | mm",
                "1 % * 50 | 0.5 | ''",
                "asin(0.5) | 0.5235987755982989 | rad",
                "100 kPa * 2 L | 200 | N*m",
                "2 m^2 ^ 0.5 | 1.4142135623730951 | m"
            })
    void unitsAreCarried(String text, double expected, String unit) {
        Quantity q = evaluate(text);
        assertThat(q.value()).isCloseTo(expected, within(1e-9));
        assertThat(q.unit().symbol()).isEqualTo(unit);
    }

    @Test
    void writtenQuantitiesAreIndependentAndNamesAreNot() {
        assertThat(evaluate("5.0(1) m - 5.0(1) m").u()).isCloseTo(0.1 * Math.sqrt(2), within(1e-12));
        Formula f = Formula.parse("x - x");
        Quantity x = evaluate("5.0(1) m");
        Scope scope = scope(Map.of("x", new Value.Scalar(x)));
        assertThat(((Value.Scalar) f.evaluate(scope)).quantity().u()).isZero();
    }

    static Scope scope(Map<String, Value> names) {
        return Scope.over("test", names);
    }

    @Test
    void columnsWorkElementByElementAndKeepCorrelation() {
        Map<String, Value> names = Map.of(
                "r",
                new Value.Scalar(evaluate("2.0(1) m")),
                "c",
                Formula.parse("column(1 s, 2 s, 4 s)").evaluate(Scope.empty("c")));
        Value.Column v = (Value.Column) Formula.parse("r / c").evaluate(scope(names));
        assertThat(v.rows()).extracting(Quantity::value).containsExactly(2.0, 1.0, 0.5);
        assertThat(v.rows().get(0).correlation(v.rows().get(2))).isCloseTo(1, within(1e-12));
        Value.Column squared = (Value.Column) Formula.parse("sqrt(c * c) - c").evaluate(scope(names));
        assertThat(squared.rows()).allSatisfy(q -> assertThat(q.value()).isZero());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 + | 4 | ends",
                "1 2 | 3 | operator",
                "(1 + 2 | 7 | bracket",
                "3 m + 2 s | 1 | cannot be expressed",
                "foo + 1 | 1 | not known",
                "sine(1) | 1 | did you mean sin",
                "sin(3 m) | 1 | an angle",
                "ln(-1) | 1 | no value",
                "1 / 0 | 1 | zero",
                "3 wombat | 1 | not a unit",
                "x & y | 1 | not known",
                "sqrt() | 1 | missing",
                "mean(3) | 6 | column",
                "slope(1, 2, nope: 3) | 1 | no argument called nope",
                "20 degC + 5 degC | 1 | cannot be added",
                "exp(2 kg) | 1 | pure number",
                "2^(3 m) | 1 | exponent",
                "a = | 4 | ends",
                "coefficient(line(column(1, 2, 3), column(1, 2, 3)), 5) | 1 | coefficients 0 to 1",
                "sd(column(1)) | 4 | at least 2",
                "column(1 m, 2 s) | 13 | does not go",
                "column(1, 2) + column(1, 2, 3) | 1 | does not go",
                "to(3 m, 5) | 9 | text in quotes",
                "if(3, 1, 2) | 4 | comparison",
                "acos(2) | 1 | no value",
                "1 # 2 | 3 | no meaning",
                "line(column(1, 2), column(1, 1)) | 1 | points"
            })
    void mistakesAreToldWithTheirPlace(String text, int column, String says) {
        FormulaException e = org.junit.jupiter.api.Assertions.assertThrows(
                FormulaException.class, () -> Formula.parse(text).evaluate(Scope.empty("test")));
        assertThat(e.getMessage()).contains(says).doesNotContain("\n");
        assertThat(e.column()).as(text).isEqualTo(column);
    }

    @Test
    void definitionsGiveTheirNameAndTheNamesTheyUse() {
        Formula f = Formula.parse("g = slope(slopes.a, s) * (1 + k / m_c)");
        assertThat(f.defines()).isEqualTo("g");
        assertThat(f.names()).containsExactly("slopes.a", "s", "k", "m_c");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "a + b * c",
                "(a + b) * c",
                "a - (b - c)",
                "a / (b * c)",
                "-a^2",
                "(-a)^2",
                "a^(b + 1)",
                "f(a, n: 3) / 2 m",
                "a < b and not c > d",
                "(a^b)^c",
                "a^b^c"
            })
    void spellingReadsBackAsTheSameTree(String text) {
        Expr tree = Formula.parse(text).expression();
        String spelled = Spelling.of(tree);
        assertThat(strip(Formula.parse(spelled).expression())).as(spelled).isEqualTo(strip(tree));
    }

    private static String strip(Expr e) {
        return e.toString().replaceAll("column=\\d+", "");
    }

    @Test
    void aFormulaNestedWithoutEndIsRefusedNotCrashed() {
        Executable parse = () -> Formula.parse("(".repeat(5000) + "1" + ")".repeat(5000));
        FormulaException e = org.junit.jupiter.api.Assertions.assertThrows(FormulaException.class, parse);
        assertThat(e.getMessage()).contains("too deeply");
    }

    /** Terms without end would be walked by recursion without end; a long list is no depth. */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(
            strings = {"1 + ", "1 * ", "2 ^ ", "-", "not ", "1 < ", "sqrt(", "1 - (", "1 and ", "u(1 or "})
    void termsWithoutEndAreRefusedWithinAMoment(String term) {
        FormulaException e = org.junit.jupiter.api.Assertions.assertThrows(
                FormulaException.class, () -> Formula.parse(term.repeat(7_000) + "1"));
        assertThat(e.getMessage()).contains("too deeply");
        FormulaException longer = org.junit.jupiter.api.Assertions.assertThrows(
                FormulaException.class, () -> Formula.parse(term.repeat(50_000) + "1"));
        assertThat(longer.getMessage()).contains("split it into named parts");
    }

    @Test
    void whatIsAllowedToBeLongIsWorkedOut() {
        assertThat(evaluate("1" + " + 1".repeat(590)).value()).isEqualTo(591);
        assertThat(evaluate("sqrt(".repeat(190) + "1" + ")".repeat(190)).value())
                .isEqualTo(1);
        assertThat(evaluate("sum(column(" + "-1, ".repeat(3000) + "1))").value())
                .isEqualTo(-2999);
    }

    @Test
    void everyDocumentedExampleRunsAndGivesWhatIsWritten() {
        assertThat(Library.shipped().functions()).hasSizeGreaterThan(80);
        Library.shipped().functions().forEach((name, entry) -> {
            assertThat(entry.takes()).as(name).isNotBlank();
            assertThat(entry.gives()).as(name).isNotBlank();
            assertThat(entry.example()).as(name).contains(name + "(");
            assertThat(Formula.parse(entry.example())
                            .evaluate(Scope.empty(name))
                            .shown())
                    .as(entry.example())
                    .isEqualTo(entry.prints());
        });
    }

    @Test
    void thePageOfTheLanguageHoldsTheTableOfTheCode() throws java.io.IOException {
        String page = java.nio.file.Files.readString(java.nio.file.Path.of("..", "docs", "formula-language.md"));
        assertThat(page).as("make it anew with ./needle functions").contains(Functions.markdown());
    }

    @Test
    void theMeanOfAColumnHasItsClassicalUncertainty() {
        Quantity m = evaluate("mean(column(9.79, 9.83, 9.81, 9.80))");
        assertThat(m.value()).isCloseTo(9.8075, within(1e-12));
        double s = Math.sqrt((0.0175 * 0.0175 + 0.0225 * 0.0225 + 0.0025 * 0.0025 + 0.0075 * 0.0075) / 3);
        assertThat(m.u()).isCloseTo(s / 2, within(1e-12));
        assertThat(m.dof()).isCloseTo(3, within(1e-9));
    }

    @Test
    void sharedInfluencesAreNotAveragedDown() {
        Map<String, Value> names = Map.of(
                "scale",
                new Value.Scalar(evaluate("1.00(1)")),
                "c",
                Formula.parse("column(5, 5, 5, 5)").evaluate(Scope.empty("c")));
        Quantity m = ((Value.Scalar) Formula.parse("mean(c * scale)").evaluate(scope(names))).quantity();
        assertThat(m.u()).isCloseTo(0.05, within(1e-12));
    }

    @Test
    void anUnknownNameGetsTheNearestKnownOne() {
        assertThatThrownBy(() -> Formula.parse("spacng").evaluate(scope(Map.of("spacing", new Value.Truth(true)))))
                .hasMessageContaining("did you mean spacing?");
        assertThat(NearName.hint("zzzzzz", java.util.List.of("spacing"))).isEqualTo(".");
    }
}
