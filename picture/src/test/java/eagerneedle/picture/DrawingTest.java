package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class DrawingTest {
    private static final String FRAME = "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 480 250\">%s</svg>";

    private static Stream<String> shipped() {
        return SheetReader.shipped().stream();
    }

    private static Sheet sheet(String id) {
        return SheetReader.read(SheetReader.shippedText(id), id).sheet();
    }

    /** Every channel has its place on the drawing, and every call-out is something that the sheet has. */
    @ParameterizedTest
    @MethodSource("shipped")
    void callOutsAreTiedToTheSheet(String id) {
        Sheet sheet = sheet(id);
        Apparatus a = Apparatus.of(sheet).orElseThrow();
        List<String> named =
                a.drawing().callOuts().stream().map(Drawing.CallOut::name).toList();
        assertThat(named).doesNotHaveDuplicates();
        assertThat(Apparatus.words(sheet)).containsKeys(named.toArray(String[]::new));
        assertThat(named).containsAll(sheet.channels().keySet());
        assertThat(named).anyMatch(n -> n.startsWith("caution-"));
    }

    /** In the size of a card and in that of a station all lies inside, and no words lie on others. */
    @ParameterizedTest
    @MethodSource("shipped")
    void allLiesInsideAndWordsDoNotOverlap(String id) {
        Apparatus a = Apparatus.of(sheet(id)).orElseThrow();
        for (Drawing.Stroke s : a.drawing().strokes()) {
            for (int i = 0; i < s.x().length; i++) {
                assertThat(s.x()[i]).isBetween(0.0, a.drawing().width());
                assertThat(s.y()[i]).isBetween(0.0, a.drawing().height());
            }
        }
        for (double w : new double[] {430, 560, 760}) {
            List<WordsStandFreeTest.Painted> words = WordsStandFreeTest.paintedBy(
                    w,
                    0.52 * w,
                    s -> new DrawingPainter(a.drawing(), Ink.PAPER, 0, 0, w, 0.52 * w).paint(s, a.words(), ""));
            assertThat(words).hasSameSizeAs(a.drawing().callOuts());
            for (WordsStandFreeTest.Painted p : words) {
                assertThat(p.left()).as(p.text()).isGreaterThanOrEqualTo(0);
                assertThat(p.right()).as(p.text()).isLessThanOrEqualTo(w);
                assertThat(words.stream().filter(o -> o != p && o.over(p)))
                        .as("%s at %s px wide", p.text(), w)
                        .isEmpty();
            }
        }
    }

    @Test
    void pathsAreReadAsTheyAreWritten() {
        Drawing d = Drawing.read(String.format(
                FRAME,
                "<path class=\"body\" d=\"M 10 20 H 30 V 40 L 10,40 Z\"/><path class=\"quiet\" d=\"M0 0 C 0 10 10 10 10 0\"/>"
                        + "<circle class=\"solid\" cx=\"50\" cy=\"60\" r=\"7\"/>"
                        + "<path class=\"call-out\" data-names=\"position\" d=\"M 1 2 L 3 4\"/>"));
        assertThat(d.strokes().get(0).x()).containsExactly(10, 30, 30, 10, 10);
        assertThat(d.strokes().get(0).y()).containsExactly(20, 20, 40, 40, 20);
        assertThat(d.strokes().get(1).y()).satisfies(y -> {
            double most = 0;
            for (double v : y) {
                most = Math.max(most, v);
            }
            assertThat(most).as("a cubic reaches three quarters of its handles").isCloseTo(7.5, within(0.3));
        });
        Drawing.Stroke circle = d.strokes().get(2);
        for (int i = 0; i < circle.x().length; i++) {
            assertThat(Math.hypot(circle.x()[i] - 50, circle.y()[i] - 60)).isCloseTo(7, within(1e-9));
        }
        assertThat(d.callOuts()).containsExactly(new Drawing.CallOut("position", 1, 2, 3, 4));
        DrawingPainter p = new DrawingPainter(d, Ink.PAPER, 100, 0, 960, 500);
        assertThat(p.at(100 + 2, 4)).contains("position");
        assertThat(p.at(500, 300)).isEmpty();
    }

    /** Drawing programs write numbers without spaces between them where none is needed. */
    @Test
    void numbersNeedNoSpaces() {
        Drawing d = Drawing.read(String.format(FRAME, "<path class=\"line\" d=\"M10.5.5-3,+4L1e1-2E-1 7 8\n\"/>"));
        assertThat(d.strokes().get(0).x()).containsExactly(10.5, -3, 10, 7);
        assertThat(d.strokes().get(0).y()).containsExactly(0.5, 4, -0.2, 8);
        assertThat(Drawing.read(String.format(FRAME, "<path class=\"line\" d=\" \"/>"))
                        .strokes())
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<svg | not well-formed",
                "<svg/> | viewBox",
                "<svg viewBox='0 0 480 x'/> | viewBox",
                "<svg viewBox='0 0 9 9'><rect/></svg> | rect is neither",
                "<svg viewBox='0 0 9 9'><path class='thick' d='M 0 0 L 1 1'/></svg> | 'thick' is none of them",
                "<svg viewBox='0 0 9 9'><path class='line' d='M 0 0 A 1 1'/></svg> | 'A' is none of them",
                "<svg viewBox='0 0 9 9'><path class='line' d='M 0 0 L 1'/></svg> | ends in the middle",
                "<svg viewBox='0 0 9 9'><path class='line' d='L 1 1'/></svg> | ends in the middle",
                "<svg viewBox='0 0 9 9'><path class='line' d='M 0 0 L 1 L 2 2'/></svg> | ends in the middle",
                "<svg viewBox='0 0 9 9'><path class='line' d='H 1'/></svg> | ends in the middle",
                "<svg viewBox='0 0 9 9'><path class='line' d='M 0 0 Z 1 1'/></svg> | none of them",
                "<svg viewBox='0 0 9 9'><path class='line' d='M 0 0 L 1 # 2'/></svg> | '# 2' is neither",
                "<svg viewBox='0 0 9 9'><path class='line' d='M 0 0 L 1 -'/></svg> | '-' is neither",
                "<svg viewBox='0 0 9 9'><circle class='line' cx='1' cy='1'/></svg> | needs r",
                "<svg viewBox='0 0 9 9'><path class='call-out' d='M 0 0 L 1 1'/></svg> | data-names",
                "<!DOCTYPE svg [<!ENTITY a 'b'>]><svg viewBox='0 0 9 9'/> | not well-formed"
            })
    void whatIsNoDrawingIsToldInOneSentence(String svg, String says) {
        assertThatThrownBy(() -> Drawing.read(svg.strip()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(says);
    }

    @Test
    void aSheetOfOnesOwnHasNoDrawing() {
        assertThat(SheetReader.shippedDrawing("my-own")).isEmpty();
        assertThat(Map.copyOf(Apparatus.words(sheet("baggage-chute"))))
                .containsEntry("position", "position")
                .containsEntry("caution-2", "▲ caution 2");
    }
}
