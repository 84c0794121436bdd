package eagerneedle.core.marking;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SampleSource;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;

/**
 * One student's data, reckoned as the sheet says, by every way that it offers, and with every mistake. What has been
 * reckoned once is kept; what nobody asks for is never reckoned.
 */
public final class OwnData {
    private static final double[] GROWN = {-0.10, 0.10};
    /** Windows beyond so many are not moved one by one; those that are stand for them. */
    private static final int MOST_MOVED = 24;

    private static final double REACH = 0.25;
    private static final double REACH_U = 8;
    /** Several windows are moved at once, and both their edges. */
    private static final double MARGIN = 1.5;

    private final Reducer reducer;
    private final Session session;
    private final Sheet sheet;
    private final Reduction right;
    private final Map<String, Map<String, Double>> reckoned = new HashMap<>();
    private final Map<Change.Kind, List<Change>> changes = new HashMap<>();
    private final Map<String, Span> spans = new HashMap<>();
    private @Nullable List<Placed> placed;

    /** From the least to the greatest. */
    record Span(double least, double greatest) {
        boolean holds(double v, double slack) {
            return v >= least - slack && v <= greatest + slack;
        }
    }

    /**
     * The data of a session.
     *
     * @param located the instructor's sheet, its mistakes and all; the session's own may lack them
     */
    public OwnData(SheetReader.Located located, Session session, SampleSource samples) {
        this.session = session;
        reducer = new Reducer(located, samples);
        reducer.takeLong();
        sheet = reducer.sheetOf(session);
        right = reducer.reduce(session);
    }

    public Sheet sheet() {
        return sheet;
    }

    /** The right result; empty where the data give none. */
    public Optional<Quantity> expected(String quantity) {
        return right.quantity(quantity);
    }

    /** What a mistake makes of a result, as a number in the unit of the right one. */
    public OptionalDouble mistaken(Sheet.Mistake m, String quantity) {
        return value(Change.mistake(m), quantity);
    }

    /** The general slips that can be made with this sheet and these readings, written as mistakes of it. */
    public List<Sheet.Mistake> slips() {
        return of(Change.Kind.SLIP).stream().map(Change::together).toList();
    }

    /** What each way, or each combination of two, that the sheet offers gives. */
    List<Change> ways() {
        return changes.computeIfAbsent(Change.Kind.WAY, k -> {
            List<Change> single = new ArrayList<>();
            List<Change> out = new ArrayList<>();
            for (Sheet.Offer o : sheet.offers()) {
                String taken = session.picked().getOrDefault(o.key(), o.choice().usual());
                List<Change> before = List.copyOf(single);
                for (String way : o.choice().ways().keySet()) {
                    if (!way.equals(taken)) {
                        Command pick =
                                new ReducingCommand.PickWay(o.key(), o.choice().label(), way);
                        Change one = new Change(
                                k, o.key() + "=" + way, o.choice().label() + ": " + way, "", List.of(), List.of(pick));
                        single.add(one);
                        for (Change other : before) {
                            out.add(new Change(
                                    k,
                                    other.id() + "," + one.id(),
                                    other.label() + "; " + one.label(),
                                    "",
                                    List.of(),
                                    List.of(other.acts().get(0), pick)));
                        }
                    }
                }
            }
            out.addAll(0, single);
            return List.copyOf(out);
        });
    }

    List<Change> of(Change.Kind kind) {
        return kind == Change.Kind.WAY ? ways() : changes.computeIfAbsent(kind, this::find);
    }

    private List<Change> find(Change.Kind kind) {
        return switch (kind) {
            case MISTAKE ->
                sheet.reckoningMistakes().stream().map(Change::mistake).toList();
            case PAIR -> Change.pairs(sheet.reckoningMistakes());
            case SLIP -> List.copyOf(Slips.of(sheet, this::reading, this::unitOf));
            case ROW ->
                right.runs().stream()
                        .filter(Run::takesPart)
                        .map(r -> new Change(
                                kind,
                                "row-" + r.id(),
                                "Without run " + r.id(),
                                "A row is missing from the reckoning.",
                                List.of(),
                                List.<Command>of(new RunCommand.DiscardRun(r.id(), "what if"))))
                        .toList();
            default -> List.of();
        };
    }

    private String reading(String input) {
        Sheet.Input in = Objects.requireNonNull(sheet.inputs().get(input));
        return session.measured().getOrDefault(input, session.planned().getOrDefault(input, in.value()));
    }

