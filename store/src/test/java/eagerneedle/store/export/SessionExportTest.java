package eagerneedle.store.export;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.foreign.ForeignFile;
import io.jhdf.HdfFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * What goes out comes back: the same samples bit for bit, the same quantities, and formulas that give the same figures.
 */
class SessionExportTest {
    private static Reduction reduction;

    @TempDir
    private Path folder;

    @BeforeAll
    static void reduce() {
        Rehearsal r = Rehearsal.of(
                SheetTrial.read(SheetReader.shippedText("drying-cabinet"), "sheet"),
                Rigs.chains(
                        SheetReader.read(SheetReader.shippedText("drying-cabinet"), "x")
                                .sheet(),
                        7,
                        Set.of()),
                Instant.parse("2026-11-23T09:00:00Z"));
        reduction = new Reducer(
                        SheetTrial.read(r.session().sheetText(), "sheet"),
                        (run, c) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(c, RawSamples.NONE))
                .reduce(r.session());
    }

    private Path written(String name) {
        Path to = folder.resolve(name);
        SessionExport.write(reduction, List.of(), to);
        return to;
    }

    private static RawSamples raw(Run run, String channel) {
        return reduction.source().samples(run.id(), channel);
    }

    @Test
    void jsonComesBackBitForBit() throws Exception {
        for (Run run : reduction.session().keptRuns()) {
            Path one = folder.resolve("run" + run.id() + ".json");
            Files.writeString(one, SessionExport.json(reduction, run));
            Table t = ForeignFile.table(one);
            assertThat(t.names()).containsExactly("time", "cabinet", "bath", "room");
            assertThat(t.start()).isEqualTo(run.started());
            for (int c = 1; c < 4; c++) {
                assertThat(t.columns()[0]).isEqualTo(raw(run, t.names().get(c)).time());
                assertThat(t.columns()[c]).isEqualTo(raw(run, t.names().get(c)).values());
                assertThat(t.units().get(c)).isEqualTo("counts");
            }
        }
        JsonNode root = new ObjectMapper().readTree(written("session.json").toFile());
        Map<String, Double> values = new HashMap<>();
        root.path("quantities")
                .forEach(
                        q -> values.put(q.path("name").asText(), q.path("value").asDouble()));
        for (Ledger.Entry e : reduction.ledger().entries()) {
            e.quantity().ifPresent(q -> assertThat(values.get(e.name())).isEqualTo(q.value()));
        }
        assertThat(root.path("runs")).hasSize(reduction.session().keptRuns().size());
    }

    @Test
    void hdfComesBackBitForBit() {
        try (HdfFile file = new HdfFile(written("session.h5"))) {
            for (Run run : reduction.session().keptRuns()) {
                for (String c : List.of("cabinet", "bath", "room")) {
                    String at = "/run_" + run.id() + "/" + c;
                    assertThat((double[]) file.getDatasetByPath(at + "/time").getData())
                            .isEqualTo(raw(run, c).time());
                    assertThat((double[]) file.getDatasetByPath(at + "/raw").getData())
                            .isEqualTo(raw(run, c).values());
                    assertThat(file.getDatasetByPath(at + "/value")
                                    .getAttribute("unit")
                                    .getData())
                            .isEqualTo("degC");
                    double[] value =
                            (double[]) file.getDatasetByPath(at + "/value").getData();
                    assertThat(value)
                            .isEqualTo(reduction.trace(run, c).orElseThrow().value());
                }
                assertThat(file.getByPath("/run_" + run.id())
                                .getAttribute("level")
                                .getData())
                        .isEqualTo(run.level());
            }
        }
    }

