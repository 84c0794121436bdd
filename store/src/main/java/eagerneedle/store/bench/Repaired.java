package eagerneedle.store.bench;

import java.util.List;

/**
 * What a repair brought back.
 *
 * @param file the new file
 * @param acts notebook lines
 * @param blocks blocks of samples
 * @param samples samples in them
 * @param missing what could not be brought back or cannot be vouched for, one sentence each; empty when the new file
 *     holds all there was
 */
public record Repaired(String file, int acts, int blocks, long samples, List<String> missing) {
    public Repaired {
        missing = List.copyOf(missing);
    }

    /** What was saved, in one sentence, and then what is missing. */
    public String sentence() {
        return "%s holds %d notebook lines and %,d samples in %,d blocks. %s"
                .formatted(
                        file,
                        acts,
                        samples,
                        blocks,
                        missing.isEmpty() ? "Nothing is missing." : String.join(" ", missing));
    }
}
