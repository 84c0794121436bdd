package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.SheetTrial;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Families, products of levels and likeness: what is written out, and what is said where that cannot be. */
class FamiliesTest {
    static final String SHEET = """
            sheet: 2
            id: beams
            title: Beams
            subject: Load
            sets:
              beam: {names: [thin, thick], label: [thin beam, thick beam], k: [2 N/mm, 8 N/mm]}
              side: {names: [left, right]}
              load: {names: [m1, m2, m3]}
              twin: {names: [thick, other]}
            inputs:
              m: {each: load, label: mass, value: ["1.00(1) kg", "2.00(1) kg", "3.00(1) kg"], group: Masses}
              L: {each: [beam, side], label: length, value: "100.0(5) mm"}
              g: {label: local g, value: "9.81 m/s^2", given: true}
            channels:
              x: {each: side, label: deflection, unit: mm, rate: 10, chain: [{kind: converter, label: dial, from: mm, step: [0.01, 0.02], bits: 16}]}
            captures:
              press:
                label: Loads
                channels: [x]
                levels: {product: [beam, load]}
                longest: 1 min
                quantities:
                  y: {each: side, label: deflection, formula: mean(x), planned: "m * g / k * 1.00(1)"}
                  both: {label: of both sides, formula: mean(y)}
                  F: {label: force, formula: m * g}
                  heavy: {label: force of what is thick, formula: "if(beam == thick, F, none)"}
            results:
              stiff: {each: beam, label: stiffness, unit: N/mm, formula: "slope(press.F, press.both)"}
              sides: {each: [beam, side], label: of a side, unit: N/mm, formula: "slope(press.F, press.y)"}
              sum: {label: all masses, formula: sum(m)}
              ratio: {label: thick over thin, formula: "stiff.thick / stiff.thin"}
              longest: {label: longest, formula: max(L)}
              left: {label: mean length on the left, formula: mean(L.left)}
              hard: {label: hardest, formula: "max(where(stiff, beam != thin))"}
            comparisons:
              - {id: k, each: beam, label: against the maker, result: stiff, reference: k}
            checks:
              - {each: beam, label: Stiffer than nothing, formula: "stiff > 0 N/mm"}
            """;

    private static Sheet read(String text) {
        return SheetReader.read(text, "beams.yaml").sheet();
    }

    private static List<String> problems(String text) {
        return SheetTrial.look(text, "beams.yaml").problems().stream()
                .map(SheetException::getMessage)
                .toList();
    }

    @Test
    void membersAreWrittenOut() {
        Sheet s = read(SHEET);
        assertThat(s.inputs().keySet())
                .containsExactly(
                        "m.m1", "m.m2", "m.m3", "L.thin.left", "L.thin.right", "L.thick.left", "L.thick.right", "g");
        assertThat(s.inputs().get("m.m2").value()).isEqualTo("2.00(1) kg");
        assertThat(s.inputs().get("L.thick.left").label()).isEqualTo("length, thick beam, left");
        assertThat(s.channels().keySet()).containsExactly("x.left", "x.right");
        assertThat(s.channels().get("x.right").chain().get(0).step()).isEqualTo(0.02);
        Capture press = s.captures().get("press");
        assertThat(press.channels()).containsExactly("x.left", "x.right");
        assertThat(press.levels().keySet())
                .containsExactly("thin.m1", "thin.m2", "thin.m3", "thick.m1", "thick.m2", "thick.m3");
        assertThat(press.levels().get("thick.m2").set())
                .containsEntry("m", "m.m2")
                .containsEntry("beam.thick", "1")
                .containsEntry("k", "k.thick");
        assertThat(press.longest()).isEqualTo(60);
        assertThat(press.quantities().get("y.right").formula()).isEqualTo("mean(x.right)");
        assertThat(press.quantities().get("heavy").formula()).isEqualTo("if(beam.thick == 1, F, none)");
        assertThat(s.comparisons()).extracting(Sheet.Comparison::id).containsExactly("k.thin", "k.thick");
        assertThat(s.comparisons().get(1).reference()).isEqualTo("k.thick");
        assertThat(s.results().get("sides.thick.left").formula())
                .isEqualTo("slope(where(press.F, beam.thick == 1), where(press.y.left, beam.thick == 1))");
        assertThat(problems(SHEET)).isEmpty();
    }

