package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Contrast of words on grounds, WCAG 2.2, 1.4.3, in both themes. */
class InkTest {
    private static double luminance(String web) {
        double[] weight = {0.2126, 0.7152, 0.0722};
        double sum = 0;
        for (int i = 0; i < 3; i++) {
            double v = Integer.parseInt(web.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
            sum += weight[i] * (v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4));
        }
        return sum;
    }

    static double contrast(Ink a, Ink b, boolean dark) {
        double x = luminance(a.web(dark));
        double y = luminance(b.web(dark));
        return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
    }

    @Test
    void wordsCanBeReadOnEveryGround() {
        for (boolean dark : new boolean[] {false, true}) {
            for (Ink word : List.of(Ink.INK, Ink.QUIET, Ink.NEEDLE, Ink.GOOD, Ink.ATTENTION)) {
                for (Ink ground : List.of(Ink.PAPER, Ink.SURFACE, Ink.CHOSEN, Ink.TINT, Ink.WINDOW)) {
                    assertThat(contrast(word, ground, dark))
                            .as("%s on %s, %s", word, ground, dark ? "dark" : "light")
                            .isGreaterThanOrEqualTo(4.5);
                }
            }
            assertThat(contrast(Ink.EDGE, Ink.PAPER, dark))
                    .as("edges of fields")
                    .isGreaterThanOrEqualTo(3);
        }
    }

    @Test
    void blackOnWhiteIsTwentyOneToOne() {
        assertThat(luminance("#FFFFFF")).isEqualTo(1);
        assertThat((luminance("#FFFFFF") + 0.05) / (luminance("#000000") + 0.05))
                .isEqualTo(21);
    }
}
