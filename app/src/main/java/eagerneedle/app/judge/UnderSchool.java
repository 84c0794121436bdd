package eagerneedle.app.judge;

import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.Conclusion;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Notation;
import java.util.Optional;

/**
 * A result under one school.
 *
 * @param speaks true for the school in use
 * @param good absent where the school has no verdict
 */
record UnderSchool(Comparison of, School school, boolean speaks, String verdict, Optional<Boolean> good, String more) {
    static UnderSchool of(Comparison c, School s, boolean speaks) {
        String unit = c.result().unit().afterNumber();
        if (c.demand().bound() != null && s != School.STANDARD) {
            return new UnderSchool(
                    c,
                    s,
                    speaks,
                    c.conclusion(s).words(),
                    c.conclusion(s) == Conclusion.CANNOT_TELL ? Optional.empty() : Optional.of(c.agrees(s)),
                    "a bound is judged by its probability under every school");
        }
        return switch (s) {
            case STANDARD ->
                new UnderSchool(
                        c,
                        s,
                        speaks,
                        c.conclusion(s).words(),
                        c.conclusion(s) == Conclusion.CANNOT_TELL ? Optional.empty() : Optional.of(c.agrees(s)),
                        Notation.plusMinus(c.difference().value(), c.coverage().expanded(c.difference())) + unit
                                + " (k = " + Notation.plain(c.factor(), 3) + ")");
            case LIMITS -> {
                double overlap = c.overlap();
                yield new UnderSchool(
                        c,
                        s,
                        speaks,
                        overlap >= 0 ? "agrees" : "does not agree",
                        Optional.of(overlap >= 0),
                        (overlap >= 0 ? "limits overlap by " : "a gap of ") + Notation.plain(Math.abs(overlap), 2)
                                + unit + "; 2 u for a normal input, more for few readings");
            }
            case PERCENT ->
                new UnderSchool(
                        c,
                        s,
                        speaks,
                        Double.isNaN(c.percent()) ? "no percentage" : Notation.figures(c.percent(), 2) + " %",
                        Optional.empty(),
                        (Double.isNaN(c.threshold())
                                        ? ""
                                        : (c.agrees(s) ? "within the " : "beyond the ")
                                                + Notation.plain(c.threshold(), 3) + " % allowed; ")
                                + "says nothing of how well it was measured");
        };
    }
}
