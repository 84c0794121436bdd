package eagerneedle.core.trace;

import eagerneedle.core.quantity.Notation;
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
            return pieces.stream()
                    .max(Comparator.comparingDouble(p -> Math.abs(p.travel())))
                    .filter(p -> p.to() - p.from() > 2 * GUARD + 4)
                    .map(p -> guarded(trace, p, "the stretch with the longest travel"));
        }
    },
    /** The straight piece that stands still best for its length: a plateau, an arrest, a settled reading. */
    PLATEAU {
        @Override
        Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces) {
            List<Segmentation.Piece> straight = Segmentation.linearPieces(trace);
            double steepest =
                    straight.stream().mapToDouble(p -> rate(trace, p)).max().orElse(0);
            return straight.stream()
                    .filter(p -> p.to() - p.from() > 2 * GUARD + 4 && rate(trace, p) <= 0.2 * steepest
                            || straight.size() == 1)
                    .max(Comparator.comparingDouble(p -> trace.time()[p.to() - 1] - trace.time()[p.from()]))
                    .map(p -> guarded(trace, p, "the longest stretch that stands still"));
        }
    },
    /** The longest straight piece. */
    LONGEST_STRAIGHT {
        @Override
        Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces) {
            return Segmentation.linearPieces(trace).stream()
                    .max(Comparator.comparingDouble(p -> trace.time()[p.to() - 1] - trace.time()[p.from()]))
                    .filter(p -> p.to() - p.from() > 2 * GUARD + 4)
                    .map(p -> guarded(trace, p, "the longest straight stretch"));
        }
    },
    /** Edges that come faster and faster, up to where that ends: a falling mass that drives a wheel until it lands. */
    SPEEDING_UP {
        @Override
        Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces) {
            return SpeedingUp.of(trace);
        }
    },
    /** From the moment the signal has become steady to the end. */
    STEADY {
        @Override
        Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces) {
            double end = trace.time()[trace.size() - 1];
            return Steadiness.of(trace, 2)
                    .or(() -> Steadiness.of(trace, 3))
                    .or(() -> Steadiness.of(trace, 4))
                    .map(s -> new Window(s.since(), end, "proposed: steady from " + hundredths(s.since()) + " s on"))
                    .or(() -> Steadiness.withinScatter(trace)
                            .map(s -> new Window(
                                    s.since(),
                                    end,
                                    "proposed: from " + hundredths(s.since()) + " s on the drift, "
                                            + Notation.plain(s.rest().drift(end - s.since()), 2) + " "
                                            + trace.unit().difference().pretty()
                                            + ", stays within the scatter of single samples")));
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

    private static Window guarded(Trace trace, Segmentation.Piece p, String what) {
        return new Window(
                trace.time()[p.from() + (p.from() == 0 ? 0 : GUARD)],
                trace.time()[p.to() - 1 - (p.to() == trace.size() ? 0 : GUARD)],
                "proposed: " + what + ", " + GUARD + " samples clear of each change");
    }

    private static double hundredths(double seconds) {
        return Math.round(seconds * 100) / 100.0;
    }

    private static double rate(Trace trace, Segmentation.Piece p) {
        return Math.abs(p.travel()) / (trace.time()[p.to() - 1] - trace.time()[p.from()]);
    }

    abstract Optional<Window> choose(Trace trace, List<Segmentation.Piece> pieces);

    /** The window proposed for a trace; empty where the trace shows nothing of the kind. */
    public Optional<Window> of(Trace trace) {
        return trace.size() < 8 ? Optional.empty() : choose(trace, Segmentation.quadraticPieces(trace));
    }

    /** The proposal a method sheet names, such as {@code longest-travel}. */
    public static WindowProposal named(String name) {
        String wanted = name.toUpperCase(Locale.ROOT).replace('-', '_').replace(' ', '_');
        return java.util.Arrays.stream(values())
                .filter(p -> p.name().equals(wanted))
                .findFirst()
                .orElseThrow(() ->
                        new IllegalArgumentException("There is no proposal of windows called " + name + "; there are: "
                                + String.join(
                                        ", ",
                                        java.util.Arrays.stream(values())
                                                .map(p -> p.name()
                                                        .toLowerCase(Locale.ROOT)
                                                        .replace('_', '-'))
                                                .toList())
                                + "."));
    }
}
