package eagerneedle.core.quantity;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.stream.DoubleStream;
import org.jspecify.annotations.Nullable;

/**
 * A leaf as a file keeps it, for quantities that are taken from one session into another: what is unbounded or not a
 * number is left out.
 *
 * @param dof degrees of freedom; null where they are unbounded
 * @param parameter what its family needs beside its width; null where it needs nothing
 * @param seen the readings that its scatter was seen in; null for none
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@JsonIgnoreProperties(ignoreUnknown = true)
public record KeptLeaf(
        String id,
        String label,
        String source,
        Leaf.Type type,
        Distribution distribution,
        @Nullable Double parameter,
        double limitFactor,
        @Nullable Double dof,
        String pool,
        @Nullable Readings seen) {
    /** A direction among readings, and what was left over in them: see {@link Seen}. */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Readings(String group, List<String> readings, List<Double> direction, List<Double> residuals) {
        public Readings {
            readings = List.copyOf(readings);
            direction = List.copyOf(direction);
            residuals = List.copyOf(residuals);
        }
    }

    /**
     * Of a leaf.
     *
     * @param identity what identities of the session it comes from are called where it is kept
     */
    public static KeptLeaf of(Leaf leaf, java.util.function.UnaryOperator<String> identity) {
        Seen s = leaf.seen();
        return new KeptLeaf(
                identity.apply(leaf.id()),
                leaf.label(),
                leaf.source(),
                leaf.type(),
                leaf.shape().kind(),
                Double.isNaN(leaf.shape().parameter()) ? null : leaf.shape().parameter(),
                leaf.shape().limitFactor(),
                Double.isInfinite(leaf.dof()) ? null : leaf.dof(),
                identity.apply(leaf.pool()),
                s == null
                        ? null
                        : new Readings(
                                identity.apply(s.group()),
                                List.of(s.readings()),
                                DoubleStream.of(s.direction()).boxed().toList(),
                                DoubleStream.of(s.residuals()).boxed().toList()));
    }

    /** The leaf itself. */
    public Leaf toLeaf() {
        return new Leaf(
                id,
                label,
                source,
                type,
                new Shape(distribution, parameter == null ? Double.NaN : parameter, limitFactor),
                dof == null ? Double.POSITIVE_INFINITY : dof,
                pool,
                seen == null
                        ? null
                        : new Seen(
                                seen.group,
                                seen.readings.toArray(new String[0]),
                                plain(seen.direction),
                                plain(seen.residuals)));
    }

    private static double[] plain(List<Double> numbers) {
        return numbers.stream().mapToDouble(Double::doubleValue).toArray();
    }
}
