package eagerneedle.core.stockroom;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.time.Instant;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What a standard, or an instrument that something was read with, turned out to be wrong by, once it was in use.
 *
 * <p>How well the correction itself is known is one influence, the same one wherever the standard was used: two benches
 * that referred to it stay correlated through it (GUM, F.2.4.5).
 *
 * @param standard its serial, or the words by which calibrations call it
 * @param times what its value is to be multiplied by, a number with its uncertainty such as {@code 1.0021(3)}; null for
 *     1
 * @param plus what is then added to it, a difference such as {@code 0.12(2) K}; null for nothing
 * @param at when it was found
 * @param by who says so
 * @param why in words
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Correction(
        String standard, @Nullable String times, @Nullable String plus, Instant at, String by, String why) {
    /**
     * The same, each entry looked at.
     *
     * @throws IllegalArgumentException with one sentence for what cannot be used
     */
    public Correction checked() {
        if (standard.isBlank()) {
            throw new IllegalArgumentException("Say which standard was wrong, by its serial.");
        }
        if (times == null && plus == null) {
            throw new IllegalArgumentException("Say by how much " + standard
                    + DecimalSign.inUse()
                            .shown(" is wrong: times a number such as 1.0021(3), plus a difference "
                                    + "such as 0.12(2) K, or both."));
        }
        if (why.isBlank()) {
            throw new IllegalArgumentException("Say why " + standard + " is corrected; the notebooks keep it.");
        }
        if (times != null) {
            Reading factor = Reading.parse(times);
            if (!factor.unit().isDimensionless() || !(factor.value() > 0) || !Double.isFinite(factor.value())) {
                throw new IllegalArgumentException("A standard is multiplied by a number above 0, such as "
                        + DecimalSign.inUse().shown("1.0021(3), not by " + times + "."));
            }
        }
        if (plus != null && Reading.parse(plus).unit().isAffine()) {
            throw new IllegalArgumentException("What is added is a difference: write "
                    + plus.replaceFirst("[^0-9()]+$", "") + " K, not " + plus + ".");
        }
        return this;
    }

    /** True where words name the standard, whole. */
    public boolean concerns(@Nullable String words) {
        return words != null
                && Pattern.compile("(?<![A-Za-z0-9._-])"
                                + Pattern.quote(standard.strip().toLowerCase(Locale.ROOT)) + "(?![A-Za-z0-9_-])")
                        .matcher(words.toLowerCase(Locale.ROOT))
                        .find();
    }

    /** True for what it can correct: a quantity whose unit fits what is added. */
    public boolean fits(LabUnit unit) {
        return plus == null || Reading.parse(plus).unit().fits(unit.difference());
    }

    /**
     * What was read, put right; of a temperature the number on its own scale is multiplied.
     *
     * @throws IllegalArgumentException with one sentence where what is added does not fit
     */
    public Quantity of(Quantity was) {
        LabUnit unit = was.unit();
        if (!fits(unit)) {
            throw new IllegalArgumentException("What was read with " + standard + " is in " + unit.named()
                    + ", and the correction adds " + plus + ".");
        }
        String label = "correction of " + standard;
        Quantity zero = Quantity.exact(0, unit);
        Quantity q = unit.isAffine() ? was.minus(zero) : was;
        if (times != null) {
            q = q.times(Reading.parse(times).toQuantity(root() + "/times", label, by));
        }
        if (plus != null) {
            q = q.plus(Reading.parse(plus).toQuantity(root() + "/plus", label, by));
        }
        return unit.isAffine() ? zero.plus(q) : q.to(unit);
    }

    private String root() {
        return ROOT + standard + "/" + at;
    }

    /** How the ids of its influences begin. */
    public static final String ROOT = "standard:";

    /** What it does, in words. */
    public String says() {
        return (times == null ? "" : "times " + times)
                + (times == null || plus == null ? "" : ", ")
                + (plus == null ? "" : "plus " + plus);
    }
}
