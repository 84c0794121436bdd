package eagerneedle.core.marking;

/**
 * One number as it was handed in, nothing of it read yet.
 *
 * @param student by id
 * @param quantity by its name in the sheet, or by its label
 * @param value as written; may carry its uncertainty in brackets, and its unit
 * @param u standard uncertainty as written; empty for none
 * @param unit as written; empty for none
 */
public record HandIn(String student, String quantity, String value, String u, String unit) {}
