package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The afternoon of the example: twelve groups, five methods, three photometers. */
class DayCommandTest {
    private static final Path EXAMPLE = Path.of("..", "docs", "formats", "afternoon.yaml");

    @TempDir
    private Path folder;

    /** A machine without a stockroom has the one of the demonstration. */
    @BeforeEach
    void elsewhere() {
        System.setProperty("needle.home", folder.resolve("home").toString());
    }

    @AfterEach
    void back() {
        System.clearProperty("needle.home");
    }

    @Test
    void twelveGroupsGoThroughFiveMethodsWithoutAClash() throws IOException {
        Path pdf = folder.resolve("day.pdf");
        Needle.Said said = needle("day", EXAMPLE, "--json", "-o", pdf);
        assertThat(said.status()).isZero();
        JsonNode root =
                new ObjectMapper().readTree(said.out().substring(0, said.out().lastIndexOf('}') + 1));
        assertThat(root.path("clashes").size()).isZero();
        assertThat(root.path("places").size()).isEqualTo(60);
        Set<String> once = new HashSet<>();
        root.path("places").forEach(p -> {
            String round = p.path("round").asText() + " ";
            assertThat(once.add(round + p.path("group").asText())).isTrue();
            assertThat(once.add(
                            round + p.path("method").asText() + p.path("bench").asText()))
                    .isTrue();
        });
        // What is overdue is told, and not given out.
        assertThat(root.path("warnings").toString()).contains("TH-BA-05").contains("is overdue for calibration");
        assertThat(root.path("benches").toString()).doesNotContain("TH-BA-05");
        assertThat(pages(pdf)[1]).contains("Who is where").contains("Group 12").contains("photometer: 3");
        assertThat(pages(pdf)[0])
                .isEqualTo(Integer.toString(root.path("benches").size() + 2));
    }

    /** How many pages there are, and their words. */
    private static String[] pages(Path pdf) throws IOException {
        try (PDDocument d = Loader.loadPDF(pdf.toFile())) {
            return new String[] {Integer.toString(d.getNumberOfPages()), new PDFTextStripper().getText(d)};
        }
    }

    @Test
    void whatIsMissingIsSaidAndNoPagesAreWritten() throws IOException {
        Path plan = Files.writeString(
                folder.resolve("tight.yaml"), Files.readString(EXAMPLE).replace("kits: 3", "kits: 2"));
        Path pdf = folder.resolve("day.pdf");
        Needle.Said said = needle("day", plan, "-o", pdf);
        assertThat(said.status()).isEqualTo(NeedleCommand.CHECKS_FAILED);
        assertThat(said.out())
                .contains("photometer: there are 2, and 3 are wanted; needed at least 12 times in 5 rounds.");
        assertThat(pdf).doesNotExist();
    }

    @Test
    void lettersAndHtmlAreWrittenTooAndNothingElse() throws IOException {
        Path plan = Files.writeString(
                folder.resolve("small.yaml"),
                "date: 2026-11-30\ngroups: [A, B]\nslots: 2\nmethods: [drying-cabinet, signpost-arm]\nkits: 2\n");
        Path html = folder.resolve("day.html");
        assertThat(needle("day", plan, "--letter", "-o", html).status()).isZero();
        assertThat(Files.readString(html))
                .contains("size:letter")
                .contains("Drying cabinet")
                .contains("Bench 1");
        assertThat(needle("day", plan, "-o", folder.resolve("day.doc")).err()).contains("The pages are PDF or HTML");
        assertThat(needle("day", plan, "--stockroom", folder.resolve("none.db")).err())
                .contains("There is no stockroom none.db");
        Files.writeString(plan, "date: 2026-11-30\ngroups: 2\nmethods: [no-such]\n");
        assertThat(needle("day", plan).err()).contains("no-such");
    }
}
