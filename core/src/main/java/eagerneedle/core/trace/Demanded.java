package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.List;

/**
 * Which of the changes between straight pieces the data demand.
 *
 * <p>Noise that remembers wanders, and what wanders looks like pieces. So each change is held against its absence with
 * noise that remembers its last value in both cases (first order autoregression), by the criterion of Schwarz (1978,
 * Annals of Statistics 6, 461): a change costs three parameters, two of its line and its place, and pays by the
 * innovations that it makes smaller. The change that is worth least goes first, until all that are left pay.
 */
final class Demanded {
    private static final int PARAMETERS = 3;

    private final double[] v;

    private Demanded(double[] v) {
        this.v = v;
    }

    /**
     * @param values the samples
     * @param stride every how many samples were looked at
     * @return first sample and sample after the last of each piece that stays
     */
    static List<int[]> of(double[] values, int stride, List<Segmentation.Piece> pieces) {
        int m = values.length / stride;
        double[] v = new double[m];
        for (int i = 0; i < m; i++) {
            v[i] = values[i * stride];
        }
        List<Integer> changes = new ArrayList<>();
        for (int i = 1; i < pieces.size(); i++) {
            changes.add(pieces.get(i).from() / stride);
        }
        new Demanded(v).prune(changes);
        List<int[]> out = new ArrayList<>();
        int from = 0;
        for (int c : changes) {
            out.add(new int[] {from, c * stride});
            from = c * stride;
        }
        out.add(new int[] {from, values.length});
        return out;
    }

    private void prune(List<Integer> changes) {
        double now = criterion(changes);
        while (!changes.isEmpty()) {
            double least = Double.POSITIVE_INFINITY;
            int worth = -1;
            for (int k = 0; k < changes.size(); k++) {
                List<Integer> without = new ArrayList<>(changes);
                without.remove(k);
                double c = criterion(without);
                if (c < least) {
                    least = c;
                    worth = k;
                }
            }
            // All of them together may be worth less than none, though each one alone pays.
            double none = criterion(List.of());
            if (none <= Math.min(now, least)) {
                changes.clear();
            } else if (least <= now) {
                changes.remove(worth);
                now = least;
            } else {
                return;
            }
        }
    }

    /** n ln of the innovations' variance, and what the parameters cost. */
    private double criterion(List<Integer> changes) {
        double[] e = residuals(changes);
        double own = 0;
        double next = 0;
        for (int i = 0; i + 1 < e.length; i++) {
            own += e[i] * e[i];
            next += e[i] * e[i + 1];
        }
        double memory = own > 0 ? Math.max(0, Math.min(1, next / own)) : 0;
        double squares = e.length == 0 ? 0 : e[0] * e[0];
        for (int i = 1; i < e.length; i++) {
            double innovation = e[i] - memory * e[i - 1];
            squares += innovation * innovation;
        }
        double n = e.length;
        double rounding = 1e-24 * v[0] * v[0] + Double.MIN_NORMAL;
        return n * Math.log(squares / n + rounding) + PARAMETERS * changes.size() * Math.log(n);
    }

    private double[] residuals(List<Integer> changes) {
        double[] e = new double[v.length];
        int from = 0;
        for (int k = 0; k <= changes.size(); k++) {
            int to = k < changes.size() ? changes.get(k) : v.length;
            line(from, to, e);
            from = to;
        }
        return e;
    }

    private void line(int from, int to, double[] e) {
        double centre = (from + to - 1) * 0.5;
        double mean = 0;
        double along = 0;
        double spread = 0;
        for (int i = from; i < to; i++) {
            mean += v[i] / (to - from);
            along += v[i] * (i - centre);
            spread += (i - centre) * (i - centre);
        }
        double slope = spread > 0 ? along / spread : 0;
        for (int i = from; i < to; i++) {
            e[i] = v[i] - mean - slope * (i - centre);
        }
    }
}
