package eagerneedle.app.calibrate;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Channel;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Closing the circle: which graduations come next, the table of readings, and the errors as soon as they follow from
 * it.
 */
final class ClosureModel {
    private final Workbench bench;
    private final String name;
    private final Channel channel;
    private final CalibrationDraft draft;
    private final double[][] readings;
    private int at;
    private boolean set;

    ClosureModel(Workbench bench, String name) {
        this.bench = bench;
        this.name = name;
        this.channel = bench.sheet().channel(name);
        this.draft = new CalibrationDraft(bench, name);
        int n = channel.calibrationPlan().intervals();
        readings = new double[n][n];
        for (double[] row : readings) {
            Arrays.fill(row, Double.NaN);
        }
    }

    Channel channel() {
        return channel;
    }

    private int n() {
        return readings.length;
    }

    private int series() {
        return at / n();
    }

    private int lower() {
        return at % n();
    }

    boolean isOver() {
        return at >= n() * n();
    }

    boolean hasBegun() {
        return at > 0;
    }

    /** True once the bench was told to turn the tables to the cell that is next. */
    boolean isSet() {
        return set;
    }

    /** What the bench is told so that the tables stand at the cell that is next. */
    Map<String, String> setting() {
        set = true;
        return Map.of(
                "channel",
                name,
                "lower",
                Integer.toString(lower()),
                "upper",
                Integer.toString((series() + lower()) % n()));
    }

    /**
     * Takes a reading into the cell that is next.
     *
     * @param mean in the channel's unit
     * @param sinceSetting true when a reading counts from where the tables stood before, as a simulated cumulative one
     *     does
     */
    void take(double mean, boolean sinceSetting) {
        boolean cumulative = channel.calibrationPlan().mode().equals("cumulative");
        double before = cumulative && lower() > 0 ? readings[series()][lower() - 1] : 0;
        readings[series()][lower()] = mean + (cumulative && sinceSetting ? before : 0);
        step(1);
    }

    /** Leaves the cell that is next empty. */
    void skip() {
        step(1);
    }

    /** Empties the cell before and goes back to it. */
    void back() {
        step(-1);
        readings[series()][lower()] = Double.NaN;
    }

    private void step(int by) {
        at = Math.max(0, Math.min(n() * n(), at + by));
        set = false;
    }

    private Optional<Calibration> stored() {
        return bench.session().calibrationOf(name, bench.sheet());
    }

    boolean canCertify() {
        return stored().isPresent();
    }

    boolean canKeep() {
        return hasBegun() && solution().isPresent();
    }

    Calibration made() {
        return draft.of(List.of(), List.of(), table());
    }

    private ClosureReadings table() {
        double[][] copy = new double[n()][];
        for (int k = 0; k < copy.length; k++) {
            copy[k] = readings[k].clone();
        }
        return new ClosureReadings(channel.unit(), channel.calibrationPlan().mode(), copy);
    }

    private boolean showsStored() {
        return !hasBegun() && stored().isPresent();
    }

    /** The table that is shown: the one in the making, or else the one that is kept. */
    ClosureReadings shown() {
        return showsStored() ? stored().get().circles() : table();
    }

    /** The errors of both circles as far as they follow already. */
    Optional<ClosureReadings.Solution> solution() {
        if (!showsStored() && at < n()) {
            return Optional.empty();
        }
        try {
            return Optional.of(shown().solve(showsStored() ? stored().get().id() : "draft"));
        } catch (FitException notYet) {
            return Optional.empty();
        }
    }

    /** Series and place of the cell that is next; empty when none is. */
    Optional<int[]> here() {
        return isOver() || showsStored() ? Optional.empty() : Optional.of(new int[] {series(), lower()});
    }

    /** What is to be turned now. */
    String says() {
        return isOver()
                ? "Every interval was compared with every other."
                : "Series " + (series() + 1) + ", reading " + (lower() + 1) + ": turn the lower table through interval "
                        + (lower() + 1) + ", the upper one back through interval "
                        + ((series() + lower()) % n() + 1) + ".";
    }

    String progress() {
        return at + " of " + n() * n() + " readings";
    }

    /** How many intervals there are on both circles. */
    int intervals() {
        return 2 * n();
    }

    /** What the errors are, or that they are still to come. */
    String result() {
        return solution()
                .map(s -> {
                    double largest = s.lower().stream()
                            .mapToDouble(q -> Math.abs(q.value()))
                            .max()
                            .orElse(0);
                    return "Scatter of one reading " + Notation.figures(s.sd(), 2) + " "
                            + channel.labUnit().pretty() + " with " + s.dof()
                            + " degrees of freedom; an interval is known to "
                            + Notation.figures(s.lower().get(0).u(), 2) + ". Largest error of the lower table "
                            + Notation.plain(largest, 2) + ".\n"
                            + String.join(
                                    "\n",
                                    s.remarks().stream().map(r -> "▲ " + r).toList());
                })
                .orElse("The errors follow as soon as enough cells are filled; both circles then close by themselves.");
    }
}
