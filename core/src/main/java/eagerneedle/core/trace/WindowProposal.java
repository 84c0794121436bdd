package eagerneedle.core.trace;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Proposes windows from the pieces a trace falls into. A proposal always says why it lies where it lies. */
public enum WindowProposal {
    /** The piece in which the signal travels farthest: the roll between release and stop. */
    LONGEST_TRAVEL {
        @Override
        Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces) {
            return pieces.stream().max(Comparator.comparingDouble(p -> Math.abs(p.travel())))
                    .filter(p -> p.to() - p.from() > 2 * GUARD + 4)
                    .map(p -> new Window(trace.time()[p.from() + (p.from() == 0 ? 0 : GUARD)], trace.time()[p.to() - 1 - (p.to() == trace.size() ? 0 : GUARD)],
                            "proposed: the stretch with the longest travel, " + GUARD + " samples clear of each change"));
        }
    },
    /** The whole trace. */
    WHOLE {
        @Override
        Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces) {
            return Optional.of(new Window(trace.time()[0], trace.time()[trace.size() - 1], "proposed: the whole run"));
        }
    };

    private static final int GUARD = 2;

    abstract Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces);

    /** The window proposed for a trace; empty where the trace shows nothing of the kind. */
    public Optional<Window> of(Trace trace) {
        return trace.size() < 8 ? Optional.empty() : choose(trace, Segmentation.quadraticPieces(trace));
    }

    /** The proposal a method sheet names, such as {@code longest-travel}. */
    public static WindowProposal named(String name) {
        return valueOf(name.toUpperCase(Locale.ROOT).replace('-', '_').replace(' ', '_'));
    }
}
