/**
 * Marking: what each number that is handed in says, held against what that student's own data give.
 * {@link eagerneedle.core.marking.OwnData} reckons those data rightly, by every way, and with every mistake;
 * {@link eagerneedle.core.marking.Marker} judges.
 */
@NullMarked
package eagerneedle.core.marking;

import org.jspecify.annotations.NullMarked;
