package eagerneedle.archive;

import static eagerneedle.archive.Years.run;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sessions of several years in an archive: the ready questions, what is new, who is forgotten, and what is refused. */
class ArchiveTest {
    /** 200 in the long run. */
    private static final int SESSIONS = Integer.getInteger("archived", 16);

    @TempDir
    static Path room;

    private static Path folder;

    @BeforeAll
    static void years() throws IOException {
        folder = Files.createDirectories(room.resolve("sessions"));
        for (int i = 0; i < SESSIONS; i++) {
            boolean scale = i % 8 == 7;
            Years.session(
                    scale ? "letter-scale" : "signpost-arm",
                    i,
                    i % 4 == 0 ? "A. Alder" : "B. Beech and C. Cedar",
                    "bench " + (i % 6 + 1),
                    folder.resolve("s" + i + ".needle"),
                    i % 6 == 5 && !scale ? new String[] {"b-for-c"} : new String[0]);
        }
    }

    private static Path archived(String name, Object... more) {
        Path to = room.resolve(name);
        Object[] all = new Object[4 + more.length];
        all[0] = "archive";
        all[1] = folder;
        all[2] = "--into";
        all[3] = to;
        System.arraycopy(more, 0, all, 4, more.length);
        Years.Said said = run(all);
        assertThat(said.err().replaceAll("(?m)^[0-9]+ of [0-9]+ [.]{3}\\R", "")).isEmpty();
        assertThat(said.status()).isZero();
        return to;
    }

    private static double number(Path archive, String sql) {
        try (Asking asking = new Asking(Archive.at(archive))) {
            return ((Number) asking.ask(sql, 1).rows().get(0).get(0)).doubleValue();
        }
    }

    @Test
    void theFiveQuestionsAreAnswered() throws IOException {
        Path stock = room.resolve("stock.db");
        try (Stockroom s = Stockroom.at(stock)) {
            s.bringIn(Stockroom.demonstrationJson());
        }
        Path marks = Files.createDirectories(room.resolve("marked"));
        Files.writeString(marks.resolve("marks.json"), """
                {"method": "signpost-arm", "students": [{"id": "s1", "items": [
                  {"quantity": "P", "verdict": "explained", "explained_by": [{"mistake": "b-for-c"}]},
                  {"quantity": "Q", "verdict": "right"}]}]}
                """);
        Path to = archived("five", marks, "--stockroom", stock);

        try (Asking asking = new Asking(Archive.at(to))) {
            Answer drift = asking.ask(Question.DRIFT.sql(""), 1000);
            List<Object> masses = drift.rows().stream()
                    .filter(r -> "TH-CM-01".equals(r.get(0)))
                    .findFirst()
                    .orElseThrow();
            // By hand from the stockroom: 500.04 g in 2022, 500.01 g in 2024, 500.00 g in 2026.
            assertThat((Double) masses.get(drift.columns().indexOf("spread"))).isCloseTo(0.04, within(1e-9));
            assertThat((Double) masses.get(drift.columns().indexOf("per_year"))).isCloseTo(-0.01, within(1e-4));
            Answer results = asking.ask(Question.RESULTS.sql(""), 1000);
            assertThat(results.rows().stream().map(r -> r.get(0))).contains("signpost-arm", "letter-scale");
            Answer overdue = asking.ask(Question.OVERDUE.sql("2040-01-01"), 1000);
            assertThat(overdue.rows().toString())
                    .contains("letter-scale: strain")
                    .contains("TH-BA-05");
            assertThat(asking.ask(Question.OVERDUE.sql("2020-01-01"), 10).rows())
                    .isEmpty();
            Answer findings = asking.ask(Question.FINDINGS.sql(""), 1000);
            assertThat(findings.rows().stream().map(r -> r.get(0) + " " + r.get(1)))
                    .contains("mistake b-for-c");
            Answer benches = asking.ask(Question.BENCHES.sql(""), 1000);
            assertThat(benches.rows().stream().filter(r -> "P".equals(r.get(1))).map(r -> r.get(2)))
                    .as("every session of bench 6 had two gauges exchanged")
                    .contains("bench 6");
        }
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(SESSIONS);
        assertThat(number(to, "select count(distinct person) from people")).isEqualTo(3);
        assertThat(number(to, "select sum(samples) from runs")).isEqualTo(number(to, "select count(*) from samples"));
        // To first order the influences of a result add up to what it is uncertain by; a curved one may lie below that.
        String apart = """
                select max(abs(c.u - q.u) / q.u) from quantities q join (
                  select session, name, sqrt(sum(contribution * contribution)) as u
                  from contributions group by session, name
                ) c on c.session = q.session and c.name = q.name where q.run is null and q.u > 0 and q.method =
                """;
        assertThat(number(to, apart + "'letter-scale'")).isLessThan(1e-9);
        assertThat(number(to, apart + "'signpost-arm'")).isLessThan(0.05);
        assertThat(run("ask", to, "results").out()).contains("scatter");
        Path csv = room.resolve("a.csv");
        assertThat(run("ask", to, "findings", "-o", csv).status()).isZero();
        assertThat(Files.readString(csv)).startsWith("kind,what,times,sessions\r\n");
        Path svg = room.resolve("a.svg");
        assertThat(run("ask", to, "benches", "-o", svg).status()).isZero();
        assertThat(Files.readString(svg)).contains("bench 6");
        assertThat(run("ask", to, "overdue", "-o", svg).err()).contains("write this as .csv");
        assertThat(run("ask", to).out()).contains("table samples: session, run, channel, t, v, method, year");
    }

