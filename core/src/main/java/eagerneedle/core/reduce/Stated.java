package eagerneedle.core.reduce;

import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What a statement of the sheet comes to.
 *
 * @param sentence empty when there is none yet
 * @param problem why there is none; null otherwise
 * @param quantities what it is about, to be drawn; may be empty
 * @param bound how these are correlated, in words; empty when they are not
 */
public record Stated(
        Sheet.Statement statement,
        Optional<String> sentence,
        @Nullable String problem,
        List<Reduction.Labelled> quantities,
        String bound) {}
