package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Window;
import eagerneedle.picture.ValueRows;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * The headline of a run under windows a little different from the one chosen, and with the moments on which windows
 * rest a little earlier or later. What was worked out is kept while nothing has changed.
 */
final class WindowsOtherwise {
    private static final Map<String, Double> EDGES = new LinkedHashMap<>();
    /** By how many standard uncertainties a moment is moved, or by a sample where that is more. */
    private static final double MOVED = 2;

    static {
        EDGES.put("both edges in 10 %", -0.10);
        EDGES.put("both edges in 5 %", -0.05);
        EDGES.put("both edges out 5 %", 0.05);
    }

    /** What was found: how far it spreads, in words, and each. */
    record Otherwise(String foot, List<ValueRows.Row> rows) {}

    private final Desk desk;
    private List<String> workedOutFor = List.of();
    private List<ValueRows.Row> workedOut = List.of();

    WindowsOtherwise(Desk desk) {
        this.desk = desk;
    }

    private Reduction reduction() {
        return desk.bench().reduction();
    }

    /** Of a run with its window; empty without a headline or where the window was not found. */
    Optional<Otherwise> of(Run run, String window) {
        Optional<Ledger.Entry> entry =
                reduction().headline(run).filter(e -> e.quantity().isPresent());
        Optional<Window> chosen = reduction().window(run, window);
        if (entry.isEmpty() || chosen.isEmpty()) {
            return Optional.empty();
        }
        Quantity now = entry.get().quantity().get();
        List<String> key = List.of(entry.get().key().toString(), chosen.get().toString(), now.toString());
        if (!key.equals(workedOutFor) && !desk.bench().isPreviewing()) {
            workedOut = rows(run, window, chosen.get(), now, entry.get().key());
            workedOutFor = key;
        }
        double most =
                workedOut.stream().mapToDouble(x -> x.value().value()).max().orElse(0);
        double least =
                workedOut.stream().mapToDouble(x -> x.value().value()).min().orElse(0);
        return Optional.of(new Otherwise(
                "spread " + Notation.figures(most - least, 2) + " " + now.unit().pretty() + " against u "
                        + Notation.figures(now.u(), 2) + ": " + entry.get().label(),
                workedOut));
    }

    private List<ValueRows.Row> rows(Run run, String window, Window chosen, Quantity now, Key key) {
        List<ValueRows.Row> rows = new ArrayList<>(List.of(new ValueRows.Row("as chosen", now)));
        EDGES.forEach((label, share) -> {
            Window other = chosen.grown(share);
            add(
                    rows,
                    label,
                    new ReducingCommand.SetWindow(
                            run.id(), window, new Window(Math.max(0, other.from()), other.to(), "what if")),
                    key);
        });
        Capture capture = Objects.requireNonNull(desk.bench().sheet().captures().get(run.capture()));
        String on = Objects.requireNonNull(
                Objects.requireNonNull(capture.windows().get(window)).on());
        for (String moment : capture.moments(on)) {
            reduction().ofRun(run, moment).quantity().ifPresent(q -> moved(rows, run, capture, moment, q, key));
        }
        return rows;
    }

    private void moved(List<ValueRows.Row> rows, Run run, Capture capture, String moment, Quantity q, Key key) {
        double sample = 1
                / capture.channels().stream()
                        .mapToDouble(c -> Objects.requireNonNull(
                                        desk.bench().sheet().channels().get(c))
                                .rate())
                        .max()
                        .orElse(1);
        double at = q.in(LabUnit.SECOND);
        double by = Math.max(sample, MOVED * q.u() * q.unit().scaleTo(LabUnit.SECOND));
        String label = Optional.ofNullable(
                        Objects.requireNonNull(capture.quantities().get(moment)).label())
                .orElse(moment);
        for (int way : new int[] {-1, 1}) {
            double there = at + way * by;
            add(
                    rows,
                    label + (way < 0 ? " −" : " +") + length(by),
                    new ReducingCommand.SetMoment(
                            run.id(), moment, label, new Window(there - sample / 2, there + sample / 2, "what if")),
                    key);
        }
    }

    private static String length(double seconds) {
        return seconds < 1 ? Notation.figures(1000 * seconds, 2) + " ms" : Notation.figures(seconds, 2) + " s";
    }

    private void add(List<ValueRows.Row> rows, String label, Command what, Key key) {
        try {
            desk.bench().whatIf(what).quantity(key).ifPresent(q -> rows.add(new ValueRows.Row(label, q)));
        } catch (IllegalArgumentException cannotBe) {
            // A window beyond the run, or a moment before its start, is no other way of looking at it.
        }
    }
}