    @Test
    void aSecondRunAddsOnlyWhatIsNewAndWhatChangedReplacesWhatWas() throws IOException {
        Path own = Files.createDirectories(room.resolve("own"));
        Years.session("signpost-arm", 1, "A", "bench 1", own.resolve("a.needle"));
        Years.session("signpost-arm", 2, "B", "bench 2", own.resolve("b.needle"));
        Path to = room.resolve("again");
        assertThat(run("archive", own, "--into", to).out()).contains("Taken in: 2; there already: 0");
        assertThat(run("archive", own, "--into", to).out()).contains("Taken in: 0; there already: 2");
        String first =
                "select min(value) from quantities where name = 'P' and run is null and session = (select min(session) "
                        + "from sessions where years = (select min(years) from sessions))";
        double before = number(to, first);
        Files.delete(own.resolve("a.needle"));
        Years.session("signpost-arm", 77, "A", "bench 1", own.resolve("a.needle"));
        Years.session("signpost-arm", 3, "D", "bench 3", own.resolve("d.needle"));
        assertThat(run("archive", own, "--into", to).out()).contains("Taken in: 2; there already: 1");
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(3);
        assertThat(number(to, "select count(*) from quantities where name = 'P' and run is null and value = " + before))
                .isZero();
        assertThat(run("archive", own.resolve("none"), "--into", to).err()).contains("There is no folder none");
        Files.writeString(own.resolve("bad.needle"), "nothing");
        Years.Said said = run("archive", own, "--into", to);
        assertThat(said.status()).isEqualTo(1);
        assertThat(said.err()).contains("bad.needle");
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(3);
    }

    /** All bytes of an archive, and its names; but whom it is not to take again. */
    private static String everything(Path archive) throws IOException {
        StringBuilder all = new StringBuilder();
        try (Stream<Path> files = Files.walk(archive)) {
            for (Path f : files.filter(Files::isRegularFile).sorted().toList()) {
                if (!f.endsWith("forgotten.txt")) {
                    all.append(f).append(new String(Files.readAllBytes(f), StandardCharsets.ISO_8859_1));
                }
            }
        }
        return all.toString();
    }

