package eagerneedle.store.bench;

import java.time.Instant;

/** One line of the notebook. */
public record NotebookLine(Instant at, String text) {}
