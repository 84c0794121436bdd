package eagerneedle.app.window;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Lineage;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.PlainWords;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The quantities of a session as the ledger lists them, and what is said of the one that is looked at. */
final class LedgerModel {

    private static final String PINNED = "Pinned";

    /** How a quantity stands to the one that is looked at. */
    enum Role {
        NONE,
        SELECTED,
        COMES_FROM,
        FEEDS
    }

    /** A line of the ledger. */
    sealed interface Line {
        /**
         * Quantities of a group follow, unless it is folded.
         *
         * @param count how many it has
         * @param fresh how many of them have changed and were not looked at since
         */
        record Group(String label, int count, int fresh, boolean folded) implements Line {}

        /**
         * One quantity.
         *
         * @param large it is what the session is about
         * @param fresh it has changed and was not looked at since
         * @param planned it is only planned, not measured yet
         * @param figures what stands in its place
         * @param was what it was before choices were tried; empty where it is the same
         * @param verdict what it is compared with, where it is large and can be compared
         */
        record Item(
                Key key,
                String id,
                String name,
                boolean large,
                boolean fresh,
                boolean planned,
                boolean pinned,
                InkedNumber figures,
                String said,
                String hint,
                Role role,
                String was,
                Optional<Verdict> verdict)
                implements Line {
            /** The number as it is read, its point under the others. */
            String value() {
                return figures.number() + figures.uncertainty() + figures.times();
            }
        }
    }

    /** A comparison under the school that speaks. */
    record Verdict(Comparison comparison, School school) {}

    /** What is said of the quantity looked at: words, and the style they are said in. */
    record Remark(String words, String style) {}

    @SuppressWarnings("NullAway.Init") // shown before anything is asked
    private Workbench bench;

    private @Nullable Run run;
    private boolean planned;
    private @Nullable Key selected;
    private @Nullable Quantity was;

    @SuppressWarnings("NullAway.Init") // with the workbench
    private PlainWords words;

    private String filter = "";
    private final Set<String> opened = new HashSet<>();
    private final Map<String, Set<String>> pinned = new HashMap<>();

    /** A session, from the beginning. */
    void open(Workbench newBench) {
        bench = newBench;
        words = PlainWords.of(newBench.sheet());
        selected = null;
    }

    boolean isOpen() {
        return bench != null;
    }

    /** Also lists the quantities of this run. */
    void focusRun(@Nullable Run newRun) {
        run = newRun;
    }

    /** Lists what is predicted. True when it did not before, or the other way round. */
    boolean planned(boolean show) {
        boolean other = planned != show;
        planned = show;
        return other;
    }

    /** Looks at a quantity; the same again looks away. */
    void select(Key key) {
        selected = key.equals(selected) ? null : key;
        was = bench.before(key).orElse(null);
        bench.lookedAt(key);
    }

    /** Looks at a quantity, whichever was looked at. */
    void reveal(Key key) {
        selected = null;
        select(key);
    }

    /** The quantity looked at. */
    Optional<Key> selected() {
        return Optional.ofNullable(selected);
    }

    private Reduction reduction() {
        return planned ? bench.plan() : bench.reduction();
    }

    /** Shows only what has these letters in its name, label or symbol; all again with none. */
    void filter(String letters) {
        filter = letters.strip().toLowerCase(Locale.ROOT);
    }

    /** Folds a group, or opens it. */
    void fold(String group) {
        if (!opened.remove(group)) {
            opened.add(group);
        }
    }

    /** Keeps a quantity at the top, or no longer. */
    void pin(Key key) {
        if (!pins().remove(key.toString())) {
            pins().add(key.toString());
        }
    }

    boolean isPinned(Key key) {
        return pins().contains(key.toString());
    }

    private Set<String> pins() {
        return pinned.computeIfAbsent(bench.sheet().id(), id -> new LinkedHashSet<>());
    }

    /** What is pinned, by method and the names of the ledger. */
    Map<String, List<String>> pinned() {
        Map<String, List<String>> out = new LinkedHashMap<>();
        pinned.forEach((id, names) -> {
            if (!names.isEmpty()) {
                out.put(id, List.copyOf(names));
            }
        });
        return out;
    }

    /** Pins these from now on, by method and the names of the ledger. */
    void pinned(Map<String, List<String>> names) {
        pinned.clear();
        names.forEach((id, all) -> pinned.put(id, new LinkedHashSet<>(all)));
    }

    /** What the session is about, then what is pinned, then the rest by group. */
    List<Line> lines() {
        Reduction r = reduction();
        List<Ledger.Entry> entries = entries(r).stream().filter(this::passes).toList();
        Optional<Lineage> lit = Optional.ofNullable(selected).map(r::lineage);
        Set<String> about = about();
        List<Line> out = new ArrayList<>();
        for (String name : about) {
            entries.stream().filter(e -> e.name().equals(name)).forEach(e -> out.add(item(r, e, 0, lit, true)));
        }
        List<Ledger.Entry> rest =
                entries.stream().filter(e -> !about.contains(e.name())).toList();
        int left = rest.stream()
                .flatMap(e -> e.quantity().stream())
                .mapToInt(q -> Printed.of(q).beforePoint())
                .max()
                .orElse(1);
        Map<String, List<Line.Item>> groups = new LinkedHashMap<>();
        for (Ledger.Entry e : rest) {
            boolean predicted = planned && e.source().equals("derived");
            String group = isPinned(e.key())
                    ? PINNED
                    : predicted ? "Predicted " + e.group().toLowerCase(Locale.ROOT) : e.group();
            groups.computeIfAbsent(group, g -> new ArrayList<>()).add(item(r, e, left, lit, false));
        }
        List<Line.Item> first = groups.remove(PINNED);
        if (first != null) {
            out.add(new Line.Group(PINNED, first.size(), 0, false));
            out.addAll(first);
        }
        groups.forEach((group, items) -> {
            boolean folded = isFolded(group, items);
            out.add(new Line.Group(
                    group,
                    items.size(),
                    (int) items.stream().filter(Line.Item::fresh).count(),
                    folded));
            if (!folded) {
                out.addAll(items);
            }
        });
        return out;
    }

