package eagerneedle.app.eye;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Eyesight;
import eagerneedle.core.reading.Face;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A reading that is being built: the face it is read from, what stands in its gaps, and what comes of it. */
final class BuilderModel {
    private static final int CAUSES = 3;

    private final String label;
    private final WantedReading reading;
    private final LabUnit wanted;
    private final Map<String, String> values = new LinkedHashMap<>();
    private Face face;

    /**
     * @param label what is read
     * @param expected what a reading looks like, as written: it decides the unit
     * @param text what stands in the field so far; may be empty
     */
    BuilderModel(String label, String expected, String text) {
        this.label = label;
        this.reading = WantedReading.like(label, expected);
        this.wanted = reading.unit();
        String like = text.isBlank() ? expected : text;
        Optional<Face> made = madeBy(like);
        face = made.orElseGet(() -> usualFor(wanted));
        if (made.isPresent()) {
            values.putAll(face.taken(like).orElseThrow());
        } else {
            values.putAll(filled(face, first(like).or(() -> first(expected))));
        }
    }

    /** The face that one thinks of first for something read in a unit. */
    private static Face usualFor(LabUnit unit) {
        return fits(unit, "deg")
                ? Face.ANGLE
                : fits(unit, "ml")
                        ? Face.MENISCUS
                        : fits(unit, "s")
                                ? Face.STOPWATCH
                                : fits(unit, "g")
                                        ? Face.BALANCE
                                        : fits(unit, "V") || fits(unit, "A") ? Face.METER : Face.RULE;
    }

    private static boolean fits(LabUnit unit, String symbol) {
        return unit.fits(LabUnit.parse(symbol)) && !unit.isDimensionless()
                || unit.symbol().equals(symbol);
    }

    /** The face that wrote a text; where several write alike, the one that its unit makes one think of. */
    private Optional<Face> madeBy(String text) {
        List<Face> could =
                faces().stream().filter(f -> f.taken(text).isPresent()).toList();
        return unitOf(text)
                .map(BuilderModel::usualFor)
                .filter(could::contains)
                .or(() -> could.stream().findFirst());
    }

    /** What a text says, as far as it says anything. */
    private static Optional<Quantity> first(String text) {
        try {
            return Optional.of(Written.quantity(text, "value", "value", "value"));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /**
     * The usual values of a face, every one in a unit like that of what is read; what is seen on it as it looks at a
     * value.
     */
    private Map<String, String> filled(Face f, Optional<Quantity> main) {
        LabUnit own = wanted.difference();
        Map<String, String> out = new LinkedHashMap<>(f.usual());
        for (Face.Gap g : f.gaps()) {
            boolean first = g.equals(f.gaps().get(0));
            LabUnit like = first ? wanted : own;
            unitOf(g.usual())
                    .filter(u -> !u.symbol().isEmpty() && !g.usual().contains("%") && !u.fits(like))
                    .ifPresent(u -> out.put(g.name(), g.usual().split("[ ,]")[0] + " " + like.symbol()));
        }
        main.filter(q -> q.unit().fits(wanted)).ifPresent(q -> {
            try {
                out.putAll(new Eyesight(() -> 0, () -> 0, n -> 0).seen(f, out, q));
            } catch (IllegalArgumentException elsewhere) {
                out.put(f.gaps().get(0).name(), Digits.bracket(q));
            }
        });
        return out;
    }

    private static Optional<LabUnit> unitOf(String text) {
        try {
            return Optional.of(Written.quantity(text, "unit", "unit", "unit").unit());
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    String label() {
        return label;
    }

    /** The faces from which what is wanted can be read. */
    List<Face> faces() {
        return Arrays.stream(Face.values())
                .filter(f -> f != Face.STOPWATCH || fits(wanted, "s"))
                .filter(f -> f != Face.BALANCE || fits(wanted, "g"))
                .toList();
    }

    Face face() {
        return face;
    }

    /** Takes another face; what was said stays where it still means something. */
    void choose(Face other) {
        Map<String, String> next = filled(other, quantity());
        face = other;
        values.clear();
        values.putAll(next);
    }

    Map<String, String> values() {
        return Map.copyOf(values);
    }

    void say(String gap, String text) {
        values.put(gap, text);
    }

    /** The reading as it goes into the field. */
    String written() {
        return face.written(values);
    }

    private Optional<Quantity> quantity() {
        return reading.quantity(this::written);
    }

    /** Why it is no reading yet; empty when it is one. */
    String problem() {
        return reading.problem(this::written);
    }

    /** What comes of it: value, standard uncertainty and the causes that make it, largest first. */
    String says() {
        if (!problem().isEmpty()) {
            return "";
        }
        Quantity q = quantity().orElseThrow();
        if (q.u() == 0) {
            return q + ", without an uncertainty: nothing here says how well it was read.";
        }
        String causes = Budget.of(q).lines().stream()
                .limit(CAUSES)
                .map(l -> l.label().replace(label + ": ", "") + " " + Notation.sentence("%.0f %%", 100 * l.share()))
                .reduce((a, b) -> a + ", " + b)
                .orElse("");
        return q + "   u = " + Notation.figures(q.u(), 2) + " "
                + q.unit().difference().pretty() + "; u² comes from: " + causes;
    }
}
