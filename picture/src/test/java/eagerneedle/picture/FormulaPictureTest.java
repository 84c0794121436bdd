package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** How equations are set, counted in the strokes that are painted. */
class FormulaPictureTest {
    private static String svg(String equation) {
        SvgSurface s = new SvgSurface(400, 80, false, "f");
        FormulaPicture.paint(s, equation, 4, 40, 16, Ink.INK);
        return s.document(equation);
    }

    private static int count(String equation, String what) {
        return svg(equation).split(what, -1).length - 1;
    }

    @Test
    void aLeadingMinusNeedsNoBracketsOfItsOwn() {
        int bows = count("y = exp(k * t)", "<polyline");
        assertThat(bows).as("the brackets of the function").isEqualTo(2);
        assertThat(count("y = exp(-k * t)", "<polyline")).isEqualTo(bows);
        assertThat(count("y = exp(-k / t)", "<polyline")).isEqualTo(bows);
        assertThat(count("y = a * (-k * t)", "<polyline"))
                .as("inside a product it does")
                .isEqualTo(2);
        assertThat(count("y = a - (-b)", "<polyline")).isEqualTo(2);
    }

    @Test
    void aFractionInAFractionHasAStroke() {
        assertThat(count("y = a / b", "<line")).isEqualTo(1);
        assertThat(count("y = a / (b + c / d)", "<line")).as("one bar only").isEqualTo(1);
        assertThat(svg("y = a / (b + c / d)")).contains(">\u2009/\u2009<");
        assertThat(count("y = a / b + c / d", "<line")).isEqualTo(2);
        assertThat(count("y = a / (b / (c / d))", "<polyline"))
                .as("what is divided by a quotient is bracketed")
                .isEqualTo(2);
    }

    /** The equals signs of a comparison, of an argument and of a text do not part an equation. */
    @Test
    void anEquationIsPartedAtItsOwnEqualsSigns() {
        assertThat(FormulaPicture.sides("e_r = mean(where(meet.e, kind == springy)) = x <= 3"))
                .containsExactly("e_r ", " mean(where(meet.e, kind == springy)) ", " x <= 3");
        assertThat(FormulaPicture.sides("k = fit(T, rate: '-q * T', find: 'q = 3e-4 1/s')"))
                .hasSize(2);
    }
}
