package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import eagerneedle.core.quantity.KeptLeaf;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a pool took from one session: rows with all their influences, and where they come from. It is kept with the pool
 * whole, so that a pool can be reduced where the files are not, and so that a file that changes later changes nothing
 * unsaid.
 *
 * @param name what its rows are called by; no two sources of a pool share it
 * @param file where the bench file was, beside that of the pool where that could be said
 * @param digest SHA-256 of the file, in hexadecimal digits
 * @param title what the session is called
 * @param beginning when the session began and what was read then; two that agree in it began as one
 * @param taken when it was taken
 * @param leaves the influences, each once
 * @param columns rows by column
 * @param labels what people call a column, where its own sheet says so
 * @param remarks what could not be taken, and why
 * @param leftOut why it counts nowhere; null for one that counts
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@JsonIgnoreProperties(ignoreUnknown = true)
public record PoolSource(
        String name,
        String file,
        String digest,
        String title,
        String beginning,
        Instant taken,
        List<KeptLeaf> leaves,
        Map<String, List<Row>> columns,
        Map<String, String> labels,
        List<String> remarks,
        @Nullable String leftOut) {
    /**
     * One row.
     *
     * @param level the level of its run; empty for none
     * @param labels what it is: runs and members of sets, by capture and by set
     * @param value in {@code unit}
     * @param contributions of the leaves of the source, in their order, in {@code unit}
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Row(String level, Map<String, String> labels, double value, String unit, List<Double> contributions) {
        public Row {
            labels = Collections.unmodifiableMap(new LinkedHashMap<>(labels));
            contributions = List.copyOf(contributions);
        }
    }

    public PoolSource {
        leaves = List.copyOf(leaves);
        columns = Collections.unmodifiableMap(new LinkedHashMap<>(columns));
        labels = labels == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(labels));
        remarks = remarks == null ? List.of() : List.copyOf(remarks);
    }

    /** True for one whose rows count. */
    public boolean counts() {
        return leftOut == null;
    }

    /** With one remark more. */
    public PoolSource with(String remark) {
        List<String> more = new ArrayList<>(remarks);
        more.add(remark);
        return new PoolSource(name, file, digest, title, beginning, taken, leaves, columns, labels, more, leftOut);
    }

    PoolSource leaving(@Nullable String reason) {
        return new PoolSource(name, file, digest, title, beginning, taken, leaves, columns, labels, remarks, reason);
    }

    /** The rows of a column as quantities, with what they share. */
    public List<Quantity> quantities(String column) {
        List<Leaf> all = leaves.stream().map(KeptLeaf::toLeaf).toList();
        return columns.getOrDefault(column, List.of()).stream()
                .map(r -> quantity(r, all))
                .toList();
    }

    private static Quantity quantity(Row row, List<Leaf> leaves) {
        Quantity q = Quantity.exact(row.value(), LabUnit.parse(row.unit()));
        for (int i = 0; i < leaves.size(); i++) {
            double c = row.contributions().get(i);
            q = c == 0 ? q : q.with(leaves.get(i), c);
        }
        return q;
    }
}