    /** Names in a model in quotes are names of the sheet, but for those that are sought. */
    @Test
    void modelsInQuotesAreWrittenOutToo() {
        String fits =
                "  own: {each: beam, formula: \"fit(press.F, press.both, formula: 'a * x + k * x', find: 'a')\"}\n"
                        + "  hid: {each: beam, formula: \"fit(press.F, press.both, formula: 'k * x', find: 'k = 1 N/mm')\"}\n";
        String text = SHEET.replace("  sum: {label: all masses", fits + "  sum: {label: all masses");
        Sheet s = read(text);
        assertThat(s.results().get("own.thick").formula()).contains("'a * x + k.thick * x'");
        assertThat(s.results().get("hid.thick").formula()).contains("formula: 'k * x', find: 'k = 1 N/mm'");
    }

    @Test
    void whatIsExpectedByEyeDiffersFromMemberToMember() {
        Sheet s = read(SHEET.replace("k: [2 N/mm, 8 N/mm]", "k: [2 N/mm, 8 N/mm], seen: [\"1.20\", \"0.30\"]")
                .replace(
                        "levels: {product: [beam, load]}",
                        "levels: {product: [beam, load], expected: {z: \"seen limit 0.01 mm\"}}\n"
                                + "    by_eye: {z: {label: dial, value: \"1 limit 0.01 mm\"}}"));
        assertThat(s.captures().get("press").expected("thin.m2", "z")).isEqualTo("1.20 limit 0.01 mm");
        assertThat(s.captures().get("press").expected("thick.m1", "z")).isEqualTo("0.30 limit 0.01 mm");
        assertThat(problems(SHEET.replace("product: [beam, load]}", "product: [beam, load], expected: {zz: 1 mm}}")))
                .anyMatch(m -> m.contains("read by eye"));
    }

