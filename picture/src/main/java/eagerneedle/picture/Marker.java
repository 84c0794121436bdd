package eagerneedle.picture;

/** The sign of one point, by which series are told apart beside their ink. */
public final class Marker {
    private Marker() {}

    /**
     * Paints one.
     *
     * @param r half its size
     * @param weak true for a hollow one
     */
    public static void paint(Surface s, double px, double py, double r, int series, boolean weak) {
        Ink ink = weak ? Ink.QUIET : Ink.trace(series);
        if (weak) {
            s.circle(px, py, r, null, ink, 0.8);
            return;
        }
        switch (Math.floorMod(series, 4)) {
            case 1 -> s.rectangle(px - r, py - r, 2 * r, 2 * r, ink, null, 0);
            case 2 ->
                s.polygon(
                        new double[] {px, px + r * 1.2, px - r * 1.2},
                        new double[] {py - r * 1.2, py + r, py + r},
                        ink);
            case 3 ->
                s.polygon(
                        new double[] {px, px + r * 1.3, px, px - r * 1.3},
                        new double[] {py - r * 1.3, py, py + r * 1.3, py},
                        ink);
            default -> s.circle(px, py, r, ink, null, 0);
        }
    }
}
