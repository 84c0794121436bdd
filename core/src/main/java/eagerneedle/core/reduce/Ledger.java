package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The list of every quantity of a session, in the order of the sheet. */
public record Ledger(List<Entry> entries) {
    /**
     * One quantity.
     *
     * @param name its name in the sheet; with its run for what belongs to one, such as {@code slopes[12].a}
     * @param group heading it stands under
     * @param label what a person calls it
     * @param symbol its letter in equations, or null
     * @param key its key in the graph
     * @param outcome the quantity, or why there is none
     * @param source "measured", "as planned", or "derived"
     */
    public record Entry(
            String name,
            String group,
            String label,
            @Nullable String symbol,
            Key key,
            Outcome outcome,
            String source) {
        public Optional<Quantity> quantity() {
            return outcome.quantity();
        }

        /** What stands where there is no quantity: a sentence that the data say, or why there is none; never null. */
        public String instead() {
            return outcome.value() instanceof Value.Words w
                    ? w.text()
                    : outcome.value() instanceof Value.None
                            ? "none"
                            : outcome.problem() == null ? "" : outcome.problem();
        }
    }

    public Ledger {
        entries = List.copyOf(entries);
    }

    public Optional<Entry> named(String name) {
        return entries.stream().filter(e -> e.name().equals(name)).findFirst();
    }

    /** The ledger of a reduction; without its runs when it is of a plan. */
    static Ledger of(Reduction r, boolean planned) {
        List<Entry> out = new ArrayList<>();
        r.sheet()
                .inputs()
                .forEach((name, input) -> out.add(new Entry(
                        name,
                        input.group() == null ? "Set-up" : input.group(),
                        input.label(),
                        input.symbol(),
                        new Key.Global(name),
                        shown(r, name),
                        r.session().measured().containsKey(name) && !planned ? "measured" : "as planned")));
        r.sheet().results().forEach((name, d) -> {
            String label = d.label();
            if (label != null) {
                out.add(new Entry(
                        name,
                        d.group() == null ? "Result" : d.group(),
                        label,
                        d.symbol(),
                        new Key.Global(name),
                        shown(r, name),
                        "derived"));
            }
        });
        if (!planned) {
            r.runs().stream().filter(x -> x.discard() == null).forEach(run -> out.addAll(ofRun(r, run)));
        }
        return new Ledger(out);
    }

    private static Outcome shown(Reduction r, String name) {
        return r.isHidden(name) ? Outcome.problem(Reduction.HIDDEN) : r.outcome(name);
    }

    static List<Entry> ofRun(Reduction r, Run run) {
        List<Entry> out = new ArrayList<>();
        Capture capture = r.sheet().captures().get(run.capture());
        if (capture != null) {
            capture.quantities().forEach((n, d) -> {
                String label = d.label();
                if (label != null) {
                    out.add(new Entry(
                            run.capture() + "[" + run.id() + "]." + n,
                            run.name(),
                            label,
                            d.symbol(),
                            Key.of(run, n),
                            r.ofRun(run, n),
                            "derived"));
                }
            });
        }
        return out;
    }
}
