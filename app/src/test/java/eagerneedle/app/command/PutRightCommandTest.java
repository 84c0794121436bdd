package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.ClosedCopy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A wrong standard put right over a folder of twelve sessions: what moved is listed, everything else stays. */
class PutRightCommandTest {
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int BENCHES = 12;
    private static final int SCALES = 5;
    private static final String[] WRONG = {"--standard", "TH-CM-01", "--times", "1.004(1)", "--why", "misread"};

    @TempDir
    private Path folder;

    private static void simulate(String method, long seed, Path to) throws IOException {
        Demonstration.simulate(SheetTrial.read(SheetReader.shippedText(method), method), seed, Set.of(), to);
    }

    private static Needle.Said right(Path folder, Object... more) {
        Object[] all = new Object[2 + WRONG.length + more.length];
        all[0] = "putright";
        all[1] = folder;
        System.arraycopy(WRONG, 0, all, 2, WRONG.length);
        System.arraycopy(more, 0, all, 2 + WRONG.length, more.length);
        return needle(all);
    }

    private static Map<String, JsonNode> quantities(Path file) throws IOException {
        Map<String, JsonNode> out = new LinkedHashMap<>();
        JSON.readTree(needle("reduce", file, "--json").out())
                .at("/quantities")
                .forEach(q -> out.put(q.at("/name").asText(), q));
        return out;
    }

    @Test
    void whatMovedIsListedAndEverythingElseIsBitForBitTheSame() throws IOException {
        Path later = Files.createDirectories(folder.resolve("thursday"));
        Map<Path, String> digests = new HashMap<>();
        Set<Path> scales = new HashSet<>();
        for (int i = 1; i <= BENCHES; i++) {
            Path to = (i % 2 == 0 ? folder : later).resolve("bench " + i + ".needle");
            simulate(i <= SCALES ? "letter-scale" : "signpost-arm", i, to);
            digests.put(to, ClosedCopy.digest(to));
            if (i <= SCALES) {
                scales.add(to);
            }
        }
        Path one = folder.resolve("bench 2.needle");
        Map<String, JsonNode> was = quantities(one);

        assertThat(right(folder).out()).contains("Would be put right: 5 sessions; 7 sessions had nothing to do with");
        for (Path file : digests.keySet()) {
            assertThat(ClosedCopy.digest(file)).isEqualTo(digests.get(file));
        }
        JsonNode told = JSON.readTree(right(folder, "--write", "--json").out());
        assertThat(told.at("/sessions").size()).isEqualTo(SCALES);
        assertThat(told.at("/untouched").size()).isEqualTo(BENCHES - SCALES);
        for (Path file : digests.keySet()) {
            assertThat(ClosedCopy.digest(file).equals(digests.get(file)))
                    .as("%s", file)
                    .isNotEqualTo(scales.contains(file));
        }

        Map<String, JsonNode> now = quantities(one);
        JsonNode moved = told.at("/sessions/0/moved");
        assertThat(told.at("/sessions/0/file").asText()).isEqualTo("bench 2.needle");
        Map<String, JsonNode> listed = new HashMap<>();
        moved.forEach(m -> listed.put(m.at("/result").asText(), m));
        assertThat(now.keySet()).isEqualTo(was.keySet());
        int same = 0;
        for (String name : was.keySet()) {
            boolean equal = was.get(name).equals(now.get(name));
            same += equal ? 1 : 0;
            assertThat(equal
                            || listed.containsKey(name)
                            || name.startsWith("c_")
                            || name.startsWith("strain.")
                            || name.contains("["))
                    .as(name)
                    .isTrue();
            assertThat(equal && listed.containsKey(name)).as(name).isFalse();
        }
        assertThat(same).isGreaterThan(3);
        JsonNode mass = listed.values().stream()
                .filter(m -> m.at("/label").asText().equals("mass of the unknown"))
                .findFirst()
                .orElseThrow();
        assertThat(mass.at("/now/value").asDouble() / mass.at("/was/value").asDouble())
                .isCloseTo(1.004, within(1e-9));

        try (BenchFile kept = BenchFile.open(one)) {
            assertThat(kept.acts().get(kept.acts().size() - 1).text())
                    .startsWith("Put right by ")
                    .contains("TH-CM-01, times 1.004(1), because misread.")
                    .contains("mass of the unknown: ");
        }
        Needle.Said again = right(folder, "--write");
        assertThat(again.status()).isNotZero();
        assertThat(again.err()).contains("Nothing was changed").contains("put right already");
    }

    @Test
    void aSessionInUseStandsInTheWayOfAll() throws IOException {
        Path one = folder.resolve("one.needle");
        Path two = folder.resolve("two.needle");
        simulate("letter-scale", 1, one);
        simulate("letter-scale", 2, two);
        String digest = ClosedCopy.digest(two);
        try (BenchFile open = BenchFile.open(one)) {
            assertThat(open.session()).isNotNull();
            Needle.Said said = right(folder, "--write");
            assertThat(said.status()).isNotZero();
            assertThat(said.err()).contains("one.needle is in use").contains("Nothing was changed");
        }
        assertThat(ClosedCopy.digest(two)).isEqualTo(digest);
        assertThat(right(folder.resolve("none")).err()).contains("none is no folder");
        assertThat(right(folder, "--feedback", folder.resolve("f")).err()).contains("add --hand-ins");
    }

    @Test
    void whoWasRightWithTheStandardAsItWasGivenOutStaysRight() throws IOException {
        Path list = Files.writeString(folder.resolve("list.csv"), "id,name\ns1,Ann\ns2,Bob\n");
        Path pass = Files.writeString(folder.resolve("pass"), "open sesame open\n");
        Path made = folder.resolve("class");
        assertThat(needle("classset", "letter-scale", "--students", list, "-o", made, "--passphrase-file", pass)
                        .status())
                .isZero();
        JsonNode ann = quantities(made.resolve("give").resolve("s1").resolve("letter-scale-s1.needle"))
                .get("m_u");
        double right = ann.at("/value").asDouble();
        // Ann used the masses as they were given out; Bob handed in what nobody can explain.
        Path in = Files.writeString(
                folder.resolve("in.csv"),
                "student,quantity,value,u,unit\ns1,m_u," + String.format(java.util.Locale.ROOT, "%.2f", right)
                        + ",0.18,g\ns2,m_u,77.77,0.18,g\n");
        Path pages = folder.resolve("pages");
        Needle.Said said = needle(
                "putright",
                made,
                "--standard",
                "TH-CM-01",
                "--times",
                "1.02",
                "--why",
                "misread",
                "--by",
                "M. Ash",
                "--write",
                "--hand-ins",
                in,
                "--passphrase-file",
                pass,
                "--feedback",
                pages);
        assertThat(said.status()).as(said.err()).isZero();
        assertThat(said.out())
                .contains("Mark of s1, mass of the unknown: right with TH-CM-01 as it was given out, and stays so.")
                .contains("No mark changes.")
                .contains("Wrote the pages of 2 students again.");
        assertThat(Files.readString(pages.resolve("feedback-s1.html")))
                .contains("It was so with TH-CM-01 as it was given out.");
        assertThat(Files.readString(made.resolve("marking.jsonl"))).contains("M. Ash");
    }
}
