package eagerneedle.report;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.pdfbox.text.TextPosition;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A method on paper: on few pages, inside their edges, no heading alone at the foot, and no answers for students. */
class HandoutTest {
    /** Looked at on either paper and with the key in the daily build too; the others in the long one. */
    private static final List<String> WHOLLY = List.of("colliding-wagons", "dividing-tables", "mast-rotor");

    private static final int MOST_PAGES = 8;
    private static final float MARGIN = 15 * 72 / 25.4f;

    static List<String> shipped() {
        return SheetReader.shipped();
    }

    /** One line of a page: its words, how large, where it ends and how far down it stands. */
    private record Line(String words, float size, float right, float down, int page) {}

    private static List<Line> lines(PDDocument pdf) throws IOException {
        List<Line> out = new ArrayList<>();
        new PDFTextStripper() {
            @Override
            protected void writeString(String text, List<TextPosition> at) {
                TextPosition last = at.get(at.size() - 1);
                out.add(new Line(
                        text,
                        at.get(0).getFontSizeInPt(),
                        last.getXDirAdj() + last.getWidthDirAdj(),
                        last.getYDirAdj(),
                        getCurrentPageNo()));
            }
        }.getText(pdf);
        return out;
    }

    private static Optional<Reduction> rehearsed(SheetReader.Located sheet) {
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 7, Set.of()), Instant.EPOCH);
        return Optional.of(new Reducer(
                        sheet,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session()));
    }

    private static void looksGood(String id, byte[] paper) throws IOException {
        try (PDDocument pdf = Loader.loadPDF(paper)) {
            assertThat(pdf.getNumberOfPages()).as(id + " on few pages").isLessThanOrEqualTo(MOST_PAGES);
            List<Line> lines = lines(pdf);
            assertThat(lines).hasSizeGreaterThan(20);
            float wide = pdf.getPage(0).getMediaBox().getWidth();
            float high = pdf.getPage(0).getMediaBox().getHeight();
            for (Line l : lines) {
                assertThat(l.right()).as(id + ", over the edge: " + l.words()).isLessThan(wide - MARGIN + 3);
                assertThat(l.down()).isLessThan(high - 20);
            }
            for (int page = 1; page < pdf.getNumberOfPages(); page++) {
                int p = page;
                Line last = lines.stream()
                        .filter(l -> l.page() == p && l.down() < high - 17 * 72 / 25.4f + 4)
                        .max(java.util.Comparator.comparingDouble(Line::down))
                        .orElseThrow();
                // A drawing holds no text: what stands high on its page has the drawing below it.
                assertThat(last.size() > 11.5f && last.down() > high - 130)
                        .as(id + ", alone at the foot of page " + p + ": " + last.words())
                        .isFalse();
            }
        }
    }

    @ParameterizedTest
    @MethodSource("shipped")
    void everyMethodIsOnPaperForStudentsAndForTheInstructor(String id) throws Exception {
        SheetReader.Located sheet = SheetReader.read(SheetReader.shippedText(id), id);
        looksGood(id, Handout.pdf(sheet.sheet(), Optional.empty(), Paper.A4));
        if (WHOLLY.contains(id) || Boolean.getBoolean("everyMethod")) {
            looksGood(id, Handout.pdf(sheet.sheet(), Optional.empty(), Paper.LETTER));
            looksGood(id, Papers.pdf(Handout.html(sheet.sheet(), rehearsed(sheet), Paper.LETTER)));
        }
        String key = Handout.html(sheet.sheet(), rehearsed(sheet), Paper.LETTER);
        String students = Handout.html(sheet.sheet(), Optional.empty(), Paper.A4);
        assertThat(students).doesNotContain("class=\"expected\"", "Mistakes to look for");
        for (Sheet.Mistake m : sheet.sheet().mistakes()) {
            boolean onlyThere =
                    SheetReader.shippedText(id).split(java.util.regex.Pattern.quote(m.says()), -1).length == 2;
            if (onlyThere) {
                assertThat(students).doesNotContain(m.says());
            }
            assertThat(key.replace("&#39;", "'")
                            .replace("&quot;", "\"")
                            .replace("&lt;", "<")
                            .replace("&gt;", ">")
                            .replace("&amp;", "&"))
                    .contains(m.says());
        }
        for (Derived d : sheet.sheet().results().values()) {
            if (d.label() != null) {
                assertThat(students).contains(d.label().replace("&", "&amp;").replace("'", "&#39;"));
            }
        }
    }

    @Test
    void tablesHaveARowForEveryRunAndStepsTheirOrder() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("trolley-two-gates"), "t")
                .sheet();
        String html = Handout.html(sheet, Optional.empty(), Paper.A4);
        long runs = sheet.captures().values().stream()
                .mapToLong(c -> (long) c.levels().size() * c.repeats())
                .sum();
        assertThat(html.split("<tr><td class=\"level\">", -1).length).isGreaterThanOrEqualTo((int) runs);
        assertThat(html.indexOf("▲")).isBetween(1, html.indexOf("To be found"));
        assertThat(html.indexOf("Before switching on")).isLessThan(html.indexOf("What was found"));
        assertThat(html.indexOf("What was found")).isLessThan(html.indexOf("When you are done"));
    }

    /** Cells that hold a number with its uncertainty and unit, and nothing else; what levels are called is a name. */
    @ParameterizedTest
    @MethodSource("shipped")
    void withACommaNoNumberInATableHasAPointNorAUnitItsShortHand(String id) {
        DecimalSign.use(DecimalSign.COMMA);
        try {
            SheetReader.Located sheet = SheetReader.read(SheetReader.shippedText(id), id);
            String html = Handout.html(sheet.sheet(), Optional.empty(), Paper.A4);
            assertThat(Pattern.compile("(?s)<td[^>]*>(.*?)</td>")
                            .matcher(html)
                            .results()
                            .map(m -> m.group(1).replaceAll("<[^>]*>", "").strip())
                            .filter(cell ->
                                    cell.matches("[−-]?[0-9]+[.][0-9]+[(].*|[−-]?[0-9][0-9,()]* .*(\\^|degC|ohm).*")))
                    .isEmpty();
        } finally {
            DecimalSign.use(DecimalSign.POINT);
        }
    }
}
