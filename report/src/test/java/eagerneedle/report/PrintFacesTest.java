package eagerneedle.report;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.picture.Fonts;
import java.io.IOException;
import java.io.InputStream;
import java.util.Set;
import java.util.TreeSet;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Faces for paper lack the rules for ligatures and nothing else. */
class PrintFacesTest {
    private static TrueTypeFont parsed(InputStream in) throws IOException {
        try (in) {
            return new TTFParser().parse(new RandomAccessReadBuffer(in));
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"Inter-Regular.ttf", "Inter-SemiBold.ttf", "Inter-Italic.ttf", "JetBrainsMono-Regular.ttf"})
    void onlyTheRulesForLigaturesAreGone(String file) throws IOException {
        try (TrueTypeFont whole = parsed(Fonts.open(file));
                TrueTypeFont print = parsed(PrintFaces.open(file))) {
            Set<String> rest = new TreeSet<>(whole.getTableMap().keySet());
            assertThat(rest.remove("GSUB")).as("the face that ships has them").isTrue();
            assertThat(print.getTableMap().keySet()).containsExactlyInAnyOrderElementsOf(rest);
            for (String table : rest) {
                assertThat(print.getTableBytes(print.getTableMap().get(table)))
                        .as(table)
                        .isEqualTo(whole.getTableBytes(whole.getTableMap().get(table)));
            }
            for (String letter : new String[] {"A", "j", "7", "μ"}) {
                int code = letter.codePointAt(0);
                int glyph = print.getUnicodeCmapLookup().getGlyphId(code);
                assertThat(glyph)
                        .isPositive()
                        .isEqualTo(whole.getUnicodeCmapLookup().getGlyphId(code));
                assertThat(print.getAdvanceWidth(glyph)).isEqualTo(whole.getAdvanceWidth(glyph));
            }
        }
    }
}
