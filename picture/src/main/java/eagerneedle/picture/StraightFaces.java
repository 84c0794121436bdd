package eagerneedle.picture;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.picture.Surface.Align;
import java.util.Map;

/** Faces along a line: a rule, a vernier, a micrometer, a drum with a vernier, the tube of a liquid. */
final class StraightFaces extends FaceCanvas {
    StraightFaces(Surface s, double w, double h, Map<String, String> values, boolean tells) {
        super(s, w, h, values, tells);
    }

    void rule() {
        double division = step("division", "mark");
        double mark = number("mark");
        int numbered = numbered(division);
        double at = mark / division;
        double gap = w / (2.0 * (AROUND + 4));
        double y = h * 0.42;
        s.rectangle(6, Math.max(14, y - 70), w / 2 - 6, Math.min(66, y - 18), Ink.REACH, Ink.RULE, 2);
        s.rectangle(6, y, w - 12, Math.min(74, h - y - 22), Ink.SURFACE, Ink.INK, 3);
        for (long i = (long) Math.ceil(at - AROUND - 4); i <= at + AROUND + 4; i++) {
            double x = w / 2 + (i - at) * gap;
            if (x < 10 || x > w - 10) {
                continue;
            }
            s.line(x, y, x, y + tick(i, numbered), Ink.INK, i % numbered == 0 ? 1.6 : 1);
            if (i % numbered == 0 && x > 20 && x < w - 20) {
                s.text(plain(i * division), x, y + 38, Align.CENTRE, Lettering.figures(12), Ink.INK);
            }
        }
        s.line(w / 2, 8, w / 2, y + 26, Ink.NEEDLE, 1.6);
        caption("the edge at " + plain(mark) + " " + unitOf("mark").pretty());
    }

