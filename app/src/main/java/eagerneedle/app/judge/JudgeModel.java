package eagerneedle.app.judge;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.Lacking;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.judge.Target;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.Stated;
import eagerneedle.core.session.Blind;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.PlainWords;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.ValueRows;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What Judge shows of the session, and what may be done there. */
final class JudgeModel {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm 'on' d MMM uuuu")
            .withLocale(Locale.UK)
            .withZone(ZoneId.systemDefault());

    /** Words with whether all is well with them. */
    record Remark(String words, boolean good) {}

    /** One of several comparisons. */
    record Other(Comparison of, School speaks, boolean chosen) {}

    /** A comparison that cannot be made yet, and what it still lacks. */
    record Awaited(String id, String label, String lacks) {}

    /** Something the data say in words; {@code values} stand beside each other in a picture. */
    record Said(int number, String label, String words, List<ValueRows.Row> values, String bound) {}

    /** A result while the references are hidden. */
    record BlindResult(String comparison, String label, String value) {}

    /**
     * Where the uncertainty of a result comes from.
     *
     * @param largest what the largest contributor is and what halving it would do; empty without any
     * @param rest what the lines that are not drawn come to; empty when all are drawn
     */
    record Shares(Quantity result, Budget budget, String largest, List<String> doubts, String rest) {}

    /** What stands at Judge: nothing yet, a result whose references are hidden, or a comparison. */
    sealed interface Shown {
        /** Nothing can be judged yet; {@code awaited} are the comparisons of the sheet. */
        record Nothing(List<Awaited> awaited) implements Shown {}

        /** The references are hidden until the result is locked. */
        record Hidden(String since, List<BlindResult> results, boolean lockable, Optional<Shares> shares)
                implements Shown {}

        /**
         * A result against its reference.
         *
         * @param locked what was locked in blind work; empty when nothing was
         * @param chance how often such a difference would be expected; empty under the other schools
         * @param remedy what to look at when they do not agree; may be empty
         * @param remarks what stands below the budget
         */
        record Judged(
                Comparison comparison,
                School speaks,
                Optional<Remark> locked,
                String verdict,
                String chance,
                String remedy,
                Shares shares,
                List<String> remarks,
                List<UnderSchool> schools,
                List<Other> others,
                boolean mayHide)
                implements Shown {}
    }

    private final Desk desk;
    private final int mostLines;
    private @Nullable String chosen;
    private String wanted = "";

    /** @param mostLines how many lines of a budget are drawn */
    JudgeModel(Desk desk, int mostLines) {
        this.desk = desk;
        this.mostLines = mostLines;
    }

    private Reduction reduction() {
        return desk.bench().reduction();
    }

    Shown shown() {
        Reduction r = reduction();
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        if (r.session().hidesReferences()) {
            return new Shown.Hidden(
                    CLOCK.format(Objects.requireNonNull(r.session().blind()).since()),
                    r.sheet().comparisons().stream()
                            .map(c -> new BlindResult(
                                    c.id(),
                                    r.sheet().called(c.result()),
                                    r.quantity(c.result()).map(Object::toString).orElse("—")))
                            .toList(),
                    !r.results().isEmpty(),
                    main == null ? Optional.empty() : r.quantity(main.result()).map(this::shares));
        }
        if (r.comparisons().isEmpty()) {
            return new Shown.Nothing(awaited());
        }
        return judged(r, comparison(r));
    }

    /** The comparisons that cannot be made yet, in the order of the sheet. */
    List<Awaited> awaited() {
        List<String> made =
                reduction().comparisons().stream().map(Comparison::id).toList();
        return desk.bench().sheet().comparisons().stream()
                .filter(c -> !made.contains(c.id()))
                .map(c -> new Awaited(c.id(), c.label(), lacks(c)))
                .toList();
    }

    private String lacks(Sheet.Comparison c) {
        String result = Lacking.of(desk.bench(), c.result());
        return result.isEmpty() ? Lacking.of(desk.bench(), c.reference()) : result;
    }

    /** The comparison in hand: the one chosen, the main one until then. */
    private Comparison comparison(Reduction r) {
        String id = chosen == null
                ? Objects.requireNonNull(desk.bench().sheet().mainComparison()).id()
                : chosen;
        return r.comparisons().stream()
                .filter(x -> x.id().equals(id))
                .findFirst()
                .orElse(r.comparisons().get(0));
    }

    private Shown judged(Reduction r, Comparison c) {
        School speaks = r.speaks(c.id());
        List<String> remarks = new ArrayList<>();
        r.circularity(c).ifPresent(remarks::add);
        if (c.drawn() != null) {
            remarks.add(c.drawn().remark());
        }
        List<UnderSchool> schools = new ArrayList<>();
        for (School s : School.values()) {
            schools.add(UnderSchool.of(c, s, s == speaks));
        }
        List<Other> others = r.comparisons().size() < 2
                ? List.of()
                : r.comparisons().stream()
                        .map(x -> new Other(x, r.speaks(x.id()), x == c))
                        .toList();
        return new Shown.Judged(
                c,
                speaks,
                locked(r, c),
                c.verdict(speaks),
                speaks == School.STANDARD ? chance(c) : "",
                c.isAmiss(speaks) ? r.remedy(c.id()) : "",
                shares(c.result()),
                remarks,
                schools,
                others,
                r.session().blind() == null);
    }

    private static Optional<Remark> locked(Reduction r, Comparison c) {
        Blind b = r.session().blind();
        if (b == null || !b.locked().containsKey(c.id())) {
            return Optional.empty();
        }
        String then = b.locked().get(c.id());
        boolean same = then.equals(c.result().toString());
        return Optional.of(new Remark(
                "Locked at " + CLOCK.format(b.lockedAt()) + " as " + then + ", before the reference was seen."
                        + (same ? "" : " It has been changed since, to " + c.result() + "."),
                same));
    }

