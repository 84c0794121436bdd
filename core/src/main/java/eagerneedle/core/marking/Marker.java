package eagerneedle.core.marking;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Descent;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Marks what one student handed in.
 *
 * <p>A number is right when it is what the student's own data give, by any way that the sheet offers, rounded as it was
 * written. Otherwise the earlier numbers that were handed in are put in place of what the data give; then every mistake
 * is made on those data, and what reproduces the digits is named as far as coincidence does not, see {@link Chance}. A
 * number that windows set a little otherwise may give is right, whatever else may give it too: the benefit of the doubt
 * is the student's, and the marker is told.
 */
public final class Marker {
    /** A mistake that moves a result by less than so many steps of its last digit cannot be seen. */
    static final double SEEN = 3;

    private static final double HALF = 0.5 * (1 + 1e-9);
    private static final double TOO_FINE = 50;
    private static final double BELIEVED = 3;
    private static final double SAME = 1e-9;
    /** A kelvin value below is a difference, which degrees Celsius tell as well. */
    private static final double ABSOLUTE = 150;
    /** A share of its uncertainty that a number may be off by and still be the same work, done by other hands. */
    private static final double HANDS = 0.5;

    private static final int MOST_POWER = 9;
    private static final int MOST_NAMED = 4;

    private final OwnData data;
    private final Map<String, Double> others;
    private final boolean asksForUnits;
    private final boolean asksForU;
    private final Map<String, Marked> done = new LinkedHashMap<>();

    private Marker(OwnData data, Map<String, Double> others, Asked asked) {
        this.data = data;
        this.others = others;
        asksForUnits = asked.units();
        asksForU = asked.u();
    }

    /**
     * What a class was asked for beside the numbers.
     *
     * @param units whether a missing unit is a fault
     * @param u whether a missing uncertainty is one
     */
    public record Asked(boolean units, boolean u) {
        /** As the hand-ins show: what nobody at all gave was not asked for. */
        public static Asked of(List<HandIn> all) {
            return new Asked(
                    all.stream().anyMatch(h -> !h.unit().isBlank() || h.value().matches(".*\\p{L}{1,}.*")),
                    all.stream().anyMatch(h -> !h.u().isBlank() || h.value().matches(".*(\\d\\(\\d|±|\\+/-).*")));
        }
    }

    /** What another student's data give for a quantity, by what that student is called. */
    public interface Others {
        Map<String, Double> of(String quantity);
    }

    /**
     * Marks all that one student handed in, earlier quantities before those that follow from them.
     *
     * @param wanted the quantities that were asked for: those that are not there are missing
     */
    public static List<Marked> mark(
            OwnData data, List<HandIn> handIns, List<String> wanted, Asked asked, Others others) {
        Map<String, HandIn> by = new LinkedHashMap<>();
        Set<String> twice = new LinkedHashSet<>();
        List<Marked> strangers = new ArrayList<>();
        for (HandIn h : handIns) {
            Optional<String> name = name(data.sheet(), h.quantity());
            if (name.isPresent()) {
                if (by.put(name.get(), h) != null) {
                    twice.add(name.get());
                }
            } else {
                strangers.add(new Marked(
                        h,
                        h.quantity(),
                        h.quantity(),
                        null,
                        null,
                        Verdict.UNEXPLAINED,
                        List.of("The method has no result of that name."),
                        List.of(),
                        List.of()));
            }
        }
        Set<String> all = new LinkedHashSet<>(wanted);
        all.addAll(by.keySet());
        List<String> order = Descent.of(data.sheet()).stream()
                .filter(i -> i.kind() == Descent.Kind.RESULT)
                .map(Descent.Item::name)
                .toList();
        Map<String, Marked> marked = new LinkedHashMap<>();
        order.stream().filter(all::contains).forEach(q -> {
            Marker m = new Marker(data, others.of(q), asked);
            m.done.putAll(marked);
            HandIn h = by.get(q);
            marked.put(
                    q,
                    h == null || h.value().isBlank()
                            ? m.missing(q, h == null ? new HandIn("", q, "", "", "") : h)
                            : m.item(q, h));
        });
        List<Marked> out = new ArrayList<>();
        all.forEach(q -> Optional.ofNullable(marked.get(q))
                .ifPresent(m -> out.add(
                        twice.contains(q) ? m.noting("It was handed in more than once; the last one counts.") : m)));
        out.addAll(strangers);
        return out;
    }

