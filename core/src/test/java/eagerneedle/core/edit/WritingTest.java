package eagerneedle.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.function.Functions;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What helps somebody who writes a sheet: where a place is, what may stand there, names, mends. */
class WritingTest {
    private static final Completion COMPLETION =
            new Completion(new Functions().functions(), List.of("TH-LG-12", "TH-CP-01"));

    static List<String> shipped() {
        return SheetReader.shipped();
    }

    private static String pendulum() throws Exception {
        String page = Files.readString(Path.of("..", "docs", "adding-a-method.md"));
        int from = page.indexOf("```yaml") + 8;
        return page.substring(from, page.indexOf("```", from));
    }

    /** The bar stands where somebody writes. */
    private static List<String> proposed(String barred) {
        int at = barred.indexOf('|');
        return COMPLETION.at(barred.replaceFirst("\\|", ""), at).stream()
                .map(Completion.Proposal::words)
                .toList();
    }

    private static Place place(String barred) {
        return Place.at(barred.replaceFirst("\\|", ""), barred.indexOf('|'));
    }

    @Test
    void aPlaceIsKnownFromIndentationAndBrackets() {
        assertThat(place("inputs:\n  L: {label: a, va|")).isEqualTo(new Place(List.of("inputs", "L"), false, "va"));
        assertThat(place("inputs:\n  L: {label: a, value: 4|"))
                .isEqualTo(new Place(List.of("inputs", "L", "value"), true, "4"));
        assertThat(place("a:\n  b:\n    c: 1\n  # note\n  d: x.y|"))
                .isEqualTo(new Place(List.of("a", "d"), true, "x.y"));
        assertThat(place("captures:\n  run:\n    channels: [a, b|"))
                .isEqualTo(new Place(List.of("captures", "run", "channels", "#"), true, "b"));
        assertThat(place("checks:\n  - {label: x, formula: \"k > {|"))
                .isEqualTo(new Place(List.of("checks", "#", "formula"), true, ""));
        assertThat(place("checks:\n  - label: x\n    for|")).isEqualTo(new Place(List.of("checks", "#"), false, "for"));
        assertThat(place("channels:\n  a: {chain: [{kind: sensor, of: {b: 1}, fr|"))
                .isEqualTo(new Place(List.of("channels", "a", "chain", "#"), false, "fr"));
        assertThat(place("ti|")).isEqualTo(new Place(List.of(), false, "ti"));
    }

    /**
     * Every entry of every shipped sheet is proposed where it stands, and every place in them is where the reader has
     * it.
     */
    @ParameterizedTest
    @MethodSource("shipped")
    void whatStandsInASheetIsProposedThere(String id) {
        String text = SheetReader.shippedText(id);
        int tried = 0;
        for (SheetText.Leaf leaf : SheetText.of(text).leaves()) {
            List<String> path = java.util.Arrays.stream(
                            leaf.pointer().substring(1).split("/"))
                    .map(p -> p.matches("\\d+") ? "#" : p)
                    .toList();
            List<String> above = path.subList(0, path.size() - 1);
            if (!leaf.name()
                    || SchemaEntries.of(above).isEmpty()
                    || SchemaEntries.areNamed(above)
                    || text.startsWith("\"", leaf.span().from())) {
                continue;
            }
            int line = text.lastIndexOf('\n', leaf.span().from()) + 1;
            if (!text.substring(line, leaf.span().from()).matches("(?s).*[{,]\\s*|\\s*(- )*")) {
                continue;
            }
            assertThat(Place.at(text, leaf.span().to()))
                    .as(leaf.pointer())
                    .isEqualTo(new Place(above, false, leaf.value()));
            if (!List.of("each", "sets", "links", "stocked").contains(leaf.value())) {
                assertThat(COMPLETION.at(text, leaf.span().to()))
                        .as(leaf.pointer())
                        .anyMatch(p -> p.words().equals(leaf.value()));
            }
            tried++;
        }
        assertThat(tried).isGreaterThan(40);
    }

    @Test
    void namesUnitsWordsFunctionsAndSerialsAreProposed() throws Exception {
        String sheet = pendulum();
        assertThat(proposed(sheet.replace("formula: \"T^2\"", "formula: \"T|\"")))
                .startsWith("T", "T2");
        assertThat(proposed(sheet.replace("intercept(law)\"}", "interc|\"}"))).contains("intercept");
        assertThat(proposed(sheet.replace("line(swing.T2,", "line(swing.|,")))
                .contains("swing.T", "swing.T2", "swing.L");
        assertThat(proposed(sheet.replace("driver: manual", "driver: m|"))).containsExactly("manual");
        assertThat(proposed(sheet.replace("device: watch", "device: |"))).containsExactly("watch");
        assertThat(proposed(sheet.replace("channels: [swings]", "channels: [s|]")))
                .containsExactly("swings");
        assertThat(proposed(sheet.replace("unit: m/s^2", "unit: m|"))).contains("m/s^2", "mm");
        assertThat(proposed("channels:\n  a:\n    chain:\n      - {kind: sensor, instrument: TH|"))
                .containsExactly("TH-LG-12", "TH-CP-01");
        assertThat(proposed("inputs:\n  L: {lab|")).containsExactly("label");
        assertThat(proposed("inputs:\n  L: {label: the l|"))
                .as("words for people")
                .isEmpty();
        assertThat(COMPLETION.help(sheet, sheet.indexOf("line(swing") + 2)).contains("scatter", "→");
        assertThat(COMPLETION.help(sheet, sheet.indexOf("question:") + 3)).contains("what is to be found");
    }