    /**
     * What is looked at, where it comes from, what was looked for and what a choice that is tried would move is never
     * folded away; nor is the run in hand.
     */
    private boolean isFolded(String group, List<Line.Item> items) {
        boolean shown = opened.contains(group)
                || !filter.isEmpty()
                || items.stream()
                        .anyMatch(i -> i.role() != Role.NONE
                                || i.key().isOfRun()
                                || !i.was().isEmpty());
        return !shown;
    }

    private boolean passes(Ledger.Entry e) {
        return filter.isEmpty()
                || (e.label() + " " + e.name() + " " + (e.symbol() == null ? "" : e.symbol()))
                        .toLowerCase(Locale.ROOT)
                        .contains(filter);
    }

    /** Names of the quantities that are judged, the main one first; what the sheet derives last where nothing is. */
    private Set<String> about() {
        Set<String> out = new LinkedHashSet<>();
        Optional.ofNullable(bench.sheet().mainComparison()).ifPresent(c -> out.add(c.result()));
        bench.sheet().comparisons().forEach(c -> out.add(c.result()));
        if (out.isEmpty()) {
            bench.sheet().results().forEach((name, d) -> {
                if (d.shown()) {
                    out.clear();
                    out.add(name);
                }
            });
        }
        return out;
    }

    /** Results, then the run in hand, then inputs. */
    private List<Ledger.Entry> entries(Reduction r) {
        List<Ledger.Entry> all = r.ledger().entries();
        List<Ledger.Entry> out = new ArrayList<>();
        all.stream()
                .filter(e -> !e.key().isOfRun() && e.source().equals("derived"))
                .forEach(out::add);
        if (run != null && !planned) {
            bench.session()
                    .run(run.id())
                    .filter(x -> x.discard() == null)
                    .map(r::ofRun)
                    .ifPresent(out::addAll);
        }
        all.stream()
                .filter(e -> !e.key().isOfRun() && !e.source().equals("derived"))
                .forEach(out::add);
        return out;
    }

    private Line.Item item(Reduction r, Ledger.Entry e, int left, Optional<Lineage> lit, boolean large) {
        boolean fresh = !planned && isFresh(e);
        boolean doubtful = e.quantity()
                .filter(q -> !r.doubts(q, bench.clock().instant()).isEmpty())
                .isPresent();
        Role role = e.key().equals(selected)
                ? Role.SELECTED
                : lit.filter(l -> l.from().contains(e.key())).isPresent()
                        ? Role.COMES_FROM
                        : lit.filter(l -> l.feeds().contains(e.key())).isPresent() ? Role.FEEDS : Role.NONE;
        Optional<Quantity> before = bench.before(e.key());
        return new Line.Item(
                e.key(),
                "ledger-" + e.name().replaceAll("[^A-Za-z0-9_-]", "-"),
                (fresh ? "● " : "") + (doubtful ? "▲ " : "") + e.label(),
                large,
                fresh,
                e.source().equals("as planned") && !planned,
                isPinned(e.key()),
                e.quantity().map(q -> InkedNumber.of(q, left)).orElseGet(() -> InkedNumber.none(left)),
                e.label() + " " + e.quantity().map(Notation::bracket).orElse("has no value: " + words.say(e.instead())),
                hint(e, fresh, before),
                role,
                bench.isTrying() && fresh
                        ? before.map(b -> Printed.of(b).text()).orElse("")
                        : "",
                large && !planned ? verdict(r, e.name()) : Optional.empty());
    }

    private static Optional<Verdict> verdict(Reduction r, String result) {
        return r.sheet().comparisons().stream()
                .filter(c -> c.result().equals(result))
                .flatMap(c -> r.comparisons().stream().filter(x -> x.id().equals(c.id())))
                .findFirst()
                .map(c -> new Verdict(c, r.speaks(c.id())));
    }

    private boolean isFresh(Ledger.Entry e) {
        return bench.isTrying()
                ? bench.before(e.key())
                        .filter(b -> e.quantity().isEmpty()
                                || !b.toString().equals(e.quantity().get().toString()))
                        .isPresent()
                : bench.changed().contains(e.key());
    }

    private String hint(Ledger.Entry e, boolean fresh, Optional<Quantity> before) {
        String problem = e.outcome().problem();
        return e.label()
                + (fresh
                        ? before.flatMap(b -> e.quantity().map(q -> "\n" + LedgerDetail.moved(b, q)))
                                .orElse("")
                        : "")
                + (problem != null ? "\n" + words.say(problem) : e.source().equals("derived") ? "" : "\n" + e.source());
    }

    /** What is said of the quantity looked at; nothing while none is. */
    List<Remark> detail() {
        return selected == null
                ? List.of()
                : new LedgerDetail(
                                reduction(), selected, was, words, bench.clock().instant())
                        .remarks();
    }

    /** Every quantity for a spreadsheet, with tabs between cells. */
    String tabbed() {
        StringBuilder b = new StringBuilder("name\tvalue\tu\tunit\n");
        for (Ledger.Entry e : reduction().ledger().entries()) {
            e.quantity()
                    .ifPresent(q -> b.append(e.name())
                            .append('\t')
                            .append(q.value())
                            .append('\t')
                            .append(q.u())
                            .append('\t')
                            .append(q.unit().symbol())
                            .append('\n'));
        }
        return b.toString();
    }
}