    private static String chance(Comparison c) {
        double of100 = 100 * c.chance();
        return "A difference this large or larger would be expected in "
                + (of100 < 1 ? "fewer than 1" : Long.toString(Math.round(of100))) + " of 100 repeats.";
    }

    private Shares shares(Quantity result) {
        Budget b = Budget.of(result).said(PlainWords.of(reduction().sheet())::say);
        String largest = "";
        List<String> doubts = List.of();
        if (!b.lines().isEmpty()) {
            Budget.Line first = b.lines().get(0);
            largest = "Largest: " + first.label() + ". Halve it and u falls from " + Notation.figures(result.u(), 2)
                    + " to " + Notation.figures(first.combinedIfHalved(result.u()), 2)
                    + result.unit().afterNumber() + ".";
            doubts = reduction().doubts(result, desk.bench().clock().instant());
        }
        double rest = b.lines().stream()
                .skip(mostLines)
                .mapToDouble(Budget.Line::share)
                .sum();
        return new Shares(
                result,
                b,
                largest,
                doubts,
                b.lines().size() > mostLines
                        ? "and " + (b.lines().size() - mostLines) + " more, together " + Notation.plain(100 * rest, 2)
                                + " %"
                        : "");
    }

    /** What the data say in words: routes, candidates, models. */
    List<Said> said() {
        List<Said> out = new ArrayList<>();
        PlainWords words = PlainWords.of(reduction().sheet());
        for (Stated s : reduction().statements()) {
            out.add(new Said(
                    out.size(),
                    s.statement().label(),
                    words.say(s.sentence().orElse(s.problem() == null ? "Nothing yet." : s.problem())),
                    s.quantities().stream()
                            .map(q -> new ValueRows.Row(words.say(q.label()), q.quantity()))
                            .toList(),
                    words.say(s.bound())));
        }
        return out;
    }

    /** The sheet's checks: met, not met with what to do, or not yet to be judged. */
    List<Remark> checks() {
        return reduction().checks().stream()
                .map(k -> new Remark(
                        (k.met().isEmpty() ? "○ " : k.met().get() ? "✓ " : "▲ ")
                                + k.check().label()
                                + (k.met().isEmpty()
                                        ? " (not yet to be judged)"
                                        : k.met().get() ? "" : ". " + k.check().remedy()),
                        k.met().orElse(true)))
                .toList();
    }

    /** What was last written as the standard uncertainty wanted; empty for half of what it is. */
    String wanted() {
        return wanted;
    }

    /**
     * The cheapest way to a standard uncertainty.
     *
     * @param target a share, or a value with its unit; half of what it is when blank
     */
    String cheapest(Quantity result, String target) {
        try {
            String says = Target.of(result, target.isBlank() ? result.u() / 2 : Improvements.target(target, result))
                    .sentence();
            wanted = target;
            return says;
        } catch (IllegalArgumentException e) {
            return Typing.as("Write it as a share, 0.2 %, or as a value with a unit that fits ")
                    + result.unit().named() + ".";
        }
    }

    /** Takes another comparison in hand. */
    void choose(String comparison) {
        chosen = comparison;
    }

    void letSpeak(School school) {
        desk.bench().apply(new JudgeCommand.ChooseSchool(school));
    }

    /** The coverage of stated intervals and of verdicts. */
    double coverage() {
        return desk.bench().session().coverage().probability();
    }

    void cover(double probability) {
        if (probability != coverage()) {
            desk.bench().apply(new JudgeCommand.ChooseCoverage(probability));
        }
    }

    void hideReferences() {
        desk.bench().apply(new JudgeCommand.HideReferences(desk.bench().clock().instant()));
    }

    void lock() {
        desk.bench()
                .apply(new JudgeCommand.LockResults(
                        desk.bench().clock().instant(), reduction().results()));
    }

    /** What may be held against a reference: results, and quantities of the runs, of which the mean is taken. */
    List<String> comparable() {
        Sheet sheet = desk.bench().sheet();
        List<String> out = new ArrayList<>(sheet.results().entrySet().stream()
                .filter(e -> e.getValue().label() != null)
                .map(Map.Entry::getKey)
                .toList());
        sheet.captures()
                .forEach((c, capture) -> capture.quantities().forEach((n, d) -> {
                    if (d.label() != null) {
                        out.add(c + "." + n);
                    }
                }));
        return out;
    }

    /** What a result may be held against: inputs and other results. */
    List<String> references() {
        List<String> out = new ArrayList<>(desk.bench().sheet().inputs().keySet());
        out.addAll(desk.bench().sheet().results().keySet());
        return out;
    }

    /**
     * Holds a result against a reference from now on.
     *
     * @throws IllegalArgumentException with one sentence where that makes no sense
     */
    void compare(String result, String reference, String label) {
        if (result.isBlank() || reference.isBlank()) {
            throw new IllegalArgumentException(
                    "Say which result is compared, and with what: a value with its uncertainty and unit, or an input.");
        }
        if (!comparable().contains(result)) {
            throw new IllegalArgumentException(
                    "There is no result '" + result + "'; there are: " + String.join(", ", comparable()) + ".");
        }
        Additions.Added a = Additions.comparison(desk.bench().session().sheetText(), result, label, reference);
        desk.bench().apply(new SheetCommand.Write(a.text(), "Compared " + a.name() + " with " + reference + "."));
    }
}