    /** Every slip is told where it stands in what was written, not in what it was written out to. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "each: load, label: mass | each: ¦loads, label: mass       | there is no set loads; did you mean load?",
                "value: [\"1.00(1) kg\", \"2.00(1) kg\", | value: ¦[\"2.00(1) kg\", | this list has 2 entries, but load has 3",
                "formula: m * g}         | formula: ¦mm * g}              | the name mm is not known here",
                "beam == thick, F        | ¦beam == thicc, F              | beam.thicc is not known here; did you mean beam.thick?",
                "product: [beam, load]   | product: ¦[beam, lod]          | there is no set lod",
                "k: [2 N/mm, 8 N/mm]     | k: ¦[2 N/mm]                   | k needs a list of 2, one for each member of beam",
                "k: [2 N/mm, 8 N/mm]     | k(x: ¦[2 N/mm, 8 N/mm]         | 'k(x' is no name that can be used here",
                "names: [left, right]    | names: [left, ¦left]           | left is a member of side already",
                "each: [beam, side], label: length | each: ¦[beam, twin], label: length | have a member of the same name",
                "names: [left, right]    | names: [left, ¦slope]          | a part of a fit is called slope",
                "names: [left, right]    | count: ¦0                      | a set has 1 to 200 members",
                "stiff.thick / stiff.thin| ¦stiff.thick / stiff.thn       | stiff is a column",
                "longest: 1 min          | longest: ¦1 kg                 | this is given in s or the like, not in kg",
                "g: {label: local g      | g.x: ¦{label: local g          | is no name that can be used here",
                "stiff > 0 N/mm          | ¦stiff > 0 N                   | cannot be expressed in",
                "slope(press.F, press.both) | slope(press.F, ¦press.bath) | the name press.bath is not known here",
            })
    void aSlipIsToldWhereItStands(String from, String to, String message) {
        assertThat(SHEET).contains(from.strip());
        String marked = SHEET.replaceFirst(java.util.regex.Pattern.quote(from.strip()), to.strip());
        String before = marked.substring(0, marked.indexOf('¦'));
        int line = (int) before.chars().filter(c -> c == '\n').count() + 1;
        int column = before.length() - before.lastIndexOf('\n');
        assertThat(problems(marked.replace("¦", "")))
                .anySatisfy(p -> assertThat(p)
                        .startsWith("beams.yaml, line " + line + ", column " + column + ":")
                        .contains(message));
    }

    @Test
    void likenessTakesAllThatIsNotSaidOtherwise() {
        String text = SHEET.replace("checks:\n", "checks:\n  - {label: Same, formula: \"ratio > 0\"}\n") + "";
        text = text.replace(
                "results:\n",
                "  again:\n    like: press\n    label: Loads again\n    levels: {product: [beam]}\n    quantities: {F: {label: force, formula: 1 kg * g}}\nresults:\n");
        text = text.replace(
                "y: {each: side, label: deflection, formula: mean(x), planned: \"m * g / k * 1.00(1)\"}",
                "y: {each: side, label: deflection, formula: mean(x), planned: \"F / k * 1.00(1)\"}");
        Sheet s = read(text);
        Capture again = s.captures().get("again");
        assertThat(again.label()).isEqualTo("Loads again");
        assertThat(again.levels().keySet()).containsExactly("thin", "thick");
        assertThat(again.quantities()).containsKeys("y.left", "both", "F");
        assertThat(again.quantities().get("F").formula()).isEqualTo("1 kg * g");
        assertThat(problems(text)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "like: pres  | there is nothing called pres beside again that it could be like; did you mean press?",
                "like: again | these are like each other in a circle",
                "<<: *x      | sheets have no merge keys",
            })
    void likenessThatCannotBeIsSaid(String like, String message) {
        String text = SHEET.replace("captures:\n", "captures:\n  again:\n    " + like + "\n    label: Again\n")
                .replace("subject: Load", like.startsWith("<<") ? "subject: &x Load" : "subject: Load");
        assertThat(problems(text)).anySatisfy(p -> assertThat(p).contains(message));
    }

    static final String RUNS = """
            sheet: 2
            id: runs
            title: Runs
            subject: Load
            inputs:
              R: {label: resistor, value: "100.0(1) ohm"}
            devices:
              board: {label: Board, driver: line, outputs: {drive: {label: drive, unit: V, lowest: 0, highest: 5 V, step: 5 mV, safe: 0 mV}}}
            links:
              adc: {kind: converter, label: 14 bit, from: V, range: [0 mV, 4096 mV], bits: 14, offset: "0.0(3) mV", noise: 0.4 mV}
            channels:
              hi: {label: above, unit: V, device: board, rate: 1 kHz, chain: [adc]}
              lo: {label: below, unit: V, device: board, rate: 1000, chain: [adc]}
            captures:
              sweep:
                label: Sweep
                channels: [hi, lo]
                levels: {spread: {p: {from: 0 V, to: 4000 mV, count: 5}}, then: back, outputs: {drive: p}}
                hold: {seconds: 200 ms, settle: 5 * 22 ms}
                until: "hi > 3 V and t > 1 s"
                windows: {late: {from: 100 ms, to: begun + 0.5 s}}
                choices:
                  I: {label: current, default: plain, why: it is simple, ways: {plain: mean(hi - lo) / R, late: "mean(hi - lo, window: late) / R"}}
                quantities:
                  begun: {label: begun, unit: s, formula: "first(crossings(hi, 1 V))", planned: 0.1 s}
                  I: {label: current, unit: mA, formula: choice, planned: "p / R * 1.00(1)"}
            results:
              all: {label: all currents, unit: mA, formula: sum(sweep.I)}
            comparisons:
              - {id: bound, label: not too much, result: all, reference: 200 mA, bound: below, matters: 5 %}
            """;

    /** An output follows from what is spread by a formula as well, and members may sit on instruments of their own. */
    @Test
    void outputsFollowByFormulasAndDevicesByMember() {
        Sheet s = read(RUNS.replace("outputs: {drive: p}", "outputs: {drive: sqrt(p * 1 V)}"));
        assertThat(s.captures().get("sweep").levels().get("p2").outputs()).containsEntry("drive", "sqrt(p * 1 V)");
    }

