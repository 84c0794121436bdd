package eagerneedle.core.calibration;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One point: a reference value and the steadied indication at it.
 *
 * @param reference as a person wrote it, with its own uncertainty: {@code 0.4000(5) m}; or what was set, when it was
 *     computed
 * @param value the reference value where it was computed from other quantities, in {@code unit}; null when it is read
 *     from the text
 * @param unit symbol of the unit of {@code value}; null with it
 * @param parts what the computed reference rests on; points that share an input stay correlated through it
 * @param indication mean of the reading, in the channel's unit, by the chain's nominal transfer
 * @param uIndication standard uncertainty of that mean, same unit
 * @param samples how many samples it rests on; 0 for an indication that was typed, whose uncertainty is taken as known
 * @param steady whether the reading was steady when it was taken
 * @param way "up" or "down" where the order of loading matters, otherwise null
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record CalibrationPoint(
        String reference,
        @Nullable Double value,
        @Nullable String unit,
        List<Part> parts,
        double indication,
        double uIndication,
        int samples,
        boolean steady,
        @Nullable String way) {
    /** What follows the words of a reference that was put right. */
    private static final String CORRECTED = ", corrected";

    /**
     * One influence on a computed reference: identity, words, what one standard deviation of it does, and its degrees
     * of freedom (0 for known).
     */
    public record Part(String id, String label, String source, double contribution, double dof) {}

    public CalibrationPoint {
        parts = parts == null ? List.of() : List.copyOf(parts);
    }

    /** A point whose reference is a reading. */
    public CalibrationPoint(String reference, double indication, double uIndication, int samples, boolean steady) {
        this(reference, null, null, List.of(), indication, uIndication, samples, steady, null);
    }

    /** A point whose reference was computed. */
    public static CalibrationPoint computed(
            String set, Quantity reference, double indication, double uIndication, int samples, boolean steady) {
        Quantity q = reference.linear();
        List<Part> parts = q.contributions().entrySet().stream()
                .map(e -> new Part(
                        e.getKey().id(),
                        e.getKey().label(),
                        e.getKey().source(),
                        e.getValue(),
                        Double.isInfinite(e.getKey().dof()) ? 0 : e.getKey().dof()))
                .toList();
        return new CalibrationPoint(
                set, q.value(), q.unit().symbol(), parts, indication, uIndication, samples, steady, null);
    }

    public CalibrationPoint going(@Nullable String newWay) {
        return new CalibrationPoint(reference, value, unit, parts, indication, uIndication, samples, steady, newWay);
    }

    /** The same with its reference put right; what was set keeps its words. */
    CalibrationPoint corrected(Quantity right) {
        CalibrationPoint p = computed(
                reference.endsWith(CORRECTED) ? reference : reference + CORRECTED,
                right,
                indication,
                uIndication,
                samples,
                steady);
        return p.going(way);
    }

    /** What was set, in the words in which it was planned. */
    public String set() {
        return reference.endsWith(CORRECTED)
                ? reference.substring(0, reference.length() - CORRECTED.length())
                : reference;
    }

    /** The reference value that was computed; empty where it is read from the text. */
    public Optional<Quantity> computed() {
        return value == null || unit == null ? Optional.empty() : Optional.of(referenceQuantity("", "", ""));
    }

    /** The value of the reference, in a unit of its kind. */
    public double referenceIn(LabUnit in) {
        return referenceQuantity("", "", "").in(in);
    }

    /** The reference value. {@code root} is the root of the ids of leaves that are this point's own. */
    Quantity referenceQuantity(String root, String label, String source) {
        if (value == null || unit == null) {
            return Reading.parse(reference).toQuantity(root + "/reference", label, source);
        }
        Quantity q = Quantity.exact(value, LabUnit.parse(unit));
        for (Part p : parts) {
            Leaf leaf = p.dof() > 0
                    ? Leaf.typeA(p.id(), p.label(), p.source(), p.dof())
                    : Leaf.typeB(p.id(), p.label(), p.source(), Distribution.NORMAL);
            q = q.with(leaf, p.contribution());
        }
        return q;
    }
}
