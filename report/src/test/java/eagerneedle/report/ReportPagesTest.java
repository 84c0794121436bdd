package eagerneedle.report;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.NotebookLine;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.pdfbox.text.TextPosition;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Every page of a report as it is printed, on both papers; of all methods in the long run. */
class ReportPagesTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final Pattern KEY = Pattern.compile("\\b[a-z]+_[a-z_]+\\b");
    /** Distance from the edge of a page within which nothing is printed, in pt. */
    private static final double MARGIN = 30;

    static Stream<String> methods() {
        return Boolean.getBoolean("everyMethod")
                ? SheetReader.shipped().stream()
                : Stream.of("baggage-chute", "weather-vane-reed");
    }

    private static byte[] report(String method, Paper paper) {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(method), method);
        Rehearsal done = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 7, Set.of()), DAY);
        Reduction r = new Reducer(
                        sheet,
                        (run, channel) ->
                                done.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(done.session());
        return SessionReport.pdf(
                r,
                new SessionWatch().look(r, DAY),
                List.of(new NotebookLine(DAY, "Session opened.")),
                DAY,
                n -> Optional.empty(),
                paper);
    }

    /** A piece of a line as it stands on a page. */
    private record Piece(String text, double x, double right, double y, double size, boolean bold) {}

    private static List<Piece> pieces(PDDocument document, int page) throws IOException {
        List<Piece> out = new ArrayList<>();
        PDFTextStripper stripper = new PDFTextStripper() {
            @Override
            protected void writeString(String text, List<TextPosition> at) {
                if (!text.isBlank()) {
                    TextPosition first = at.get(0);
                    TextPosition last = at.get(at.size() - 1);
                    out.add(new Piece(
                            text,
                            first.getXDirAdj(),
                            last.getXDirAdj() + last.getWidthDirAdj(),
                            first.getYDirAdj(),
                            first.getFontSizeInPt(),
                            at.stream().allMatch(t -> t.getFont().getName().contains("SemiBold"))));
                }
            }
        };
        stripper.setStartPage(page);
        stripper.setEndPage(page);
        stripper.setSortByPosition(true);
        stripper.getText(document);
        return out;
    }

    @ParameterizedTest
    @MethodSource("methods")
    void everyPageIsAsAColleagueWouldSendIt(String method) throws IOException {
        for (Paper paper : Paper.values()) {
            try (PDDocument document = Loader.loadPDF(report(method, paper))) {
                int pages = document.getNumberOfPages();
                assertThat(pages).isBetween(4, 30);
                String first = String.join(
                        " ", pieces(document, 1).stream().map(Piece::text).toList());
                assertThat(first).as("the first page is enough").contains("Question.", "Table 1.");
                for (int page = 1; page <= pages; page++) {
                    double wide = document.getPage(page - 1).getCropBox().getWidth();
                    double high = document.getPage(page - 1).getCropBox().getHeight();
                    List<Piece> all = pieces(document, page);
                    for (Piece p : all) {
                        assertThat(p.x() >= MARGIN && p.right() <= wide - MARGIN + 1)
                                .as("%s, %s, page %d: '%s' runs over an edge", method, paper, page, p.text())
                                .isTrue();
                        assertThat(KEY.matcher(p.text()).find())
                                .as("%s, page %d: '%s' holds a key", method, page, p.text())
                                .isFalse();
                    }
                    List<Piece> body = all.stream()
                            .filter(p -> p.y() < high - 45 && p.y() > 45)
                            .toList();
                    Piece lowest = body.stream()
                            .max((a, b) -> Double.compare(a.y(), b.y()))
                            .orElseThrow();
                    boolean heading = lowest.bold()
                            && body.stream()
                                    .filter(p -> Math.abs(p.y() - lowest.y()) < 2)
                                    .allMatch(Piece::bold);
                    assertThat(heading)
                            .as("%s, %s, page %d ends with a heading: '%s'", method, paper, page, lowest.text())
                            .isFalse();
                }
            }
        }
    }
}