    @Test
    void levelsLinksAndChoicesAreWrittenOut() {
        assertThat(problems(RUNS)).isEmpty();
        Sheet s = read(RUNS);
        Capture sweep = s.captures().get("sweep");
        assertThat(sweep.levels()).hasSize(9);
        assertThat(sweep.levels().get("p2").set()).containsEntry("p", "1 V");
        assertThat(sweep.levels().get("p6").label()).isEqualTo("3 V, back");
        assertThat(sweep.levels().get("p5").outputs()).containsEntry("drive", "4.0");
        assertThat(sweep.hold().settle()).isEqualTo(0.11, org.assertj.core.api.Assertions.within(1e-12));
        assertThat(sweep.quantities().get("I").formula()).isEqualTo("mean(hi - lo) / R");
        assertThat(s.offers()).extracting(Sheet.Offer::key).containsExactly("sweep.I");
        assertThat(s.picking(java.util.Map.of("sweep.I", "late"))
                        .captures()
                        .get("sweep")
                        .quantities()
                        .get("I")
                        .formula())
                .isEqualTo("mean(hi - lo, window: late) / R");
        assertThat(s.channels().get("hi").chain().get(0).shared()).isEqualTo("adc");
        assertThat(s.channels().get("hi").rate()).isEqualTo(1000);
        assertThat(s.channels().get("lo").chain().get(0).range()).containsExactly(0.0, 4.096);
        assertThat(s.devices().get("board").outputs().get("drive").step()).isEqualTo(0.005);
        assertThat(sweep.windows().get("late").on()).isEqualTo("hi");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "rate: 1000, chain: [adc]} | rate: 1000, chain: [¦adk]} | there is no link adk; did you mean adc?",
                "count: 5             | count: 1                 | a spread has a name, and its 'from'",
                "to: 4000 mV          | to: 4 A                  | its ends are quantities of one kind",
                "then: back           | then: ¦forth             | there is 'then: back', or nothing",
                "outputs: {drive: p}  | outputs: {drive: ¦q}     | the name q is not known",
                "settle: 5 * 22 ms    | settle: ¦5 * 22 mm       | this is given in s or the like, not in m",
                "safe: 0 mV           | safe: ¦0 mA              | this is given in V or the like",
                "noise: 0.4 mV        | noise: ¦0.40(1) mV       | this is a plain number in V and has no uncertainty",
                "offset: \"0.0(3) mV\" | offset: \"¦0.0(3) mA\" | this is given in V or the like, not in mA",
                "hi > 3 V and         | ¦ho > 3 V and            | the name ho is not known here; did you mean hi?",
                "to: begun + 0.5 s    | to: ¦begin + 0.5 s       | the name begin is not known here; did you mean begun?",
                "from: 100 ms, to: begun + 0.5 s | ¦from: 100 ms | to",
                "default: plain       | default: ¦plan           | there is no way plan; did you mean plain?",
                "unit: mA, formula: choice | unit: mA, formula: mean(hi) / R | nothing is reckoned by this choice",
                "ways: {plain: mean(hi - lo) / R | ways: {plain: ¦mean(hi - low) / R | the name low is not known here",
                "bound: below         | bound: ¦beneath          | bound",
                "matters: 5 %         | matters: ¦0 %            | what matters is more than nothing",
                "reference: 200 mA    | reference: ¦200 mV       | cannot be compared",
            })
    void aSlipInARunIsTold(String from, String to, String message) {
        String source = from.strip();
        assertThat(RUNS).contains(source);
        String marked = RUNS.replaceFirst(
                java.util.regex.Pattern.quote(source), java.util.regex.Matcher.quoteReplacement(to.strip()));
        int mark = marked.indexOf('¦');
        List<String> found = problems(marked.replace("¦", ""));
        if (mark < 0) {
            assertThat(found).anySatisfy(p -> assertThat(p).contains(message));
            return;
        }
        int line =
                (int) marked.substring(0, mark).chars().filter(c -> c == '\n').count() + 1;
        assertThat(found)
                .anySatisfy(p -> assertThat(p)
                        .startsWith("beams.yaml, line " + line + ", ")
                        .contains(message));
    }
}
