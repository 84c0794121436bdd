package eagerneedle.core.marking;

import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A number that was handed in, with what became of it.
 *
 * @param quantity by its name in the sheet
 * @param label what people call it
 * @param given as written; null where nothing was handed in, or no number
 * @param expected what the student's own data give; null where they give nothing
 * @param notes what else there is to say, each a sentence
 * @param explanations what may have made it, likeliest first
 * @param followsFrom the earlier quantities that it follows from; none otherwise
 */
public record Marked(
        HandIn handIn,
        String quantity,
        String label,
        @Nullable GivenNumber given,
        @Nullable Quantity expected,
        Verdict verdict,
        List<String> notes,
        List<Explanation> explanations,
        List<String> followsFrom) {
    /** The same with one more sentence. */
    Marked noting(String sentence) {
        List<String> more = new ArrayList<>(notes);
        more.add(sentence);
        return new Marked(
                handIn, quantity, label, given, expected, verdict, List.copyOf(more), explanations, followsFrom);
    }
}
