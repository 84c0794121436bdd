package eagerneedle.core.quantity;

import java.util.Arrays;

/**
 * What the leaf of a scatter stands for: a direction among readings, and the residuals that showed how large the
 * scatter is.
 *
 * <p>Two results from the same readings share their scatter, whichever functions made them. A parameter of a fit is a
 * sum over readings, so its scatter is the scatter of the readings along one direction q of unit length; two directions
 * among the same readings are as alike as their product says. Two columns read on the same occasions scatter together
 * as far as their residuals do: (e · f) / (|e| |f|), which for means is what the residuals of simultaneous readings say
 * (JCGM 100, 5.2.3 and H.2). The correlation of two leaves is the product of both. It is that of a joint distribution
 * whatever the leaves are, because it is a product of two inner products.
 *
 * @param group readings of different groups have nothing to do with each other
 * @param readings n identities of readings within the group
 * @param direction n components, a vector of length 1
 * @param residuals n residuals, a vector of length 1
 */
public record Seen(String group, String[] readings, double[] direction, double[] residuals) {
    public Seen {
        if (readings.length != direction.length || readings.length != residuals.length) {
            throw new IllegalArgumentException("A direction among readings has a component for each of them.");
        }
    }

    /** Correlation with another leaf of scatter, -1 to 1. */
    double correlation(Seen other) {
        if (!group.equals(other.group)) {
            return 0;
        }
        double along = 0;
        double together = 0;
        if (readings == other.readings || Arrays.equals(readings, other.readings)) {
            for (int i = 0; i < direction.length; i++) {
                along += direction[i] * other.direction[i];
                together += residuals[i] * other.residuals[i];
            }
        } else {
            java.util.Map<String, Integer> at = new java.util.HashMap<>();
            for (int i = 0; i < other.readings.length; i++) {
                at.put(other.readings[i], i);
            }
            for (int i = 0; i < readings.length; i++) {
                Integer j = at.get(readings[i]);
                if (j != null) {
                    along += direction[i] * other.direction[j];
                    together += residuals[i] * other.residuals[j];
                }
            }
        }
        return Math.max(-1, Math.min(1, along * together));
    }
}
