/**
 * The method sheet: one open text file that describes an experiment as data. {@link eagerneedle.core.sheet.SheetReader}
 * reads YAML, checks it against the schema that ships, and tells every mistake with line and column.
 */
@NullMarked
package eagerneedle.core.sheet;

import org.jspecify.annotations.NullMarked;