    @Test
    void aPersonIsDeletedForGoodAndDoesNotComeBack() throws IOException {
        Path to = archived("forgetting", "--without-samples");
        String alder = People.of(to).pseudonym("a.  ALDER");
        String beech = People.of(to).pseudonym("B. Beech");
        double sessions = number(to, "select count(*) from sessions");
        double alone = number(to, "select count(*) from people where person = '" + alder + "'");
        assertThat(alone).isEqualTo(SESSIONS / 4.0);
        assertThat(everything(to)).contains(alder).doesNotContain("Alder").doesNotContain("Beech");

        assertThat(run("archive", "--forget", "A. Alder", "--into", to).out())
                .contains("Deleted from " + SESSIONS / 4 + " sessions.");
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(sessions - alone);
        assertThat(
                        number(
                                to,
                                "select count(*) from quantities q left join sessions s on q.session = s.session where s.session is null"))
                .isZero();
        assertThat(everything(to)).doesNotContain(alder);

        // Of a session of two, the other stays.
        assertThat(run("archive", "--forget", "B. Beech", "--into", to).status())
                .isZero();
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(sessions - alone);
        assertThat(number(to, "select count(distinct person) from people")).isEqualTo(1);
        assertThat(everything(to)).doesNotContain(beech);

        // Taken in again, the forgotten do not come back.
        assertThat(run("archive", folder, "--into", to, "--without-samples").status())
                .isZero();
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(sessions - alone);
        assertThat(everything(to)).doesNotContain(alder).doesNotContain(beech);
        assertThat(run("archive", "--forget", "Nobody", "--into", to).out()).contains("Nobody of that name");
    }

    @Test
    void pseudonymsGoWhenTheirTimeIsOver() {
        Path to = room.resolve("expired");
        // The first sessions are of February 2024: a year later nobody is known of them.
        assertThat(run("archive", folder, "--into", to, "--without-samples", "--years", "1")
                        .out())
                .contains("were deleted: their time is over");
        assertThat(number(to, "select count(*) from sessions")).isEqualTo(SESSIONS);
        assertThat(
                        number(
                                to,
                                "select count(*) from people p join sessions s on p.session = s.session where s.created < timestamp '2025-01-01'"))
                .isZero();
    }

    @Test
    void aQuestionReachesNothingElseAndChangesNothing() throws IOException {
        Path to = archived("asked", "--without-samples");
        Path secret = Files.writeString(room.resolve("secret.txt"), "secret");
        String before = everything(to);
        for (String bad : new String[] {
            "select * from read_text('" + secret + "')",
            "select * from read_text('" + to.resolve("people.key") + "')",
            "select * from read_blob('" + to.resolve("batches/1.json") + "')",
            "select * from read_csv('/etc/passwd')",
            "select * from '/etc/passwd'",
            "copy sessions to '" + room.resolve("out.csv") + "'",
            "create table x as select 1",
            "drop view sessions",
            "delete from current_batch",
            "insert into current_batch values ('a', 1)",
            "attach '" + room.resolve("x.db") + "' as x",
            "install httpfs",
            "set enable_external_access = true",
            "select 1; select 2",
            "select 1; drop view sessions",
            "select * from query('drop view sessions')",
            "explode",
            ""
        }) {
            Years.Said said = run("ask", to, bad);
            assertThat(said.status()).as(bad + ": " + said).isEqualTo(2);
            assertThat(said.out()).as(bad).isEmpty();
            assertThat(said.err().strip())
                    .as(bad)
                    .isNotEmpty()
                    .doesNotContain("Exception")
                    .doesNotContain("\tat ");
        }
        assertThat(run("ask", to, "select count(*) from glob('" + room + "/*')").out())
                .as("a folder outside cannot be looked through")
                .doesNotContain("secret");
        assertThat(everything(to)).isEqualTo(before);
        assertThat(room.resolve("out.csv")).doesNotExist();
        assertThat(run(
                                "ask",
                                to,
                                "with m as (select method, count(*) as n from sessions group by method) select * from m")
                        .out())
                .contains("signpost-arm");
        assertThat(run("ask", to, "select no_such_column from sessions").err()).contains("no_such_column");
        assertThat(run("ask", room.resolve("nowhere"), "drift").err()).contains("nowhere is no archive");
    }

    @Test
    void twoWritersDoNotMeet() throws IOException {
        Path to = room.resolve("held");
        try (FileChannel held = Archive.made(to).held()) {
            assertThat(held.isOpen()).isTrue();
            assertThat(run("archive", folder, "--into", to).err()).contains("is being written into");
        }
    }
}
