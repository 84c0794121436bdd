package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.app.command.Needle.Said;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.ReductionJson;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CommandLineTest {
    @TempDir
    private Path folder;

    private void refused(Said said, String why) {
        assertThat(said.status()).isEqualTo(2);
        assertThat(said.err()).contains(why).doesNotContain("\tat ").doesNotContain("Exception");
        assertThat(said.err().strip().lines().filter(l -> !l.startsWith("    ")).count())
                .as("one sentence, and perhaps the place it speaks of")
                .isEqualTo(1);
        assertThat(said.out()).isEmpty();
    }

    @Test
    void whatTheProgramDidWrongItselfIsSaidAndLogged() throws IOException {
        String before = System.setProperty("needle.home", folder.toString());
        try {
            assertThat(NeedleCommand.oneLine(new IllegalArgumentException("Write\na number.")))
                    .isEqualTo("Write a number.");
            assertThat(folder.resolve("log")).doesNotExist();
            assertThat(NeedleCommand.oneLine(new NullPointerException("Cannot invoke \"x\"")))
                    .startsWith("Something went wrong in the program itself; ")
                    .contains("needle.log")
                    .doesNotContain("invoke");
            assertThat(folder.resolve("log").resolve("needle.log"))
                    .content()
                    .contains("NullPointerException: Cannot invoke")
                    .contains("CommandLineTest");
        } finally {
            if (before == null) {
                System.clearProperty("needle.home");
            } else {
                System.setProperty("needle.home", before);
            }
        }
    }

    @Test
    void evalPrintsTheQuantityAndItsJson() throws IOException {
        assertThat(needle("eval", "9.8123(4) m/s^2 * 2 kg").out().strip()).isEqualTo("19.62460(80) N");
        JsonNode q = needle("eval", "v = 3.00(3) m / 2.00(4) s", "--json")
                .json()
                .get("quantities")
                .get(0);
        assertThat(q.get("name").asText()).isEqualTo("v");
        assertThat(q.get("value").asDouble()).isEqualTo(1.5);
        assertThat(q.get("u").asDouble()).isCloseTo(1.5 * Math.hypot(0.01, 0.02), within(1e-12));
        assertThat(q.get("unit").asText()).isEqualTo("m/s");
        assertThat(q.get("dof").isNull()).isTrue();
        assertThat(q.get("U").asDouble())
                .isCloseTo(q.get("k").asDouble() * q.get("u").asDouble(), within(1e-12));
        assertThat(needle("eval", "column(1 m, 2 m) * 2", "--json").json().get("quantities"))
                .hasSize(2);
        assertThat(needle("eval", "line(column(1, 3, 5.2), column(0, 1, 2))", "--json")
                        .json()
                        .get("parameters"))
                .hasSize(2);
        assertThat(needle("eval", "1 < 2").out().strip()).isEqualTo("true");
    }

    /**
     * The whole way that a script takes: a simulated session, its hidden truth apart, and what the session gives, by
     * name and unit.
     */
    @ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(
            strings = {
                "baggage-chute",
                "drying-cabinet",
                "potters-wheel",
                "weather-vane-reed",
                "fading-dye",
                "dividing-tables"
            })
    void whatAScriptComparesWithTheHiddenTruthLiesNearIt(String method) throws IOException {
        int inside = 0;
        int all = 0;
        for (int seed = 101; seed < 101 + Math.min(40, Integer.getInteger("sessions", 4)); seed++) {
            Path file = folder.resolve("s" + seed + ".needle");
            Path truth = folder.resolve("s" + seed + ".json");
            assertThat(needle("simulate", method, "--seed", seed, "--truth", truth, "-o", file)
                            .status())
                    .isZero();
            JsonNode quantities = needle("reduce", file, "--json").json().get("quantities");
            JsonNode hidden = new ObjectMapper().readTree(truth.toFile()).get("truth");
            for (var names = hidden.fieldNames(); names.hasNext(); ) {
                String name = names.next();
                for (JsonNode q : quantities) {
                    if (q.get("name").asText().equals(name) && q.has("value")) {
                        assertThat(q.get("unit").asText())
                                .as(name)
                                .isEqualTo(hidden.get(name).get("unit").asText());
                        double off = Math.abs(q.get("value").asDouble()
                                - hidden.get(name).get("value").asDouble());
                        assertThat(off)
                                .as("%s, seed %d", name, seed)
                                .isLessThanOrEqualTo(3 * q.get("U").asDouble());
                        inside += off <= q.get("U").asDouble() ? 1 : 0;
                        all++;
                    }
                }
            }
        }
        System.out.printf("%s by the command line: %d of %d truths in their intervals%n", method, inside, all);
        assertThat(inside).isGreaterThan((int) (0.8 * all));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"3 m + 2 s | column 1", "1 + | column 4", "sine(3) | did you mean sin", "1 / 0 | zero"})
    void evalRefusesInOneLine(String formula, String why) {
        refused(needle("eval", formula), why);
    }

    @Test
    void evalSaysWhereFirstOrderIsNotEnough() throws IOException {
        Said bent = needle("eval", "(0.0 ± 1.0)^2");
        assertThat(bent.out()).contains("First order is not good enough here");
        JsonNode q = needle("eval", "(0.0 ± 1.0)^2", "--json")
                .json()
                .get("quantities")
                .get(0);
        assertThat(q.get("u").asDouble()).isZero();
        assertThat(q.get("monteCarlo").get("mean").asDouble()).isCloseTo(1, within(0.05));
        assertThat(q.get("monteCarlo").get("firstOrderIsGoodEnough").asBoolean())
                .isFalse();
        assertThat(needle("eval", "2.00(1) m * 3 s").out().strip()).isEqualTo("6.000(30) m·s");
        JsonNode ratio = needle("eval", "limit(2, 1) / limit(5, 1)", "--json")
                .json()
                .get("quantities")
                .get(0);
        assertThat(ratio.get("limits").get("low").asDouble()).isCloseTo(1.0 / 6, within(1e-12));
        assertThat(ratio.get("limits").get("exact").asBoolean()).isTrue();
        assertThat(needle("eval", "(1.60 ± 0.02)e-3 kg").out().strip()).isEqualTo("0.001600(20) kg");
        assertThat(needle("eval", "verdict(9.70(5) m/s^2, 9.81 m/s^2)").out()).contains("does not agree");
    }

    @Test
    void fitTakesUncertaintiesInBothColumnsAndNamedModels() throws IOException {
        Path csv = folder.resolve("both.csv");
        Files.writeString(
                csv,
                "x,y,ux,uy\n0,5.9,0.03162277660168379,1\n0.9,5.4,0.03162277660168379,0.7453559924999299\n1.8,4.4,0.044721359549995794,0.5\n2.6,4.6,0.035355339059327376,0.35355339059327373\n"
                        + "3.3,3.5,0.07071067811865475,0.22360679774997896\n4.4,3.7,0.11180339887498948,0.22360679774997896\n5.2,2.8,0.12909944487358055,0.11952286093343936\n6.1,2.8,0.22360679774997896,0.11952286093343936\n"
                        + "6.5,2.4,0.7453559924999299,0.1\n7.4,1.5,1,0.044721359549995794\n");
        JsonNode f = needle("fit", csv, "--model", "y = a + b*x", "--u-x", "ux", "--u-y", "uy", "--json")
                .json();
        assertThat(f.get("parameters").get(0).get("value").asDouble()).isCloseTo(5.47991022403, within(1e-9));
        assertThat(f.get("parameters").get(1).get("value").asDouble()).isCloseTo(-0.48053340745, within(1e-9));
        assertThat(f.get("chiSquared").asDouble()).isCloseTo(11.86635, within(1e-4));
        StringBuilder decay = new StringBuilder("t,v\n");
        for (int i = 0; i < 20; i++) {
            decay.append(i).append(',').append(1 + 4 * Math.exp(-i / 3.0)).append('\n');
        }
        Files.writeString(csv, decay);
        JsonNode d = needle("fit", csv, "--model", "v = decay(t)", "--json").json();
        assertThat(d.get("parameters").get(2).get("name").asText()).isEqualTo("tau");
        assertThat(d.get("parameters").get(2).get("value").asDouble()).isCloseTo(3, within(1e-6));
        refused(needle("fit", csv, "--model", "v = decay(w)"), "written with columns");
        refused(needle("fit", csv, "--model", "v = a*t", "--u-y", "nothing"), "no column nothing");
    }

    @Test
    void aFitThatDoesNotConvergeGivesNoNumber() throws IOException {
        Path csv = folder.resolve("flat.csv");
        Files.writeString(csv, "x,y\n1,2\n2,2.1\n3,1.9\n4,2\n5,2.05\n");
        Said said = needle(
                "fit", csv, "--model", "y = a*exp(b*x) + c*exp(d*x)", "--start", "a=1,b=1e5,c=1,d=1e5", "--json");
        refused(needle("fit", csv, "--model", "y = a + b*x + c*x^2 + d*x^3 + f*x^4"), "5 points are too few");
        assertThat(said.status()).isEqualTo(1);
        assertThat(said.json().get("converged").asBoolean()).isFalse();
        assertThat(said.json().get("parameters")).isEmpty();
        assertThat(said.err().strip().lines().count()).isEqualTo(1);
    }

    @Test
    void fitPrintsParametersCovarianceAndConvergence() throws IOException {
        Path csv = folder.resolve("d.csv");
        Files.writeString(csv, "x,y,s\n0,1.1,0.1\n1,2.9,0.1\n2,5.2,0.1\n3,6.9,0.1\n");
        JsonNode f = needle("fit", csv, "--model", "y = a + b*x", "--json").json();
        assertThat(f.get("converged").asBoolean()).isTrue();
        assertThat(f.get("parameters").get(1).get("name").asText()).isEqualTo("b");
        assertThat(f.get("parameters").get(1).get("value").asDouble()).isCloseTo(1.97, within(1e-9));
        assertThat(f.get("covariance").get(0).get(1).asDouble()).isNegative();
        assertThat(f.get("dof").asInt()).isEqualTo(2);
        JsonNode weighted = needle("fit", csv, "--model", "y = a + b*x", "--u-y", "s", "--start", "a=3,b=4", "--json")
                .json();
        assertThat(weighted.get("parameters").get(1).get("u").asDouble()).isCloseTo(0.1 / Math.sqrt(5), within(1e-9));
        assertThat(needle("fit", csv, "--model", "y = a + b*x").out()).contains("b = 1.97");
        refused(needle("fit", csv, "--model", "z = a + b*x"), "no column z");
        refused(needle("fit", csv, "--model", "y = a + b*x", "--u-y", "q"), "no column q");
        refused(needle("fit", csv, "--model", "a + b*x"), "ordinate on the left");
        refused(needle("fit", csv, "--model", "y = a + b*x", "--start", "c=1"), "no parameter c");
        refused(needle("fit", folder.resolve("none.csv"), "--model", "y = a"), "cannot be read");
        Files.writeString(csv, "x,y\n0,1\n1,abc\n2,3\n");
        refused(needle("fit", csv, "--model", "y = a + b*x"), "line 3");
    }

    @Test
    void simulateAndReduceGiveWhatTheWindowShows() throws IOException {
        Path file = folder.resolve("s.needle");
        Path truth = folder.resolve("t.json");
        assertThat(needle("simulate", "baggage-chute", "--seed", 5, "--truth", truth, "-o", file)
                        .status())
                .isZero();
        JsonNode t = new ObjectMapper().readTree(truth.toFile()).get("truth");
        Said json = needle("reduce", file, "--json");
        assertThat(json.status()).isZero();
        for (JsonNode q : json.json().get("quantities")) {
            String name = q.get("name").asText();
            if (name.equals("g") || name.equals("friction")) {
                assertThat(q.get("unit").asText())
                        .isEqualTo(t.get(name).get("unit").asText());
                assertThat(q.get("value").asDouble())
                        .isCloseTo(
                                t.get(name).get("value").asDouble(),
                                within(4 * q.get("u").asDouble()));
            }
        }
        try (Workbench bench = new Workbench(BenchFile.open(file), Clock.systemUTC())) {
            assertThat(json.out().strip())
                    .isEqualTo(ReductionJson.of(bench.reduction(), bench.findings())
                            .strip());
        }
        assertThat(needle("reduce", file).out()).contains("local g").contains("agrees with");
        Path html = folder.resolve("r.html");
        assertThat(needle("report", file, "-o", html).status()).isZero();
        assertThat(Files.readString(html)).startsWith("<!DOCTYPE html>").contains("local g");
        Path pdf = folder.resolve("r.pdf");
        assertThat(needle("report", file, "-o", pdf).status()).isZero();
        assertThat(Files.readAllBytes(pdf))
                .startsWith("%PDF-".getBytes(StandardCharsets.US_ASCII))
                .hasSizeGreaterThan(50_000);
        refused(needle("report", file, "-o", folder.resolve("r.doc")), "PDF or HTML");
    }

    @Test
    void theSameSeedIsTheSameSession() {
        needle("simulate", "baggage-chute", "--seed", 5, "-o", folder.resolve("a.needle"));
        needle("simulate", "baggage-chute", "--seed", 5, "-o", folder.resolve("b.needle"));
        assertThat(needle("reduce", folder.resolve("a.needle"), "--json").out())
                .isEqualTo(
                        needle("reduce", folder.resolve("b.needle"), "--json").out());
    }

    @Test
    void faultsAreWatchedFor() throws IOException {
        Path file = folder.resolve("f.needle");
        needle("simulate", "baggage-chute", "--seed", 5, "--fault", "no-echo", "-o", file);
        assertThat(needle("reduce", file, "--json").json().get("watches").toString())
                .contains("out of range");
        refused(needle("simulate", "baggage-chute", "--fault", "gremlins", "-o", file), "no fault called gremlins");
        refused(needle("simulate", "no-such", "-o", file), "no method of that name");
        refused(needle("simulate", "baggage-chute"), "Name a method and a file");
    }

    @Test
    void theListNamesMethodsAndFaults() throws IOException {
        JsonNode list = needle("simulate", "--list", "--json").json();
        assertThat(list.get(0).get("id").asText()).isEqualTo("baggage-chute");
        assertThat(list.get(0).get("subject").asText()).isEqualTo("Motion");
        assertThat(list.get(0).get("faults")).hasSize(3);
        assertThat(needle("simulate", "--list").out()).contains("baggage-chute");
    }

    @Test
    void aNewSheetIsGoodAndCanBeCarriedOutAtOnce() throws IOException {
        Path sheet = folder.resolve("spring-scale.yaml");
        assertThat(needle("new", folder.resolve("spring-scale")).out()).contains("spring-scale.yaml is written");
        assertThat(Files.readString(sheet)).contains("title: \"Spring scale\"");
        assertThat(needle("check", sheet).out()).contains("good");
        refused(needle("new", sheet), "is there already");
        refused(needle("new", folder.resolve("Spring Scale")), "small letters, digits and hyphens");
        Path file = folder.resolve("s.needle");
        assertThat(needle("simulate", sheet, "--seed", 4, "-o", file).out()).contains("8 runs of spring-scale, seed 4");
        JsonNode quantities = needle("reduce", file, "--json").json().get("quantities");
        assertThat(quantities.findValuesAsText("name")).contains("k", "y_0");
        refused(needle("simulate", folder.resolve("none.yaml"), "-o", file), "no such file");
    }

    @Test
    void checkSaysGoodOrWhatIsWrong() throws IOException {
        Path sheet = folder.resolve("my.yaml");
        Files.writeString(sheet, SheetReader.shippedText("baggage-chute"));
        assertThat(needle("check", sheet).out()).contains("good");
        Files.writeString(
                sheet, SheetReader.shippedText("baggage-chute").replace("slope(fall_line)", "slope(fall_lin)"));
        Said one = needle("check", sheet);
        assertThat(one.status()).isEqualTo(2);
        List<String> lines = one.err().lines().toList();
        assertThat(lines).hasSize(3);
        assertThat(lines.get(0)).contains("did you mean fall_line?");
        assertThat(lines.get(1)).startsWith("    g_eff: {label: slope of the line");
        assertThat(lines.get(1).substring(lines.get(2).indexOf('^'))).startsWith("fall_lin)");
        Files.writeString(
                sheet,
                SheetReader.shippedText("baggage-chute")
                        .replace("slope(fall_line)", "slope(fall_lin)")
                        .replace("device: ranger", "device: rangr"));
        assertThat(needle("check", sheet).err())
                .contains("did you mean ranger?", "did you mean fall_line?", "2 problems.");
        refused(needle("check", folder.resolve("none.yaml")), "no such file");
        Files.write(sheet, new byte[] {(byte) 0xFF, (byte) 0xFE, 0, 1});
        refused(needle("check", sheet), "not a text file");
    }

    @Test
    void badFilesAreRefusedAndRepaired() throws IOException {
        Path file = folder.resolve("x.needle");
        refused(needle("reduce", file), "is not there");
        Files.writeString(file, "nonsense that is long enough to be read");
        refused(needle("reduce", file), "not a bench file");
        Path whole = folder.resolve("whole.needle");
        needle("simulate", "baggage-chute", "--seed", 2, "-o", whole);
        byte[] bytes = Files.readAllBytes(whole);
        Files.write(whole, java.util.Arrays.copyOf(bytes, bytes.length / 2));
        refused(needle("reduce", whole), "cut short or damaged");
        Path repaired = folder.resolve("repaired.needle");
        Said said = needle("repair", whole, "-o", repaired);
        assertThat(said.status()).as("something is missing").isEqualTo(1);
        assertThat(said.err()).isEmpty();
        assertThat(said.out()).contains("lacks").containsPattern("[0-9]");
        assertThat(needle("reduce", repaired, "--json").json().get("quantities"))
                .isNotEmpty();
    }

    @Test
    void aSessionIsExportedAndItsRunsComeBackTheSame() throws IOException {
        Path whole = folder.resolve("out.needle");
        needle("simulate", "baggage-chute", "--seed", 3, "-o", whole);
        for (String ending : new String[] {"csv", "json", "xlsx", "h5", "zip"}) {
            Path to = folder.resolve("out." + ending);
            assertThat(needle("export", whole, "-o", to).status()).as(ending).isZero();
            assertThat(to).isNotEmptyFile();
        }
        refused(needle("export", whole, "-o", folder.resolve("out.doc")), "end its name with one of");
        Path runs = Files.createDirectory(folder.resolve("runs"));
        try (var bench = new eagerneedle.app.workbench.Workbench(
                eagerneedle.store.bench.BenchFile.open(whole), java.time.Clock.systemUTC())) {
            for (int id = 1; id <= 3; id++) {
                Files.writeString(
                        runs.resolve("run" + id + ".json"),
                        eagerneedle.store.export.SessionExport.json(
                                bench.reduction(), bench.session().run(id).orElseThrow()));
            }
            Path again = folder.resolve("again.needle");
            Said said = needle(
                    "import",
                    runs.resolve("run1.json"),
                    runs.resolve("run2.json"),
                    runs.resolve("run3.json"),
                    "--into",
                    again,
                    "--method",
                    "baggage-chute");
            assertThat(said.status()).as(said.err()).isZero();
            assertThat(said.out()).contains("Run 1 from run1.json").contains("level_east at level");
            try (var file = eagerneedle.store.bench.BenchFile.open(again)) {
                for (int id = 1; id <= 3; id++) {
                    assertThat(file.samples(id, "position").values())
                            .isEqualTo(bench.file().samples(id, "position").values());
                    assertThat(file.samples(id, "position").time())
                            .isEqualTo(bench.file().samples(id, "position").time());
                    assertThat(file.session().run(id).orElseThrow().rawUnit("position"))
                            .isEqualTo("counts");
                }
            }
            refused(
                    needle("import", runs.resolve("run1.json"), "--into", again, "--capture", "ramps"),
                    "no capture ramps");
        }
        Path words = folder.resolve("words.csv");
        Files.writeString(words, "only words here\nand nothing else\n");
        refused(needle("import", words, "--into", folder.resolve("again.needle")), "holds no rows of numbers");
    }

    @Test
    void everyDocumentedCommandExists() throws IOException {
        String page = Files.readString(Path.of("..", "docs", "command-line.md"));
        String usage = needle("--help").out();
        java.util.regex.Matcher m =
                java.util.regex.Pattern.compile("\\./needle ([a-z]+)").matcher(page);
        int found = 0;
        while (m.find()) {
            found++;
            assertThat(usage + " test bench").as("./needle " + m.group(1)).contains(m.group(1));
        }
        assertThat(found).isGreaterThan(10);
    }

    @Test
    void unknownWordsGetAHintNotATrace() {
        refused(needle("reduse"), "--help");
        refused(needle("eval"), "--help");
        assertThat(needle("--version").out()).contains("Eager Needle");
        assertThat(needle().out()).contains("Usage");
    }

    /** Help needs none of what the command itself needs, and every command that the start script knows is listed. */
    @Test
    void helpIsGivenForEveryCommand() {
        String usage = needle("--help").out();
        var commands = NeedleCommand.COMMANDS;
        commands.forEach((name, type) -> assertThat(
                        type.getAnnotation(picocli.CommandLine.Command.class).name())
                .isEqualTo(name));
        assertThat(commands.keySet()).contains("open", "demo", "shots", "bench", "test", "fit", "simulate", "repair");
        commands.keySet().forEach(name -> {
            assertThat(usage).contains(name);
            Said said = needle(name, "--help");
            assertThat(said.status()).as(name).isZero();
            assertThat(said.out()).as(name).startsWith("Usage: needle " + name);
            assertThat(said.err()).as(name).isEmpty();
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"-5 degC | −5 °C", "-2 m | −2 m", "-(3 m) + 1 m | −2 m"})
    void aFormulaMayBeginWithAMinus(String formula, String prints) {
        assertThat(needle("eval", formula).out().strip()).isEqualTo(prints);
    }

    private Path file(String name, String text) {
        try {
            return Files.writeString(folder.resolve(name), text);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** Each gets one sentence, soon; nothing is kept of it. */
    @Test
    @org.junit.jupiter.api.Timeout(120)
    void whatIsMadeToBreakAProgramGetsOneSentence() throws IOException {
        Path whole = folder.resolve("kept.needle");
        needle("simulate", "baggage-chute", "--seed", 3, "-o", whole);
        byte[] before = Files.readAllBytes(whole);
        StringBuilder aliases = new StringBuilder("a0: &a0 [x, x, x, x, x, x, x, x, x]\n");
        for (int i = 1; i < 7; i++) {
            aliases.append("a%d: &a%d [%s]\n".formatted(i, i, ("*a" + (i - 1) + ", ").repeat(8) + "*a" + (i - 1)));
        }
        refused(needle("check", file("aliases.yaml", aliases.toString())), "aliases.yaml");
        refused(
                needle("check", file("comment.yaml", "# " + "x".repeat(10_000_000) + "\nid: x\n")),
                "at most 1\u2009000\u2009000");
        refused(needle("check", file("bell.yaml", "id: x\ntitle: \"a\\u0007b\"\n")), "control character");
        refused(
                needle("import", file("wide.csv", "1" + ",1".repeat(1_000_000) + "\n"), "--into", whole),
                "1000001 columns");
        refused(
                needle(
                        "import",
                        file("infinite.csv", "time (s),position (mm)\n0,1\n1,Infinity\n2,3\n"),
                        "--into",
                        whole),
                "'Infinity' is not a number");
        refused(
                needle("import", file("large.csv", "time (s),position (mm)\n0,1\n1,1e999\n2,3\n"), "--into", whole),
                "1e999");
        refused(
                needle(
                        "import",
                        file("nan.json", "{\"columns\": {\"t\": [0, 1], \"position\": [1, 1e999]}}"),
                        "--into",
                        whole),
                "nan.json");
        refused(
                needle("import", file("unit.csv", "Time (s),Position (blorgs)\n0,1\n1,2\n2,3\n"), "--into", whole),
                "'blorgs'");
        refused(
                needle(
                        "import",
                        file(
                                "unit.json",
                                "{\"columns\": {\"t\": [0, 1, 2], \"position\": [1, 2, 3]}, \"units\": "
                                        + "{\"position\": \"blorgs\"}}"),
                        "--into",
                        whole),
                "'blorgs'");
        refused(
                needle("fit", file("twice.csv", "x,x,y\n1,2,3\n2,3,4\n3,4,6\n"), "--model", "y = a + b*x"),
                "two columns called 'x'");
        refused(needle("eval", "1" + "+1".repeat(50_000)), "split it into named parts");
        refused(needle("eval", "1" + "+1".repeat(20_000)), "split it into named parts");
        assertThat(Files.readAllBytes(whole)).isEqualTo(before);
    }

    /** Stated units are taken as they are stated: minutes are no seconds, inches no metres. */
    @Test
    void statedUnitsOfAFileAreKept() throws IOException {
        Path to = folder.resolve("inches.needle");
        Said said = needle(
                "import",
                file("inches.csv", "Time (minutes),Position (inches)\n0,1\n0.5,2\n1,3\n"),
                "--into",
                to,
                "--method",
                "baggage-chute");
        assertThat(said.status()).as(said.err()).isZero();
        Path out = folder.resolve("inches.json");
        needle("export", to, "-o", out);
        JsonNode channel = new ObjectMapper()
                .readTree(out.toFile())
                .get("runs")
                .get(0)
                .get("channels")
                .get(0);
        double[] time = {0, 30, 60};
        double[] metres = {0.0254, 0.0508, 0.0762};
        for (int i = 0; i < 3; i++) {
            assertThat(channel.get("time").get(i).asDouble()).isEqualTo(time[i]);
            assertThat(channel.get("measurand").get(i).asDouble()).isCloseTo(metres[i], within(1e-15));
        }
    }

    /** The record of a shot counts from its trigger; a record of another kind begins with its first row. */
    @Test
    void aRunThatBeginsBeforeZeroKeepsItsTrigger() throws IOException {
        String record = "{\"start\": \"2026-11-23T09:00:00Z\", \"columns\": {\"t\": [-0.2, -0.1, 0, 0.1], \"strain\": "
                + "[1, 2, 30, 4]}, \"units\": {\"strain\": \"microstrain\"}}";
        Path to = folder.resolve("shot.needle");
        Said said = needle(
                "import",
                file("shot.json", record),
                "--into",
                to,
                "--method",
                "weather-vane-reed",
                "--capture",
                "ring");
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(needle("import", file("still.json", record), "--into", to, "--capture", "static")
                        .status())
                .isZero();
        try (BenchFile bench = BenchFile.open(to)) {
            assertThat(bench.samples(1, "strain").time()).containsExactly(-0.2, -0.1, 0, 0.1);
            assertThat(bench.samples(2, "strain").time()[0]).isZero();
        }
        assertThat(needle("reduce", to).err()).isEmpty();
    }

    /**
     * What a calibration finds has its hidden value, as results have; what it only takes as given is said to be taken.
     */
    @Test
    void whatCalibrationsGiveCanBeScored() throws IOException {
        int inside = 0;
        for (int seed = 1; seed <= 8; seed++) {
            Path to = folder.resolve("cabinet" + seed + ".needle");
            Path truth = folder.resolve("cabinet" + seed + ".json");
            needle("simulate", "drying-cabinet", "--seed", seed, "--truth", truth, "-o", to);
            JsonNode hidden =
                    new ObjectMapper().readTree(truth.toFile()).get("truth").get("cabinet.intercept");
            for (JsonNode q : needle("reduce", to, "--json").json().get("quantities")) {
                if (q.get("name").asText().equals("cabinet.slope")) {
                    assertThat(q.get("says").asText()).startsWith("taken as 1");
                } else if (q.get("name").asText().equals("cabinet.intercept")) {
                    assertThat(q.get("unit").asText())
                            .isEqualTo(hidden.get("unit").asText());
                    inside += Math.abs(q.get("value").asDouble()
                                            - hidden.get("value").asDouble())
                                    <= 2 * q.get("U").asDouble()
                            ? 1
                            : 0;
                }
            }
        }
        assertThat(inside).isGreaterThanOrEqualTo(7);
    }

    /**
     * Numbers are written alike wherever the machine stands; a comma between digits would read as thousands, or as a
     * decimal sign.
     */
    @ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(strings = {"de-DE", "ar-EG", "fr-FR", "en-US"})
    void numbersAreWrittenAlikeOnEveryMachine(String machine) {
        java.util.Locale before = java.util.Locale.getDefault();
        try {
            java.util.Locale.setDefault(java.util.Locale.forLanguageTag(machine));
            assertThat(needle("eval", "1/0.5(3)").out()).contains("200\u2009000 draws");
            java.util.Locale.setDefault(java.util.Locale.forLanguageTag(machine));
            assertThat(needle("eval", "slope(trace(index(40) * 1 s, index(40) * 1 V + sin(index(40) / 6) * 1 V))")
                            .out())
                    .contains("runs test −5.4");
        } finally {
            java.util.Locale.setDefault(before);
        }
    }

    /** What rehearsals state and what they miss their truth by go together, and neither is the plan read back. */
    @Test
    void aPlanIsHeldAgainstRehearsals() throws IOException {
        JsonNode all =
                needle("plan", "baggage-chute", "--sessions", "12", "--json").json();
        JsonNode g = null;
        for (JsonNode n : all) {
            g = n.get("name").asText().equals("g") ? n : g;
        }
        assertThat(g.get("sessions").asInt()).isEqualTo(12);
        assertThat(g.get("rehearsed").asDouble()).isBetween(9.7, 9.9);
        assertThat(g.has("planned")).as("nothing is planned by hand").isFalse();
        assertThat(g.get("missed").asDouble() / g.get("rehearsed_u").asDouble()).isBetween(0.4, 1.8);
        assertThat(needle("plan", "logging-day", "--sessions", "0").out())
                .contains("nothing can be told without carrying it out")
                .contains("Not rehearsed.");
    }
}
