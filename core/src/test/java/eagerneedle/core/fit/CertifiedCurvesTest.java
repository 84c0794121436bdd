package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.function.FormulaFit;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The harder published certified regression sets (NIST statistical reference data sets), each from every published
 * start.
 */
class CertifiedCurvesTest {
    private record Certified(
            String model,
            List<Map<String, Double>> starts,
            Map<String, double[]> parameters,
            double residual,
            double digits,
            double[] x,
            double[] y) {
        static Certified read(String name) throws Exception {
            List<Map<String, Double>> starts = new ArrayList<>();
            Map<String, double[]> parameters = new LinkedHashMap<>();
            List<double[]> rows = new ArrayList<>();
            Map<String, String> words = new LinkedHashMap<>();
            try (BufferedReader in = new BufferedReader(new InputStreamReader(
                    CertifiedCurvesTest.class.getResourceAsStream("certified/" + name + ".txt"),
                    StandardCharsets.UTF_8))) {
                for (String line = in.readLine(); line != null; line = in.readLine()) {
                    int colon = line.indexOf(':');
                    String rest = colon < 0 ? line : line.substring(colon + 1).strip();
                    if (line.startsWith("start:")) {
                        Map<String, Double> s = new LinkedHashMap<>();
                        for (String part : rest.split(",")) {
                            s.put(part.split("=")[0], Double.parseDouble(part.split("=")[1]));
                        }
                        starts.add(s);
                    } else if (line.startsWith("certified:")) {
                        String[] p = rest.split(" ");
                        parameters.put(p[0], new double[] {Double.parseDouble(p[1]), Double.parseDouble(p[2])});
                    } else if (colon > 0) {
                        words.put(line.substring(0, colon), rest);
                    } else if (!line.equals("x,y")) {
                        rows.add(new double[] {
                            Double.parseDouble(line.split(",")[0]), Double.parseDouble(line.split(",")[1])
                        });
                    }
                }
            }
            return new Certified(
                    words.get("model"),
                    starts,
                    parameters,
                    Double.parseDouble(words.get("residual")),
                    Double.parseDouble(words.get("digits")),
                    rows.stream().mapToDouble(r -> r[0]).toArray(),
                    rows.stream().mapToDouble(r -> r[1]).toArray());
        }
    }

    private static double digits(double got, double certified) {
        return got == certified
                ? 15
                : certified == 0
                        ? -Math.log10(Math.abs(got))
                        : -Math.log10(Math.abs(got - certified) / Math.abs(certified));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "mgh10",
                "boxbod",
                "rat42",
                "rat43",
                "danwood",
                "mgh17",
                "thurber",
                "eckerle4",
                "filip",
                "wampler1",
                "roszman1",
                "enso"
            })
    void fromEveryPublishedStart(String name) throws Exception {
        Certified c = Certified.read(name);
        for (Map<String, Double> start : c.starts()) {
            Fit f = FormulaFit.of(Formula.parse(c.model()), Map.of("x", c.x(), "y", c.y()), start, null, null);
            for (int k = 0; k < f.names().size(); k++) {
                double[] certified = c.parameters().get(f.names().get(k));
                assertThat(digits(f.parameter(k).value(), certified[0]))
                        .as(name + " " + f.names().get(k) + " from " + start)
                        .isGreaterThan(c.digits());
                assertThat(digits(f.parameter(k).u(), certified[1]))
                        .as(name + " u(" + f.names().get(k) + ") from " + start)
                        .isGreaterThan(c.digits() - (certified[1] == 0 ? 2 : 0));
            }
            assertThat(digits(f.residualSd(), c.residual()))
                    .as(name + " residual SD")
                    .isGreaterThan(c.digits() - (c.residual() == 0 ? 2 : 0));
        }
    }
}