    @Test
    void aDefinitionIsFound() throws Exception {
        String s = pendulum();
        Outline o = Outline.of(s);
        assertThat(o.definition("swing.T2", List.of("results")).orElseThrow().offset())
                .isEqualTo(s.indexOf("T2: {label"));
        assertThat(o.definition("T", List.of("captures", "swing", "quantities"))
                        .orElseThrow()
                        .path())
                .containsExactly("captures", "swing", "quantities", "T");
        assertThat(o.definition("g_reference", List.of("rig")).orElseThrow().offset())
                .isEqualTo(s.indexOf("g_reference: {"));
        assertThat(o.definition("nobody", List.of())).isEmpty();
    }

    private static Outline.Given given(String text, String... path) {
        return Outline.of(text).all().stream()
                .filter(g -> g.path().equals(List.of(path)))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aQuantityIsRenamedWhereverItIsMeant() throws Exception {
        String s = pendulum();
        String now = Renaming.of(s, given(s, "captures", "swing", "quantities", "T"), "period");
        assertThat(now)
                .contains("period: {label: period, symbol: T,")
                .contains("formula: \"period^2\"")
                .contains("swing.period: \"row(values(swings), 1) / 19\"")
                .contains("T2: {label")
                .contains("\"T^2 = 4 * pi^2 * L / g\"");
        now = Renaming.of(now, given(now, "inputs", "g_reference"), "g_survey");
        assertThat(now).doesNotContain("g_reference").contains("truth: {g: g_survey}");
        now = Renaming.of(now, given(now, "results", "g"), "g_here");
        assertThat(now).contains("result: g_here", "truth: {g_here: g_survey}", "choices:\n  g_here:", "id: g,");
        now = Renaming.of(now, given(now, "channels", "swings"), "twenty");
        assertThat(now)
                .contains("channels: [twenty]", "signals: {twenty:", "values(twenty)")
                .doesNotContain("swings)");
        assertThat(SheetTrial.look(now, "now").problems()).isEmpty();
        assertThatThrownBy(() -> Renaming.of(s, given(s, "results", "g"), "end"))
                .hasMessageContaining("already");
        assertThatThrownBy(() -> Renaming.of(s, given(s, "results", "g"), "2g")).hasMessageContaining("begins with");
    }

    /** Six sheets in the daily build, all in the long one. */
    static List<String> renamed() {
        return Boolean.getBoolean("everyMethod")
                ? SheetReader.shipped()
                : List.of(
                        "baggage-chute",
                        "colliding-wagons",
                        "dividing-tables",
                        "flask-jackets",
                        "mast-rotor",
                        "rain-spillway");
    }

    /** Renamed, and renamed back, a sheet is what it was; in between it is as good and plans the same numbers. */
    @ParameterizedTest
    @MethodSource("renamed")
    void renamingChangesNoNumberOfAnySheet(String id) {
        String text = SheetReader.shippedText(id);
        Outline o = Outline.of(text);
        int tried = 0;
        for (String part : List.of("inputs", "results")) {
            for (String name : o.names(part).stream().limit(1).toList()) {
                String now;
                try {
                    now = Renaming.of(text, given(text, part, name), "renamed_xyz");
                } catch (IllegalArgumentException refused) {
                    assertThat(refused.getMessage()).containsPattern("would not be good any more|by hand");
                    continue;
                }
                tried++;
                assertThat(SheetTrial.look(now, id).problems())
                        .as(part + " " + name)
                        .isEmpty();
                assertThat(Renaming.of(now, given(now, part, "renamed_xyz"), name))
                        .isEqualTo(text);
                assertThat(planned(now, part.equals("results") && name.equals(first(o)) ? "renamed_xyz" : first(o)))
                        .isEqualTo(planned(text, first(o)));
            }
        }
        assertThat(tried).isPositive();
    }

    private static String first(Outline o) {
        return o.names("results").get(0);
    }

    private static String planned(String text, String result) {
        return new Reducer(SheetReader.read(text, "sheet"), (run, channel) -> RawSamples.NONE)
                .plan(Session.start(text, "x", Instant.EPOCH))
                .quantity(new Key.Global(result))
                .map(q -> q.value() + " " + q.u())
                .orElse("none");
    }

    @Test
    void whatIsWrongIsMendedByOneAct() throws Exception {
        String good = pendulum();
        for (String[] slip : new String[][] {
            {"4 * pi^2 / slope(law)", "4 * pi^2 / slope(lw)"},
            {"driver: manual", "driver: manul"},
            {"formula: \"T^2\"", "formula: \"TT^2\""},
            {"repeats: 3", "repeat: 3"},
            {"device: watch", "device: wach"},
        }) {
            String bad = good.replace(slip[0], slip[1]);
            assertThat(bad).isNotEqualTo(good);
            SheetException problem = SheetTrial.look(bad, "bad").problems().get(0);
            Mend m = Mend.of(problem, bad).orElseThrow(() -> new AssertionError(problem.getMessage()));
            String mended = bad.substring(0, m.from()) + m.by() + bad.substring(m.to());
            assertThat(SheetTrial.look(mended, "mended").problems()).as(slip[1]).isEmpty();
        }
        String without = good.replace(
                        "question: How large is g here, from how the period of a pendulum grows with its length?\n", "")
                .replace("title: \"Pendulum: local g\"\n", "");
        SheetException lacks = SheetTrial.look(without, "x").problems().get(0);
        Mend m = Mend.of(lacks, without).orElseThrow();
        assertThat(without.substring(0, m.from()) + m.by() + without.substring(m.to()))
                .contains("title: \"...\"");
    }
}
