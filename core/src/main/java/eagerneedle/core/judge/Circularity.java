package eagerneedle.core.judge;

import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Optional;

/**
 * Says when a comparison proves nothing because the reference took part in making the result: it adjusted or calibrated
 * what measured it, or both rest on one input.
 */
public final class Circularity {
    private static final double MOSTLY = 0.5;

    private Circularity() {}

    /** One sentence when more than half of the reference's variance reaches the result too; empty otherwise. */
    public static Optional<String> remark(
            String resultLabel, Quantity result, String referenceLabel, Quantity reference) {
        if (reference.u() == 0 || result.u() == 0) {
            return Optional.empty();
        }
        double shared = 0;
        String by = null;
        double largest = 0;
        for (Leaf leaf : reference.contributions().keySet()) {
            double c = reference.contribution(leaf);
            if (result.contribution(leaf) != 0) {
                shared += c * c;
                if (c * c > largest) {
                    largest = c * c;
                    by = leaf.label();
                }
            }
        }
        return shared > MOSTLY * reference.u() * reference.u()
                ? Optional.of(
                        "%s rests on %s too (through %s), so their agreement proves little: the comparison is circular."
                                .formatted(resultLabel, referenceLabel, by))
                : Optional.empty();
    }

    /** One sentence when a reference is among those a calibration was made with; empty otherwise. */
    public static Optional<String> remark(String referenceId, List<String> calibratedWith) {
        return calibratedWith.contains(referenceId)
                ? Optional.of("The reference " + referenceId
                        + " was used in the calibration, so comparing with it again proves nothing.")
                : Optional.empty();
    }
}
