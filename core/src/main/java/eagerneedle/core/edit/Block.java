package eagerneedle.core.edit;

import java.util.Map;

/** Entries that are written below each other, a line each, where a map is written on one line. */
public record Block(Map<String, ?> entries) {}
