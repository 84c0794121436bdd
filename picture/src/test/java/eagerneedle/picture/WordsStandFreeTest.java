package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Proxy;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Labels never lie on data or on a window's edge: looked up on what was painted. */
class WordsStandFreeTest {
    private static final double W = 620;
    private static final double H = 300;

    /** A painted text with the box of its letters. */
    record Painted(String text, double left, double top, double right, double bottom) {
        static Painted of(Surface s, String text, double x, double y, Surface.Align align, Lettering l) {
            double w = s.textWidth(text, l);
            double left = align == Surface.Align.LEFT ? x : align == Surface.Align.RIGHT ? x - w : x - w / 2;
            return new Painted(text, left, y - 0.73 * l.size(), left + w, y + 0.2 * l.size());
        }

        boolean holds(double x, double y) {
            return x > left && x < right && y > top && y < bottom;
        }

        boolean crosses(double x) {
            return x > left && x < right;
        }

        boolean over(Painted o) {
            return left < o.right && o.left < right && top < o.bottom && o.top < bottom;
        }
    }

    /** Every text that is painted, with its box. */
    static List<Painted> paintedBy(double w, double h, Consumer<Surface> painting) {
        List<Painted> out = new ArrayList<>();
        Surface svg = new SvgSurface(w, h, false, "t");
        painting.accept((Surface) Proxy.newProxyInstance(
                Surface.class.getClassLoader(), new Class<?>[] {Surface.class}, (proxy, method, a) -> {
                    if (method.getName().equals("text")) {
                        out.add(Painted.of(
                                svg, (String) a[0], (double) a[1], (double) a[2], (Surface.Align) a[3], (Lettering)
                                        a[4]));
                    }
                    return method.invoke(svg, a);
                }));
        return out;
    }

    private static List<Painted> paint(Plot plot, PlotPainter.Frame[] frame) {
        return paintedBy(W, H, s -> frame[0] = PlotPainter.paint(s, plot, plot.whole(), 0, 0, W, H, true));
    }

    /** A trace, its fit, a window with edges, a legend of three lines and two words: wherever the data may lie. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void wordsFindRoom(int seed) {
        Random random = new Random(seed);
        int n = 90;
        double[] x = new double[n];
        double[] y = new double[n];
        double bend = 3 * random.nextGaussian();
        double wave = seed % 3 == 0 ? 2 : 0;
        for (int i = 0; i < n; i++) {
            x[i] = i / 30.0;
            y[i] = bend * x[i] * (x[i] - 2 * random.nextDouble())
                    + wave * Math.sin(9 * x[i])
                    + (seed % 4 == 0 ? 3 : 0.05) * random.nextGaussian();
        }
        Plot plot = new Plot(
                        "t",
                        new Plot.Axis("time", "s"),
                        new Plot.Axis("position", "m"),
                        List.of(
                                new Layer.Span(0.7, 2.1, true),
                                new Layer.Points("p", x, y, null, false, 0),
                                new Layer.Words("turns here", x[40], y[40], Ink.INK, false),
                                new Layer.Words("and here", x[42], y[42], Ink.INK, false)))
                .withLegend(List.of("acceleration 1.0642(22) m/s²", "parabola through the window", "70 points"));
        PlotPainter.Frame[] frame = new PlotPainter.Frame[1];
        List<Painted> all = paint(plot, frame);
        PlotPainter.Frame f = frame[0];
        List<Painted> words = all.stream()
                .filter(t -> t.text().matches("acceleration.*|parabola.*|70 points|turns here|and here"))
                .toList();
        assertThat(words).hasSize(5);
        for (Painted t : words) {
            for (int i = 0; i < n; i++) {
                assertThat(t.holds(f.px(x[i]), f.py(y[i])))
                        .as("%s lies on point %d", t.text(), i)
                        .isFalse();
            }
            boolean inside = t.bottom() > f.top();
            assertThat(inside && (t.crosses(f.px(0.7)) || t.crosses(f.px(2.1))))
                    .as("%s is crossed by a window's edge", t.text())
                    .isFalse();
            assertThat(t.left()).isGreaterThanOrEqualTo(0);
            assertThat(t.right()).isLessThanOrEqualTo(W);
            assertThat(all.stream().filter(o -> o != t && o.over(t)))
                    .as("%s", t.text())
                    .isEmpty();
        }
    }

    /** Wherever a narrow window lies, the times of its edges stand beside each other and within the picture. */
    @ParameterizedTest
    @ValueSource(doubles = {0.0, 0.02, 1.4, 2.9, 2.97})
    void timesOfNearEdgesDoNotMeet(double from) {
        double[] x = {0, 1, 2, 3};
        Plot plot = new Plot(
                "t",
                new Plot.Axis("time", "s"),
                new Plot.Axis("a long name of the ordinate", "m"),
                List.of(new Layer.Span(from, from + 0.02, true), new Layer.Points("p", x, x, null, false, 0)));
        List<Painted> times = paint(plot, new PlotPainter.Frame[1]).stream()
                .filter(p -> p.text().matches("\\d\\.\\d\\d s"))
                .toList();
        assertThat(times).hasSize(2);
        assertThat(times.get(0).over(times.get(1))).isFalse();
        assertThat(times).allSatisfy(p -> {
            assertThat(p.left()).isGreaterThanOrEqualTo(0);
            assertThat(p.right()).isLessThanOrEqualTo(W);
        });
    }
}
