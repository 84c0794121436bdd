package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/**
 * Two hundred thousand random and mutated formulas, and some thousand mutated sheets: never anything but the language's
 * own error with a place.
 */
class FormulaFuzzTest {
    private static final int FORMULAS = Integer.getInteger("formulas", 20_000);
    private static final int SHEETS = Integer.getInteger("sheets", 600);
    private static final String[] ATOMS = {
        "1",
        "2.5",
        "0",
        "-3",
        "1e-3",
        "1e308",
        "9.81(2) m/s^2",
        "3 ± 0.1 mm",
        "(1.60 ± 0.02)e-3 kg",
        "20 degC",
        "5 K",
        "50 %",
        "x",
        "c",
        "pi",
        "e",
        "\"rolling\"",
        "\"K\"",
        "\"decay\"",
        "4.096 mV",
        "100 ohm",
        "30 deg",
        "column(1, 2, 4)",
        "column(1 V, 2 V, 3 V)",
        "index(5)",
        "trace(index(9) * 1 s, index(9)^2 * 1 V)",
        "line(column(1, 2, 4), index(3))",
        "0.5(1)",
        "nobody",
        "1 wombat"
    };
    private static final String[] OPERATORS = {" + ", " - ", " * ", " / ", "^", " < ", " >= ", " and ", " or "};
    private static final String NOISE = "()+-*/^,:<>=\"'.0123456789eE ±°µΩ%xyzabc_#$&|[]{}\u0000\u00a0\t²";

    private final SplittableRandom random = new SplittableRandom(2026);
    private final List<String> functions =
            new ArrayList<>(Library.shipped().functions().keySet());
    private final List<String> examples = Library.shipped().functions().values().stream()
            .map(Function::example)
            .filter(e -> !e.contains("drawn_"))
            .toList();

    private String formula(int depth) {
        int kind = random.nextInt(depth <= 0 ? 1 : 5);
        if (kind == 0) {
            return ATOMS[random.nextInt(ATOMS.length)];
        } else if (kind <= 2) {
            return "(" + formula(depth - 1) + OPERATORS[random.nextInt(OPERATORS.length)] + formula(depth - 1) + ")";
        } else if (kind == 3) {
            return (random.nextBoolean() ? "-" : "not ") + formula(depth - 1);
        }
        String f = functions.get(random.nextInt(functions.size()));
        StringBuilder b = new StringBuilder(f.startsWith("drawn") ? "abs" : f).append('(');
        int n = random.nextInt(4);
        for (int i = 0; i < n; i++) {
            b.append(i == 0 ? "" : ", ")
                    .append(random.nextInt(12) == 0 ? "degree: " : "")
                    .append(formula(depth - 1));
        }
        return b.append(')').toString();
    }

    private String mutated(String text) {
        StringBuilder b = new StringBuilder(text);
        int changes = 1 + random.nextInt(3);
        for (int c = 0; c < changes && b.length() > 0; c++) {
            int at = random.nextInt(b.length());
            switch (random.nextInt(4)) {
                case 0 -> b.deleteCharAt(at);
                case 1 -> b.insert(at, NOISE.charAt(random.nextInt(NOISE.length())));
                case 2 -> b.setCharAt(at, NOISE.charAt(random.nextInt(NOISE.length())));
                default -> b.delete(at, Math.min(b.length(), at + 1 + random.nextInt(5)));
            }
        }
        return b.toString();
    }

    @Test
    void formulasGiveAValueOrTheLanguagesOwnErrorWithAPlace() {
        Map<String, Value> names = Map.of(
                "x",
                new Value.Scalar(Quantity.number(2)),
                "c",
                new Value.Column(List.of(Quantity.number(1), Quantity.number(3))));
        int values = 0;
        int errors = 0;
        for (int i = 0; i < FORMULAS; i++) {
            String text = i % 3 == 0
                    ? formula(3)
                    : mutated(i % 3 == 1 ? formula(2) : examples.get(random.nextInt(examples.size())));
            try {
                Formula.parse(text).evaluate(Scope.over("f", names));
                values++;
            } catch (FormulaException e) {
                errors++;
                if (e.column() < 0
                        || e.column() > text.length() + 2
                        || e.getMessage().isBlank()
                        || e.getMessage().contains("\n")
                        || e.getMessage().contains("Exception")) {
                    fail(text + " -> column " + e.column() + ": " + e.getMessage());
                }
            } catch (RuntimeException | StackOverflowError other) {
                throw new AssertionError("formula number " + i + ": " + text, other);
            }
        }
        System.out.println(values + " formulas gave values, " + errors + " gave errors with a place");
        assertThat(values).isGreaterThan(FORMULAS / 20);
        assertThat(errors).isGreaterThan(FORMULAS / 4);
    }

    @Test
    void sheetsAreReadOrRefusedWithALine() {
        List<String> shipped = SheetReader.shipped();
        int refused = 0;
        for (int i = 0; i < SHEETS; i++) {
            String text = SheetReader.shippedText(shipped.get(i % shipped.size()));
            List<SheetException> problems =
                    SheetTrial.look(mutated(text), "mutated.yaml").problems();
            refused += problems.isEmpty() ? 0 : 1;
            for (SheetException e : problems) {
                assertThat(e.getMessage())
                        .startsWith("mutated.yaml")
                        .doesNotContain("Exception")
                        .doesNotContain("\n");
            }
        }
        assertThat(refused).isGreaterThan(SHEETS / 10);
    }
}