    @Test
    void theDataPackageDescribesEveryFieldAndItsNumbersAreWhole() throws Exception {
        try (ZipFile zip = new ZipFile(written("session.zip").toFile())) {
            JsonNode d = new ObjectMapper().readTree(zip.getInputStream(zip.getEntry("datapackage.json")));
            assertThat(d.path("name").asText()).isEqualTo("drying-cabinet");
            for (JsonNode r : d.path("resources")) {
                String text = new String(
                        zip.getInputStream(zip.getEntry(r.path("path").asText()))
                                .readAllBytes(),
                        StandardCharsets.UTF_8);
                String head = text.lines().findFirst().orElseThrow();
                List<String> fields = new java.util.ArrayList<>();
                r.path("schema")
                        .path("fields")
                        .forEach(f -> fields.add(f.path("name").asText()));
                assertThat(head).isEqualTo(String.join(",", fields));
                if (r.path("name").asText().startsWith("run-")) {
                    assertThat(r.path("schema")
                                    .path("fields")
                                    .get(2)
                                    .path("unit")
                                    .asText())
                            .isEqualTo("degC");
                    Path csv = folder.resolve("one.csv");
                    Files.writeString(csv, text);
                    Table t = ForeignFile.table(csv);
                    String[] parts = r.path("path")
                            .asText()
                            .replace("runs/", "")
                            .replace(".csv", "")
                            .split("-");
                    RawSamples truth = reduction.source().samples(Integer.parseInt(parts[0]), parts[1]);
                    assertThat(t.columns()[0]).isEqualTo(truth.time());
                    assertThat(t.columns()[1]).isEqualTo(truth.values());
                }
            }
            assertThat(zip.getEntry("sheet.yaml")).isNotNull();
        }
    }

    /** The workbook's own arithmetic, done here from its cells: mean of the sample range and U = k u. */
    @Test
    void theWorkbookHoldsFormulasOverItsOwnCells() throws Exception {
        try (ZipFile zip = new ZipFile(written("session.xlsx").toFile())) {
            String ledger = new String(
                    zip.getInputStream(zip.getEntry("xl/worksheets/sheet1.xml")).readAllBytes(),
                    StandardCharsets.UTF_8);
            String runs = new String(
                    zip.getInputStream(zip.getEntry("xl/worksheets/sheet2.xml")).readAllBytes(),
                    StandardCharsets.UTF_8);
            String samples = new String(
                    zip.getInputStream(zip.getEntry("xl/worksheets/sheet3.xml")).readAllBytes(),
                    StandardCharsets.UTF_8);
            int row = 2
                    + reduction.ledger().entries().stream()
                            .filter(e -> e.quantity().isPresent())
                            .map(Ledger.Entry::name)
                            .toList()
                            .indexOf("T_air");
            Quantity t = reduction.quantity("T_air").orElseThrow();
            assertThat(ledger).contains("<f>D" + row + "*E" + row + "</f>");
            assertThat(number(ledger, "C" + row)).isEqualTo(t.value());
            assertThat(number(ledger, "D" + row)).isEqualTo(t.u());
            RawSamples raw = raw(reduction.session().keptRuns().get(0), "cabinet");
            assertThat(runs)
                    .contains("<f>AVERAGE('run 1'!C2:C" + (raw.size() + 1) + ")</f>")
                    .contains("<f>STDEV('run 1'!F2:F");
            assertThat(number(samples, "A" + (raw.size() + 1))).isEqualTo(raw.time()[raw.size() - 1]);
            assertThat(number(samples, "B2")).isEqualTo(raw.values()[0]);
        }
        assertThat(WorkbookExport.letters(0)).isEqualTo("A");
        assertThat(WorkbookExport.letters(25)).isEqualTo("Z");
        assertThat(WorkbookExport.letters(26)).isEqualTo("AA");
        assertThat(WorkbookExport.letters(701)).isEqualTo("ZZ");
        assertThat(WorkbookExport.letters(702)).isEqualTo("AAA");
    }

    private static double number(String sheet, String cell) {
        int at = sheet.indexOf("r=\"" + cell + "\"");
        int v = sheet.indexOf("<v>", at);
        return Double.parseDouble(sheet.substring(v + 3, sheet.indexOf("</v>", v)));
    }

    @Test
    void anUnknownEndingOrAFolderThatIsNotThereIsOneSentence() {
        assertThatThrownBy(() -> written("session.doc"))
                .hasMessageContaining("does not say in what format")
                .hasMessageContaining(".xlsx");
        assertThatThrownBy(() -> written("nowhere/session.json")).hasMessageContaining("cannot be written there");
        assertThat(folder).isEmptyDirectory();
    }