    /** @param main what stands before the vernier's zero, in divisions of the main scale */
    void vernier(double main, LabUnit unit) {
        double division = values.containsKey("division") ? step("division", "main") : 1;
        int marks = (int) Math.max(2, Math.min(200, number("marks")));
        double mark = number("mark");
        double zero = main + mark / marks;
        double reach = marks + 3.0;
        double gap = (w - 24) / reach;
        double y = h * 0.45;
        s.rectangle(6, 12, w - 12, y - 12, Ink.SURFACE, Ink.INK, 3);
        double left = Math.floor(zero) - 1;
        int numbered = numbered(division);
        for (long i = (long) left; i <= left + reach; i++) {
            double x = 12 + (i - left) * gap;
            s.line(x, y, x, y - tick(i, numbered), Ink.INK, i % numbered == 0 ? 1.5 : 0.9);
            if (i % numbered == 0 && x > 18 && x < w - 18) {
                s.text(plain(i * division), x, y - 28, Align.CENTRE, Lettering.figures(12), Ink.INK);
            }
        }
        double from = 12 + (zero - left) * gap;
        double vernierGap = gap * (marks - 1) / marks;
        s.rectangle(from - 8, y, vernierGap * marks + 16, 46, Ink.PAPER, Ink.INK, 3);
        int every = marks > 30 ? 10 : 5;
        for (int i = 0; i <= marks; i++) {
            double x = from + i * vernierGap;
            boolean meets = tells && Math.abs(i - mark) < 0.51;
            s.line(x, y, x, y + (i % every == 0 ? 18 : 11), meets ? Ink.NEEDLE : Ink.INK, meets ? 2.2 : 0.9);
            if (i % every == 0) {
                s.text(Integer.toString(i), x, y + 34, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
            }
        }
        caption("mark " + plain(mark) + " meets one above: " + plain(zero * division) + " " + unit.pretty());
    }

    void micrometer() {
        double pitch = step("pitch", "sleeve");
        double sleeve = number("sleeve");
        double thimble = number("thimble");
        int divisions = (int) Math.max(2, number("divisions"));
        double value = sleeve + thimble / divisions * pitch;
        double edge = w * 0.56;
        double y = h * 0.48;
        double gap = Math.min(26, (edge - 20) / 9);
        s.rectangle(8, y - 34, edge - 8, 68, Ink.SURFACE, Ink.INK, 2);
        s.line(8, y, edge, y, Ink.INK, 1.2);
        for (long i = Math.round(sleeve / pitch) + 1; i >= 0; i--) {
            double x = edge - (value / pitch - i) * gap;
            // A mark shows once the edge has passed it, and not before.
            if (x > edge + 0.02 || x < 16) {
                continue;
            }
            boolean above = i % 2 == 0;
            s.line(x, y, x, above ? y - 14 : y + 10, Ink.INK, 1.1);
            if (above && i % 10 == 0 || above && gap > 20 && i % 2 == 0 && i * pitch == Math.rint(i * pitch)) {
                s.text(plain(i * pitch), x, y - 19, Align.CENTRE, Lettering.figures(10), Ink.INK);
            }
        }
        double high = h - 44;
        s.rectangle(edge, y - high / 2, w * 0.3, high, Ink.PAPER, Ink.INK, 4);
        double step = high / 15;
        s.clipped(edge, y - high / 2, w * 0.3, high, () -> {
            for (long i = (long) Math.floor(thimble - 8); i <= thimble + 8; i++) {
                double at = y - (i - thimble) * step;
                long shown = Math.floorMod(i, divisions);
                s.line(edge, at, edge + (shown % 5 == 0 ? 20 : 12), at, Ink.INK, shown % 5 == 0 ? 1.5 : 0.9);
                if (shown % 5 == 0) {
                    s.text(Long.toString(shown), edge + 26, at + 4, Align.LEFT, Lettering.figures(11), Ink.INK);
                }
            }
        });
        s.line(edge - 6, y, edge + 22, y, Ink.NEEDLE, 1.6);
        caption("thimble at " + plain(thimble) + ": " + plain(value) + " "
                + unitOf("sleeve").pretty());
    }

    /** A dial unrolled, with a vernier beside it. */
    void drum() {
        double mark = number("mark");
        int divisions = (int) Math.max(2, number("divisions"));
        double fine = number("hand") + mark / Math.max(1, number("marks"));
        double value = number("main") + fine / divisions * step("turn", "main");
        vernier(number("hand"), LabUnit.ONE);
        s.rectangle(0, h - 20, w, 20, Ink.PAPER, null, 0);
        beside("whole turns: " + values.get("main"));
        caption(values.get("main") + ", then " + plain(number("hand")) + " and mark " + plain(mark) + ": "
                + plain(value) + " " + unitOf("main").pretty());
    }

    /** A cylinder counts upwards, a burette, of which two surfaces are read, downwards. */
    void meniscus() {
        double division = step("division", "mark");
        double mark = number("mark");
        boolean down = number("edges") > 1;
        double at = mark / division;
        int numbered = numbered(division);
        double tube = Math.min(90, w * 0.3);
        double x = w / 2 - tube / 2;
        double y = h * 0.46;
        double gap = (h - 30) / 22;
        s.clipped(0, 4, w, h - 26, () -> {
            s.rectangle(x, y - 5, tube, h, Ink.REACH, null, 0);
            int n = 24;
            double[] px = new double[n + 3];
            double[] py = new double[n + 3];
            for (int i = 0; i <= n; i++) {
                double u = 2.0 * i / n - 1;
                px[i] = x + tube * i / n;
                py[i] = y - 7 * u * u;
            }
            px[n + 1] = x + tube;
            py[n + 1] = y - 20;
            px[n + 2] = x;
            py[n + 2] = y - 20;
            s.rectangle(x, y - 8, tube, 8, Ink.REACH, null, 0);
            s.polygon(px, py, Ink.SURFACE);
            s.polyline(px, py, n + 1, Ink.TRACE1, 1.6);
            s.line(x, 0, x, h, Ink.INK, 1.4);
            s.line(x + tube, 0, x + tube, h, Ink.INK, 1.4);
            for (long i = (long) Math.ceil(at - AROUND - 3); i <= at + AROUND + 3; i++) {
                if (i < 0) {
                    continue;
                }
                double ty = y + (i - at) * gap * (down ? 1 : -1);
                s.line(x, ty, x + tick(i, numbered) * 1.3, ty, Ink.INK, i % numbered == 0 ? 1.5 : 0.9);
                if (i % numbered == 0) {
                    s.text(plain(i * division), x - 6, ty + 4, Align.RIGHT, Lettering.figures(12), Ink.INK);
                }
            }
        });
        s.line(x - 12, y, x + tube + 40, y, Ink.NEEDLE, 1.4);
        caption("lowest point at " + plain(mark) + " " + unitOf("mark").pretty()
                + (down ? ", counted downwards" : ", counted upwards"));
    }
}