    private Optional<LabUnit> unitOf(String formula) {
        try {
            return Optional.of(right.evaluate(formula, "marking", "marking").unit());
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }

    /** What a change makes of a result, in the unit of the right one; empty where it makes none. */
    OptionalDouble value(Change change, String quantity) {
        Double v = reckoned.computeIfAbsent(change.kind() + change.id(), k -> reckon(change))
                .get(quantity);
        return v == null ? OptionalDouble.empty() : OptionalDouble.of(v);
    }

    /** Every result with a change made; only the numbers are kept, since a whole reduction is large. */
    private Map<String, Double> reckon(Change change) {
        Map<String, Double> out = new HashMap<>();
        try {
            Session with = session;
            for (Command act : change.acts()) {
                with = act.apply(with);
            }
            Reduction r =
                    change.formulas().isEmpty() ? reducer.whatIf(with) : reducer.mistaken(with, change.together());
            for (String name : sheet.results().keySet()) {
                r.quantity(name).ifPresent(q -> number(q, name).ifPresent(v -> out.put(name, v)));
            }
        } catch (IllegalArgumentException cannotBe) {
            // A window beyond the run, a formula that gives nothing: no other way of reckoning.
        }
        return out;
    }

    /** A value as the number that is written before the right unit; in its own unit where the mistake changed that. */
    private OptionalDouble number(Quantity q, String quantity) {
        Optional<Quantity> is = expected(quantity);
        if (is.isEmpty()) {
            return OptionalDouble.empty();
        }
        double v = q.unit().fits(is.get().unit()) ? q.in(is.get().unit()) : q.value();
        return Double.isFinite(v) ? OptionalDouble.of(v) : OptionalDouble.empty();
    }

    /** A result with others put in place of what the data give, in their right units. */
    OptionalDouble following(Map<String, Double> others, String quantity) {
        Map<String, String> change = new LinkedHashMap<>();
        others.forEach((n, v) -> {
            Quantity is = expected(n).orElseThrow();
            change.put(
                    n,
                    "(" + new java.math.BigDecimal(v).toPlainString() + " "
                            + is.unit().symbol() + ")");
        });
        String id = "following " + change;
        Sheet.Mistake put = new Sheet.Mistake(id, id, change, "");
        return value(new Change(Change.Kind.MISTAKE, id, id, "", List.of(put), List.of()), quantity);
    }

    /** Whether a number is near enough that windows could have made it; to find out takes long. */
    boolean mayBeOfWindows(String quantity, double value) {
        Quantity is = expected(quantity).orElseThrow();
        double off = Math.abs(value - is.value());
        return off <= Math.max(REACH * Math.abs(is.value()), REACH_U * is.u());
    }

    /**
     * What a result may be with every window set a little otherwise, as another person would: those of all runs in one
     * direction, and those of each run in its own.
     */
    Span windows(String quantity) {
        return spans.computeIfAbsent(quantity, q -> {
            double is = expected(q).orElseThrow().value();
            double[] alone = deviations(aloneMoved(), q, is);
            double[] together = deviations(togetherMoved(), q, is);
            double scale = Math.sqrt(Math.max(1, (double) windowsOfRuns().size() / MOST_MOVED));
            return new Span(is - Math.max(scale * alone[0], together[0]), is + Math.max(scale * alone[1], together[1]));
        });
    }

    /** How far below and above a result is with each of several changes, added as squares. */
    private double[] deviations(List<Change> of, String quantity, double is) {
        double below = 0;
        double above = 0;
        for (Change c : of) {
            OptionalDouble v = value(c, quantity);
            if (v.isPresent()) {
                double d = v.getAsDouble() - is;
                below += d < 0 ? d * d : 0;
                above += d > 0 ? d * d : 0;
            }
        }
        return new double[] {Math.sqrt(below), Math.sqrt(above)};
    }

    private record Placed(Run run, String window, Window chosen) {
        Command grown(double share) {
            Window other = chosen.grown(share);
            return new ReducingCommand.SetWindow(
                    run.id(), window, new Window(Math.max(0, other.from()), other.to(), "what if"));
        }
    }

    private List<Placed> windowsOfRuns() {
        if (placed == null) {
            List<Placed> out = new ArrayList<>();
            for (Run run : right.runs()) {
                Capture capture = sheet.captures().get(run.capture());
                if (run.takesPart() && capture != null) {
                    capture.windows()
                            .keySet()
                            .forEach(w -> right.window(run, w).ifPresent(c -> out.add(new Placed(run, w, c))));
                }
            }
            placed = List.copyOf(out);
        }
        return placed;
    }

    private List<Change> aloneMoved() {
        List<Change> out = new ArrayList<>();
        List<Placed> all = windowsOfRuns();
        double stride = Math.max(1, (double) all.size() / MOST_MOVED);
        for (double at = 0; at < all.size(); at += stride) {
            Placed p = all.get((int) at);
            double share = GROWN[out.size() % GROWN.length];
            out.add(moved(p.run().id() + " " + p.window() + " " + share, List.of(p.grown(share))));
        }
        return out;
    }

    private List<Change> togetherMoved() {
        List<Change> out = new ArrayList<>();
        List<String> names =
                windowsOfRuns().stream().map(Placed::window).distinct().toList();
        for (String name : names) {
            for (double share : GROWN) {
                out.add(moved(
                        "all " + name + " " + share,
                        windowsOfRuns().stream()
                                .filter(p -> p.window().equals(name))
                                .map(p -> p.grown(share))
                                .toList()));
            }
        }
        return out;
    }

    private static Change moved(String id, List<Command> acts) {
        return new Change(Change.Kind.WAY, "window " + id, "windows set otherwise", "", List.of(), acts);
    }

    /** The right reckoning. */
    public Reduction right() {
        return right;
    }

    /** Whether a result exists in the sheet under a name. */
    boolean has(String quantity) {
        return sheet.results().containsKey(quantity);
    }
}
