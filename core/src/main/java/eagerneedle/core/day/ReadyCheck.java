package eagerneedle.core.day;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * A bench looked at before a class: what was found, the numbers that the next one is held against, and who signed.
 *
 * @param at when it was signed
 * @param bench what the bench is called
 * @param method id of the method that is set up there
 * @param by the member of staff who signed
 * @param rows what was looked at, in order
 * @param numbers what was measured
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record ReadyCheck(Instant at, String bench, String method, String by, List<Row> rows, List<Number> numbers) {
    /** More of the uncertainties of both than this is a change: 1 in 22 by chance. */
    private static final double CHANGED = 2;

    /** Something that was looked at: whether it is as it should be, and what was seen. */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Row(String what, boolean good, String says) {}

    /**
     * A number with its standard uncertainty, in {@code unit}.
     *
     * @param key what it is, the same from term to term
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Number(String key, String label, double value, double u, String unit) {
        /** Its value as it is written. */
        public String written() {
            LabUnit in = LabUnit.parse(unit);
            String number = u > 0 ? Notation.bracketed(value, u) : Notation.plain(value, 5);
            return (number + " " + in.pretty()).strip();
        }
    }

    public ReadyCheck {
        rows = List.copyOf(rows);
        numbers = List.copyOf(numbers);
    }

    /** True where everything was as it should be. */
    public boolean isReady() {
        return !rows.isEmpty() && rows.stream().allMatch(Row::good);
    }

    /** The number of a key. */
    public Optional<Number> number(String key) {
        return numbers.stream().filter(n -> n.key().equals(key)).findFirst();
    }

    /**
     * How a number stands to the one of an earlier check.
     *
     * @param before the last check of the same bench and method; empty where there is none
     */
    public static Row held(String what, Number now, Optional<ReadyCheck> before) {
        Optional<Number> last = before.flatMap(c -> c.number(now.key()))
                .filter(n -> LabUnit.parse(n.unit()).fits(LabUnit.parse(now.unit())));
        if (last.isEmpty()) {
            return new Row(what, true, now.label() + ": " + now.written() + ", the first that is kept.");
        }
        LabUnit unit = LabUnit.parse(now.unit());
        LabUnit of = LabUnit.parse(last.get().unit());
        double then = of.convert(last.get().value(), unit);
        double u = Math.hypot(now.u(), last.get().u() * of.scaleTo(unit));
        double apart = Math.abs(now.value() - then) / u;
        boolean same = u > 0 ? apart <= CHANGED : now.value() == then;
        String day = Notation.day(before.get().at());
        return new Row(
                what,
                same,
                now.label() + ": " + now.written() + "; on " + day + " "
                        + last.get().written() + ", "
                        + (same
                                ? "the same within both uncertainties."
                                : u > 0
                                        ? "apart by " + Notation.plain(apart, 2) + " of both uncertainties together."
                                        : "another number."));
    }
}
