package eagerneedle.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.yaml.snakeyaml.DumperOptions;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.representer.Representer;
import org.yaml.snakeyaml.resolver.Resolver;

/** A change says what it should, by another reader of YAML, and leaves every other byte as it was. */
class SheetTextTest {
    static List<String> shipped() {
        return SheetReader.shipped();
    }

    @SuppressWarnings("unchecked")
    private static Map<String, Object> tree(String text) {
        return (Map<String, Object>) new Yaml().load(text);
    }

    /** The same with every word as it is written: an entry may be called {@code off}. */
    @SuppressWarnings("unchecked")
    private static Map<String, Object> words(String text) {
        LoaderOptions options = new LoaderOptions();
        return (Map<String, Object>) new Yaml(
                        new SafeConstructor(options),
                        new Representer(new DumperOptions()),
                        new DumperOptions(),
                        options,
                        new Resolver() {
                            @Override
                            protected void addImplicitResolvers() {}
                        })
                .load(text);
    }

    /** Each that many-th of the entries, other ones for other sheets. */
    private static List<String> some(String text) {
        List<String> all = new ArrayList<>();
        pointers(words(text), "", all);
        assertThat(all.size()).isGreaterThan(30);
        List<String> out = new ArrayList<>();
        for (int i = text.length() % 7; i < all.size(); i += Math.max(1, all.size() / 12)) {
            out.add(all.get(i));
        }
        return out;
    }

    private static boolean isShared(SheetText sheet, String pointer) {
        try {
            if (!pointer.isEmpty()) {
                sheet.without(pointer);
            }
            return false;
        } catch (IllegalArgumentException shared) {
            assertThat(shared.getMessage()).containsPattern("shared|shares");
            return true;
        }
    }

    @SuppressWarnings("unchecked")
    private static Object at(Object tree, String pointer) {
        Object at = tree;
        for (String part :
                pointer.isEmpty() ? new String[0] : pointer.substring(1).split("/")) {
            at = at instanceof Map<?, ?> m
                    ? ((Map<Object, Object>) m)
                            .entrySet().stream()
                                    .filter(e -> String.valueOf(e.getKey()).equals(part))
                                    .findFirst()
                                    .orElseThrow()
                                    .getValue()
                    : ((List<Object>) at).get(Integer.parseInt(part));
        }
        return at;
    }

    private static void pointers(Object tree, String at, List<String> out) {
        if (tree instanceof Map<?, ?> m) {
            out.add(at);
            m.forEach((k, v) -> pointers(v, at + "/" + k, out));
        } else if (tree instanceof List<?> l) {
            out.add(at);
            for (int i = 0; i < l.size(); i++) {
                pointers(l.get(i), at + "/" + i, out);
            }
        }
    }

    /** What was there is still there, before and after one place. */
    private static void onlyOnePlace(String before, String after) {
        int from = 0;
        while (from < Math.min(before.length(), after.length()) && before.charAt(from) == after.charAt(from)) {
            from++;
        }
        int end = 0;
        while (end < Math.min(before.length(), after.length()) - from
                && before.charAt(before.length() - 1 - end) == after.charAt(after.length() - 1 - end)) {
            end++;
        }
        assertThat(before.substring(from, before.length() - end).strip())
                .as("nothing but one place was touched")
                .satisfiesAnyOf(s -> assertThat(s).isEmpty(), s -> assertThat(s).matches("\\{ *}|\\[ *]"));
    }

    @ParameterizedTest
    @MethodSource("shipped")
    @SuppressWarnings("unchecked")
    void anEntryIsAddedAnywhereInEverySheet(String id) {
        String text = SheetReader.shippedText(id).replace("# ", "# \u2192 \uD83D\uDCCF ");
        SheetText sheet = SheetText.of(text);
        Map<String, Object> value = new LinkedHashMap<>();
        value.put("label", "two: words, \"quoted\"");
        value.put("formula", "a * b");
        value.put("list", List.of("1", "2.5", "no"));
        for (String p : some(text)) {
            if (isShared(sheet, p)) {
                continue;
            }
            Map<String, Object> wanted = words(text);
            Object there = at(wanted, p);
            String now;
            if (there instanceof Map<?, ?> m) {
                ((Map<String, Object>) m).put("added_entry", value);
                now = sheet.with(p + "/added_entry", value).text();
            } else {
                ((List<Object>) there).add(value);
                now = sheet.plus(p, value).text();
            }
            assertThat(words(now))
                    .as(p)
                    .satisfies(now2 -> assertThat(now2.equals(wanted)).isTrue());
            onlyOnePlace(text, now);
            String taken = there instanceof Map<?, ?>
                    ? SheetText.of(now).without(p + "/added_entry").text()
                    : now;
            if (there instanceof Map<?, ?> m && m.size() > 1) {
                assertThat(taken).as("taken away again: " + p).isEqualTo(text);
            }
        }
    }