    /** The result of a sheet that is called so, by its name or its label. */
    static Optional<String> name(Sheet sheet, String said) {
        if (sheet.results().containsKey(said)) {
            return Optional.of(said);
        }
        String low = said.strip().toLowerCase(java.util.Locale.ROOT);
        return sheet.results().entrySet().stream()
                .filter(e -> low.equals(e.getKey().toLowerCase(java.util.Locale.ROOT))
                        || e.getValue().label() != null
                                && low.equals(e.getValue().label().toLowerCase(java.util.Locale.ROOT)))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    private String label(String quantity) {
        Sheet.Derived d = data.sheet().results().get(quantity);
        return d == null || d.label() == null ? quantity : d.label();
    }

    private Marked missing(String quantity, HandIn h) {
        return new Marked(
                h,
                quantity,
                label(quantity),
                null,
                data.expected(quantity).orElse(null),
                Verdict.MISSING,
                List.of(),
                List.of(),
                List.of());
    }

    private Marked item(String quantity, HandIn h) {
        GivenNumber g;
        try {
            g = GivenNumber.of(h);
        } catch (IllegalArgumentException e) {
            return new Marked(
                    h,
                    quantity,
                    label(quantity),
                    null,
                    data.expected(quantity).orElse(null),
                    Verdict.UNEXPLAINED,
                    List.of("It cannot be read as a number: " + e.getMessage()),
                    List.of(),
                    List.of());
        }
        Optional<Quantity> expected = data.expected(quantity);
        if (expected.isEmpty()) {
            return new Marked(
                    h,
                    quantity,
                    label(quantity),
                    g,
                    null,
                    Verdict.UNEXPLAINED,
                    List.of("The student's own data give nothing for it: "
                            + data.right().outcome(quantity).problem()),
                    List.of(),
                    List.of());
        }
        return new Item(quantity, h, g, expected.get()).marked();
    }

    /** One number, in the unit in which it is to be read. */
    private final class Item {
        private final String quantity;
        private final HandIn h;
        private final GivenNumber g;
        private final Quantity is;
        private final double right;
        private final List<String> notes = new ArrayList<>();
        private double value;
        private double step;
        private double scale = 1;
        private boolean converted;
        private boolean unitFits;

        Item(String quantity, HandIn h, GivenNumber g, Quantity is) {
            this.quantity = quantity;
            this.h = h;
            this.g = g;
            this.is = is;
            right = is.value();
            value = g.value();
            step = g.step();
            unitFits = read();
        }

        /** Brings the number into the unit of the right result; false where its own does not fit, or it has none. */
        private boolean read() {
            boolean number = is.unit().fits(LabUnit.ONE);
            if (g.unit().isEmpty()) {
                // 0.05 for 5 % is a number as good as any.
                if (number
                        && Math.abs(LabUnit.ONE.convert(g.value(), is.unit()) - right) < Math.abs(g.value() - right)) {
                    convert(LabUnit.ONE);
                    return true;
                }
                return is.unit().symbol().isEmpty() || !asksForUnits;
            }
            try {
                LabUnit own = LabUnit.parse(g.unit());
                if (!own.fits(is.unit())) {
                    notes.add("Its unit, " + g.unit() + ", is not one of this quantity.");
                    return false;
                }
                boolean difference = own.isAffine() && !is.unit().isAffine() && Math.abs(right) < ABSOLUTE;
                if (!own.equals(is.unit()) && !difference) {
                    convert(own);
                }
                return true;
            } catch (IllegalArgumentException e) {
                notes.add("Its unit, '" + g.unit() + "', is not known.");
                return false;
            }
        }

        private void convert(LabUnit own) {
            value = own.convert(g.value(), is.unit());
            scale = own.scaleTo(is.unit());
            step = Math.abs(g.step() * scale);
            converted = true;
        }

        private boolean is(double v) {
            return Math.abs(value - v) <= HALF * step + 1e-12 * Math.abs(v);
        }

        private Marked marked() {
            if (is(right)) {
                return unitFits ? ifRight(Verdict.RIGHT) : result(unitVerdict(), List.of(), List.of());
            }
            if (Math.abs(g.value() - right) <= HALF * g.step() && converted) {
                notes.add("The number stands in " + is.unit().named() + ", its unit says " + g.unit() + ".");
                return result(Verdict.UNIT, List.of(), List.of());
            }
            // What follows from an earlier number may happen to be a power of ten off.
            List<String> from = follows();
            if (!from.isEmpty()) {
                return result(Verdict.FOLLOWED, List.of(), from);
            }
            List<Explanation> named = explanations();
            for (int k = -MOST_POWER; k <= MOST_POWER; k++) {
                if (k != 0 && right != 0 && is(right * Math.pow(10, k))) {
                    notes.add("It is 10^" + k + " times what the data give.");
                    return result(Verdict.POWER, named, List.of());
                }
            }
            for (Change way : data.ways()) {
                OptionalDouble v = data.value(way, quantity);
                if (v.isPresent() && is(v.getAsDouble())) {
                    notes.add("Right by another way: " + way.label() + ".");
                    return unitFits ? ifRight(Verdict.ANOTHER_WAY) : result(unitVerdict(), List.of(), List.of());
                }
            }
            if (data.mayBeOfWindows(quantity, value) && data.windows(quantity).holds(value, step / 2)) {
                OwnData.Span windows = data.windows(quantity);
                notes.add("Right with windows set a little otherwise: they give "
                        + Notation.plain(windows.least(), 4) + " to " + Notation.plain(windows.greatest(), 4) + " "
                        + is.unit().symbol() + ".");
                return result(unitFits ? Verdict.ANOTHER_WAY : unitVerdict(), named, List.of());
            }
            if (named.isEmpty() && isNear()) {
                return unitFits ? ifRight(Verdict.RIGHT) : result(unitVerdict(), List.of(), List.of());
            }
            return result(named.isEmpty() ? Verdict.UNEXPLAINED : Verdict.EXPLAINED, named, List.of());
        }

        private Verdict unitVerdict() {
            if (g.unit().isEmpty()) {
                notes.add("Its unit is missing: " + is.unit().named() + ".");
            }
            return Verdict.UNIT;
        }

        /** Within what rounding on the way does, or what it says of itself, where that can be believed. */
        private boolean isNear() {
            double off = Math.abs(value - right);
            if (off <= 1.5 * step && step <= 0.02 * Math.abs(right)) {
                notes.add("It differs in the last digit, as rounding on the way does.");
                return true;
            }
            if (g.hasU() && off <= g.u() * Math.abs(scale) && g.u() * Math.abs(scale) <= BELIEVED * is.u()) {
                notes.add("It differs from what the data give by less than its own uncertainty.");
                return true;
            }
            if (off <= HANDS * is.u()) {
                notes.add("It differs from what the data give by less than half their uncertainty.");
                return true;
            }
            return false;
        }

        /** What is right may still say too much or too little. */
        private Marked ifRight(Verdict verdict) {
            Verdict v = verdict;
            if (g.hasU() || asksForU) {
                String wrong = uncertainty();
                if (!wrong.isEmpty()) {
                    notes.add(wrong);
                    v = Verdict.UNCERTAINTY;
                }
            }
            if (is.u() > 0 && step < is.u() / TOO_FINE) {
                notes.add("It has more digits than its uncertainty bears: " + Notation.bracket(is) + ".");
                v = Verdict.DIGITS;
            }
            return result(v, List.of(), List.of());
        }

        private String uncertainty() {
            double u = g.u() * Math.abs(scale);
            if (!g.hasU()) {
                return "Its uncertainty is missing.";
            }
            if (u < is.u() / BELIEVED) {
                return "Its uncertainty is too small to be believed.";
            }
            return is.u() > 0 && u > BELIEVED * is.u() ? "Its uncertainty is larger than the data ask for." : "";
        }

        private List<String> follows() {
            Set<String> above = new LinkedHashSet<>();
            collect(
                    quantity,
                    above,
                    Descent.of(data.sheet()).stream().collect(Collectors.toMap(Descent.Item::name, i -> i)));
            Map<String, Double> wrong = new LinkedHashMap<>();
            Map<String, Double> half = new LinkedHashMap<>();
            for (String q : above) {
                Marked m = done.get(q);
                if (m != null
                                && m.given() != null
                                && m.expected() != null
                                && !m.verdict().isRightNumber()
                        || m != null && m.verdict() == Verdict.FOLLOWED) {
                    double[] v = inUnit(m);
                    wrong.put(q, v[0]);
                    half.put(q, v[1] / 2);
                }
            }
            List<Map<String, Double>> tried = new ArrayList<>();
            wrong.forEach((q, v) -> tried.add(Map.of(q, v)));
            if (wrong.size() > 1) {
                tried.add(wrong);
            }
            for (Map<String, Double> t : tried) {
                OptionalDouble v = data.following(t, quantity);
                if (v.isPresent() && v.getAsDouble() != right) {
                    double slack = 0;
                    for (Map.Entry<String, Double> e : t.entrySet()) {
                        Map<String, Double> moved = new LinkedHashMap<>(t);
                        moved.put(e.getKey(), e.getValue() + half.getOrDefault(e.getKey(), 0.0));
                        OptionalDouble w = data.following(moved, quantity);
                        slack += w.isPresent() ? Math.abs(w.getAsDouble() - v.getAsDouble()) : 0;
                    }
                    boolean moves = Math.abs(v.getAsDouble() - right) > step + 2 * slack;
                    if (moves && Math.abs(value - v.getAsDouble()) <= HALF * step + slack) {
                        return List.copyOf(t.keySet());
                    }
                }
            }
            return List.of();
        }

        private void collect(String name, Set<String> out, Map<String, Descent.Item> items) {
            Descent.Item item = items.get(name);
            if (item != null) {
                for (String f : item.from()) {
                    if (out.add(f)) {
                        collect(f, out, items);
                    }
                }
            }
        }

        /** Everything that reproduces the digits and is likelier than coincidence, likeliest first. */
        private List<Explanation> explanations() {
            Chance chance = new Chance(right, is.u());
            double coincidence = chance.coincidence(value, step);
            List<Explanation> out = new ArrayList<>();
            for (Change.Kind kind : List.of(Change.Kind.MISTAKE, Change.Kind.SLIP, Change.Kind.PAIR, Change.Kind.ROW)) {
                List<Change> all = data.of(kind);
                List<Explanation> made = new ArrayList<>();
                for (Change c : all) {
                    data.value(c, quantity)
                            .ifPresent(v -> made.add(new Explanation(kind, c.id(), c.label(), c.says(), v, 0)));
                }
                if (kind == Change.Kind.SLIP) {
                    made.addAll(Factors.of(right, is.unit()));
                }
                double prior = Chance.made(kind, made.size());
                made.stream().filter(this::fits).forEach(e -> out.add(e.near(prior / coincidence)));
            }
            double prior = Chance.made(Change.Kind.OTHERS, others.size());
            others.forEach((who, v) -> {
                Explanation e = new Explanation(
                        Change.Kind.OTHERS, "data-" + who, "The data of " + who, "Whose data are these?", v, 0);
                if (fits(e)) {
                    out.add(e.near(prior / coincidence));
                }
            });
            List<Explanation> different = different(out);
            List<Explanation> named = different.stream()
                    .filter(e -> e.nearness() >= Chance.ENOUGH)
                    .toList();
            if (named.isEmpty() && !out.isEmpty()) {
                notes.add("With so few digits it may be coincidence, but it could be: "
                        + different.stream()
                                .limit(MOST_NAMED)
                                .map(Explanation::label)
                                .collect(Collectors.joining("; "))
                        + ".");
            }
            return named.stream().limit(MOST_NAMED).toList();
        }

        /** Likeliest first, and none that is another under a second name: two mistakes of which one does nothing. */
        private static List<Explanation> different(List<Explanation> all) {
            List<Explanation> out = new ArrayList<>();
            all.stream()
                    .sorted(Comparator.comparingDouble((Explanation e) -> -e.nearness()))
                    .forEach(e -> {
                        boolean again = e.kind() != Change.Kind.MISTAKE
                                && out.stream()
                                        .anyMatch(o -> Math.abs(o.value() - e.value()) <= SAME * Math.abs(e.value()));
                        if (!again) {
                            out.add(e);
                        }
                    });
            return out;
        }

        private boolean fits(Explanation e) {
            return is(e.value()) && Math.abs(e.value() - right) >= SEEN * step;
        }

        private Marked result(Verdict v, List<Explanation> named, List<String> from) {
            return new Marked(h, quantity, label(quantity), g, is, v, List.copyOf(notes), named, from);
        }
    }

    /** A number that was marked, and its step, in the unit of the right result. */
    private static double[] inUnit(Marked m) {
        GivenNumber g = java.util.Objects.requireNonNull(m.given());
        Quantity is = java.util.Objects.requireNonNull(m.expected());
        if (!g.unit().isEmpty()) {
            try {
                LabUnit own = LabUnit.parse(g.unit());
                if (own.fits(is.unit())) {
                    return new double[] {own.convert(g.value(), is.unit()), Math.abs(g.step() * own.scaleTo(is.unit()))
                    };
                }
            } catch (IllegalArgumentException unknown) {
                // As if in the right unit.
            }
        }
        return new double[] {g.value(), g.step()};
    }
}
