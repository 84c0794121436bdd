package eagerneedle.picture;

/** Arcs and sectors of circles. Angles in radians, clockwise from the top. */
final class Arcs {
    private static final int CORNERS = 24;

    private Arcs() {}

    /** The ring between two radii, from one angle to another. */
    static void sector(Surface s, double cx, double cy, double inner, double outer, double from, double to, Ink ink) {
        double[] px = new double[2 * CORNERS + 2];
        double[] py = new double[2 * CORNERS + 2];
        for (int i = 0; i <= CORNERS; i++) {
            double a = from + (to - from) * i / CORNERS;
            px[i] = cx + outer * Math.sin(a);
            py[i] = cy - outer * Math.cos(a);
            px[2 * CORNERS + 1 - i] = cx + inner * Math.sin(a);
            py[2 * CORNERS + 1 - i] = cy - inner * Math.cos(a);
        }
        s.polygon(px, py, ink);
    }

    /** The line of a radius, from one angle to another. */
    static void arc(Surface s, double cx, double cy, double radius, double from, double to, Ink ink, double width) {
        int n = 2 * CORNERS + 12;
        double[] px = new double[n + 1];
        double[] py = new double[n + 1];
        for (int i = 0; i <= n; i++) {
            double a = from + (to - from) * i / n;
            px[i] = cx + radius * Math.sin(a);
            py[i] = cy - radius * Math.cos(a);
        }
        s.polyline(px, py, n + 1, ink, width);
    }

    /** A line along a radius, from one distance to another at an angle: a graduation. */
    static void spoke(Surface s, double cx, double cy, double from, double to, double angle, Ink ink, double width) {
        s.line(
                cx + from * Math.sin(angle),
                cy - from * Math.cos(angle),
                cx + to * Math.sin(angle),
                cy - to * Math.cos(angle),
                ink,
                width);
    }
}
