package eagerneedle.core.marking;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.stream.Collectors;

/**
 * One number that was handed in, in the unit in which it is to be read.
 *
 * <p>It is right when it is what the student's own data give, by any way that the sheet offers, rounded as it was
 * written. Otherwise the earlier numbers that were handed in are put in place of what the data give, see
 * {@link Following}; then every mistake is made on those data, and what reproduces the digits is named as far as
 * coincidence does not, see {@link Chance}. A number that windows set a little otherwise may give is right, whatever
 * else may give it too: the benefit of the doubt is the student's, and the marker is told.
 */
final class OneNumber {
    /** A mistake that moves a result by less than so many steps of its last digit cannot be seen. */
    static final double SEEN = 3;

    static final double HALF = 0.5 * (1 + 1e-9);
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
    private final StudentMarker.Asked asked;
    private final Map<String, Marked> done;
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

    OneNumber(
            OwnData data,
            Map<String, Double> others,
            StudentMarker.Asked asked,
            Map<String, Marked> done,
            String quantity,
            HandIn h,
            GivenNumber g,
            Quantity is) {
        this.data = data;
        this.others = others;
        this.asked = asked;
        this.done = done;
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
            if (number && Math.abs(LabUnit.ONE.convert(g.value(), is.unit()) - right) < Math.abs(g.value() - right)) {
                convert(LabUnit.ONE);
                return true;
            }
            return is.unit().symbol().isEmpty() || !asked.units();
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

    Marked marked() {
        if (is(right)) {
            return unitFits ? ifRight(Verdict.RIGHT) : result(unitVerdict(), List.of(), List.of());
        }
        if (Math.abs(g.value() - right) <= HALF * g.step() && converted) {
            notes.add("The number stands in " + is.unit().named() + ", its unit says " + g.unit() + ".");
            return result(Verdict.UNIT, List.of(), List.of());
        }
        // What follows from an earlier number may happen to be a power of ten off.
        List<String> from = new Following(data, done).from(quantity, value, right, step);
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
        if (g.hasU() || asked.u()) {
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
        List<Explanation> named =
                different.stream().filter(e -> e.nearness() >= Chance.ENOUGH).toList();
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
        return new Marked(
                h, quantity, StudentMarker.label(data.sheet(), quantity), g, is, v, List.copyOf(notes), named, from);
    }
}
