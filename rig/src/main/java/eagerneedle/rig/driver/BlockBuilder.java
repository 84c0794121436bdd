package eagerneedle.rig.driver;

import java.util.ArrayList;
import java.util.List;

/**
 * Samples on their way from an instrument to a block: times made to start at 0 and to rise, so that a clock that jumps
 * back costs its own samples and no others.
 */
final class BlockBuilder {
    private final List<double[]> rows = new ArrayList<>();
    private final double ticks;
    private double first = Double.NaN;
    private double last = Double.NaN;

    BlockBuilder() {
        this(0);
    }

    /**
     * @param ticks how often the instrument's clock ticks in a second, so that times stay whole ticks from the start; 0
     *     if not known
     */
    BlockBuilder(double ticks) {
        this.ticks = ticks;
    }

    void restart() {
        restart(Double.NaN);
    }

    /** @param start what the instrument's clock shows at time 0; NaN for the time of the first row */
    void restart(double start) {
        rows.clear();
        first = start;
        last = Double.NaN;
    }

    /** Takes one row, its time first in seconds by the instrument's clock; false when its time does not rise. */
    boolean add(double[] row) {
        first = Double.isNaN(first) ? row[0] : first;
        row[0] -= first;
        row[0] = ticks > 0 ? Math.rint(row[0] * ticks) / ticks : row[0];
        if (row[0] <= last) {
            return false;
        }
        last = row[0];
        rows.add(row);
        return true;
    }

    boolean isEmpty() {
        return rows.isEmpty();
    }

    /** Everything taken since the last block. */
    Driver.Block take() {
        int channels = rows.get(0).length - 1;
        double[] time = new double[rows.size()];
        double[][] values = new double[channels][rows.size()];
        for (int i = 0; i < time.length; i++) {
            time[i] = rows.get(i)[0];
            for (int c = 0; c < channels; c++) {
                values[c][i] = rows.get(i)[c + 1];
            }
        }
        rows.clear();
        return new Driver.Block(time, values);
    }
}
