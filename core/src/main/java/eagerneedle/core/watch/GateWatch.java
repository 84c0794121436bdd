package eagerneedle.core.watch;

import eagerneedle.core.event.Edges;
import eagerneedle.core.trace.RawSamples;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/** Watches the edges of a gate: ones it did not see, and ones it saw twice. */
public final class GateWatch {
    private static final int FEWEST = 5;
    private final String gate;

    /** @param gate what people call it */
    public GateWatch(String gate) {
        this.gate = gate;
    }

    /**
     * Looks at a record.
     *
     * @param states of the gate after each edge, 1 for blocked, with their moments in s
     */
    public Optional<Finding> look(int run, RawSamples states) {
        double[] rising = IntStream.range(1, states.size())
                .filter(i -> states.values()[i] > 0.5 && states.values()[i - 1] <= 0.5)
                .mapToDouble(i -> states.time()[i])
                .toArray();
        List<Edges.Suspect> suspects =
                rising.length < FEWEST ? List.of() : Edges.of(rising).suspects();
        if (suspects.isEmpty()) {
            return Optional.empty();
        }
        Edges.Suspect s = suspects.get(0);
        double at = rising[Math.min(rising.length - 1, s.index())];
        return Optional.of((s.kind() == Edges.Kind.MISSED ? Rule.MISSED_EDGE : Rule.DOUBLE_EDGE)
                .of(
                        run,
                        gate,
                        at,
                        at,
                        gate + ": " + s.sentence()
                                + (suspects.size() > 1 ? " " + (suspects.size() - 1) + " more like it." : "")));
    }
}