    @ParameterizedTest
    @MethodSource("shipped")
    void anEntryIsTakenAwayOrExchangedAnywhereInEverySheet(String id) {
        String text = SheetReader.shippedText(id);
        SheetText sheet = SheetText.of(text);
        for (String p : some(text)) {
            if (isShared(sheet, p)) {
                continue;
            }
            if (p.isEmpty()) {
                continue;
            }
            int cut = p.lastIndexOf('/');
            Map<String, Object> wanted = words(text);
            Object above = at(wanted, p.substring(0, cut));
            String last = p.substring(cut + 1);
            if (above instanceof Map<?, ?> m) {
                m.remove(last);
            } else {
                ((List<?>) above).remove(Integer.parseInt(last));
            }
            assertThat(words(sheet.without(p).text()))
                    .as(p)
                    .satisfies(now2 -> assertThat(now2.equals(wanted)).isTrue());
            Map<String, Object> exchanged = words(text);
            put(exchanged, p, "x = 1, 2");
            assertThat(words(sheet.with(p, "x = 1, 2").text()))
                    .as(p)
                    .satisfies(now2 -> assertThat(now2.equals(exchanged)).isTrue());
        }
    }

    @SuppressWarnings("unchecked")
    private static void put(Object tree, String pointer, Object value) {
        int cut = pointer.lastIndexOf('/');
        Object above = at(tree, pointer.substring(0, cut));
        String last = pointer.substring(cut + 1);
        if (above instanceof Map<?, ?> m) {
            Map<Object, Object> map = (Map<Object, Object>) m;
            map.replaceAll((k, v) -> String.valueOf(k).equals(last) ? value : v);
        } else {
            ((List<Object>) above).set(Integer.parseInt(last), value);
        }
    }

    @Test
    void whatIsMissingAboveIsMade() {
        String text = "sheet: 2 # second edition\nid: a\ncaptures:\n  run:\n    label: Runs # of today\nresults: {}\n";
        String now = SheetText.of(text)
                .with("/captures/run/windows/calm", Map.of("from", "1 s"))
                .with("/results/a", Map.of("formula", "mean(run.b)"))
                .with("/inputs/m", Map.of("label", "mass"))
                .plus("/comparisons", Map.of("id", "a"))
                .text();
        assertThat(now).isEqualTo("""
                        sheet: 2 # second edition
                        id: a
                        inputs:
                          m: {label: mass}
                        captures:
                          run:
                            label: Runs # of today
                            windows:
                              calm: {from: "1 s"}
                        results:
                          a: {formula: mean(run.b)}
                        comparisons:
                          - {id: a}
                        """);
    }

    @ParameterizedTest
    @ValueSource(strings = {"\n", "\r\n"})
    void linesEndAsTheyDid(String newline) {
        String text = "id: a\nresults:\n  b: {formula: c} # why\n# the end".replace("\n", newline);
        String now =
                SheetText.of(text).with("/results/d", Map.of("formula", "b")).text();
        assertThat(now)
                .isEqualTo("id: a\nresults:\n  b: {formula: c} # why\n  d: {formula: b}\n# the end"
                        .replace("\n", newline));
        assertThat(SheetText.of(now).without("/results/d").text()).isEqualTo(text);
        assertThat(SheetText.of(now).without("/results/b").without("/results/d").text())
                .isEqualTo("id: a\nresults: {}\n# the end".replace("\n", newline));
    }

    @Test
    void whatIsSharedIsNotChangedBehindTheBackOfTheOther() {
        SheetText s = SheetText.of("a: &x {b: {c: 1}}\nd: *x\n");
        assertThatThrownBy(() -> s.with("/d/b/e", 2)).hasMessageContaining("shared");
        assertThat(s.with("/a/b/e", 2).text()).isEqualTo("a: &x {b: {c: 1, e: 2}}\nd: *x\n");
        assertThatThrownBy(() -> SheetText.of("a: [1")).hasMessageContaining("cannot be read");
        assertThatThrownBy(() -> SheetText.of("")).hasMessageContaining("no method sheet");
    }

    @Test
    void wordsAreQuotedWhereYamlWouldReadSomethingElse() {
        for (String s : List.of(
                "no",
                "1.5",
                "0x10",
                "a: b",
                "a #b",
                "",
                " a",
                "a ",
                "x, y",
                "{a}",
                "- a",
                "2026-11-29",
                "a\"b\\c",
                "@a",
                "ohne Müh",
                "a\nb",
                "null",
                "(a + b)",
                "T^2 / L",
                "~",
                "12:30:45",
                "\uD83D\uDCCF",
                "a - b",
                "&a",
                "!a",
                "=",
                "a:",
                "'a'")) {
            assertThat(tree("a: " + WrittenYaml.flow(s)).get("a")).isEqualTo(s);
            assertThat(words("a: {" + WrittenYaml.key(s) + ": " + WrittenYaml.flow(s) + "}")
                            .get("a"))
                    .isEqualTo(Map.of(s, s));
        }
    }
}