    /**
     * Every method: each raw sample has its measurand, each window and each prompted reading is there as the reduction
     * has it, in every format.
     */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.ValueSource(
            strings = {
                "baggage-chute",
                "drying-cabinet",
                "potters-wheel",
                "weather-vane-reed",
                "fading-dye",
                "dividing-tables"
            })
    void everyFormatHoldsWindowsReadingsAndMeasurandsOfEveryMethod(String method) throws Exception {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(method), "sheet");
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 7, Set.of()), Instant.parse("2026-11-23T09:00:00Z"));
        Reduction all = new Reducer(
                        sheet,
                        (run, c) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(c, RawSamples.NONE))
                .reduce(r.session());
        Path json = folder.resolve(method + ".json");
        Path zip = folder.resolve(method + ".zip");
        Path hdf = folder.resolve(method + ".h5");
        Path book = folder.resolve(method + ".xlsx");
        List.of(json, zip, hdf, book).forEach(to -> SessionExport.write(all, List.of(), to));
        JsonNode runs = new ObjectMapper().readTree(json.toFile()).path("runs");
        int windows = 0;
        int readings = 0;
        List<JsonNode> byEye = new java.util.ArrayList<>();
        try (HdfFile file = new HdfFile(hdf)) {
            for (JsonNode n : runs) {
                Run run = all.session().run(n.path("id").asInt()).orElseThrow();
                for (JsonNode c : n.path("channels")) {
                    assertThat(c.path("measurand"))
                            .hasSize(all.source()
                                    .samples(run.id(), c.path("name").asText())
                                    .size());
                    c.path("measurand")
                            .forEach(v -> assertThat(v.isNumber())
                                    .as("%s, %s of %s", method, c.path("name").asText(), run.name())
                                    .isTrue());
                }
                for (JsonNode w : n.path("windows")) {
                    String name = w.path("window").asText();
                    double[] span = {w.path("from").asDouble(), w.path("to").asDouble()};
                    assertThat(span)
                            .containsExactly(
                                    all.window(run, name).orElseThrow().from(),
                                    all.window(run, name).orElseThrow().to());
                    assertThat((double[]) file.getByPath("/run_" + run.id())
                                    .getAttribute("window " + name)
                                    .getData())
                            .isEqualTo(span);
                    windows++;
                }
                if (!run.entries().marks().isEmpty()) {
                    double[] value = all.trace(run, "light").orElseThrow().value();
                    List<JsonNode> prompted = new java.util.ArrayList<>();
                    n.path("readings")
                            .forEach(row -> (row.path("reading").asText().equals("light") ? prompted : byEye).add(row));
                    assertThat(prompted).hasSize(run.entries().marks().size());
                    double[] kept = (double[]) file.getDatasetByPath("/run_" + run.id() + "/light/reading_value")
                            .getData();
                    assertThat(kept).isEqualTo(value);
                    for (int i = 0; i < value.length; i++) {
                        assertThat(prompted.get(i).path("value").asDouble()).isEqualTo(value[i]);
                    }
                    readings += value.length;
                }
            }
        }
        long planned = all.session().keptRuns().stream()
                .mapToLong(run ->
                        sheet.sheet().captures().get(run.capture()).windows().size())
                .sum();
        assertThat(windows).isEqualTo((int) planned);
        assertThat(readings > 0).isEqualTo(method.equals("fading-dye"));
        try (ZipFile z = new ZipFile(zip.toFile());
                ZipFile x = new ZipFile(book.toFile())) {
            for (String table : List.of("windows", "readings")) {
                int rows = table.equals("windows") ? windows : readings + byEye.size();
                assertThat(z.getEntry(table + ".csv") != null).isEqualTo(rows > 0);
                if (rows > 0) {
                    assertThat(new String(
                                            z.getInputStream(z.getEntry(table + ".csv"))
                                                    .readAllBytes(),
                                            StandardCharsets.UTF_8)
                                    .lines()
                                    .count())
                            .isEqualTo(rows + 1);
                    assertThat(new String(
                                            x.getInputStream(x.getEntry("xl/workbook.xml"))
                                                    .readAllBytes(),
                                            StandardCharsets.UTF_8)
                                    .toLowerCase(java.util.Locale.ROOT))
                            .contains("\"" + table + "\"");
                }
            }
        }
    }

    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {"=1+1 | '=1+1", "+run | '+run", "-5 V | '-5 V", "@bench | '@bench", "a=b | a=b", "`` | ``"})
    void wordsThatASpreadsheetWouldTakeForAFormulaStayWords(String words, String cell) {
        assertThat(SpreadsheetCell.words(words)).isEqualTo(cell);
    }
}
