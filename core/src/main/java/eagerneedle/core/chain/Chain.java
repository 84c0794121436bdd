package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import java.util.List;

/**
 * Sensor, conditioners and converter of one channel, composed forwards (measurand to counts) and backwards.
 *
 * @param stages    in order from the measurand; at least one
 * @param converter the last link
 */
public record Chain(List<Stage> stages, Converter converter) {
    public Chain {
        stages = List.copyOf(stages);
        if (stages.isEmpty()) {
            throw new IllegalArgumentException("A chain needs at least a sensor.");
        }
    }

    /** Unit of the measurand. */
    public LabUnit unit() {
        return stages.get(0).input();
    }

    /** Counts for a measurand value in {@link #unit()}, held at the rails. */
    public double counts(double measurand) {
        double v = measurand;
        for (Stage s : stages) {
            v = s.forward(v);
        }
        return converter.count(v);
    }

    /** Indication in {@link #unit()} for a count, by the chain's nominal transfer. */
    public double indication(double count) {
        double v = converter.input(count);
        for (int i = stages.size() - 1; i >= 0; i--) {
            v = stages.get(i).backward(v);
        }
        return v;
    }

    /** Smallest step that can be seen, in {@link #unit()}. */
    public double step() {
        return Math.abs(indication(1) - indication(0));
    }

    /** Lowest and highest measurand that can be reached: converter rails and stage limits together, in {@link #unit()}. */
    public double[] reach() {
        double a = indication(0);
        double b = indication(converter.highestCount());
        double[] reach = {Math.min(a, b), Math.max(a, b)};
        for (int i = 0; i < stages.size(); i++) {
            double low = stages.get(i).lowest();
            double high = stages.get(i).highest();
            for (int k = i - 1; k >= 0; k--) {
                low = stages.get(k).backward(low);
                high = stages.get(k).backward(high);
            }
            reach[0] = Math.max(reach[0], Math.min(low, high));
            reach[1] = Math.min(reach[1], Math.max(low, high));
        }
        return reach;
    }
}
