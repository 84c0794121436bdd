package eagerneedle.app.workbench;

import eagerneedle.core.trace.RawSamples;
import java.util.List;

/** The inputs of all connected instruments, by names that tell them apart. */
record Inputs(List<Connection> connections) {
    List<String> names() {
        return connections.stream()
                .flatMap(c -> c.description().channels().stream().map(own -> name(c, own)))
                .toList();
    }

    /** Samples of the last seconds of an input, as they came. */
    RawSamples last(String input, double seconds) {
        for (Connection c : connections) {
            for (String own : c.description().channels()) {
                if (name(c, own).equals(input)) {
                    return c.last(own, seconds);
                }
            }
        }
        return RawSamples.NONE;
    }

    private String name(Connection c, String own) {
        boolean alone = connections.stream()
                        .filter(o -> o.description().channels().contains(own))
                        .count()
                < 2;
        return alone ? own : own + " of " + c.label();
    }
}
