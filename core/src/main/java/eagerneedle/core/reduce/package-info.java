/**
 * From a sheet, a session and raw samples to every derived quantity: an incremental graph whose outcome is a
 * {@link eagerneedle.core.reduce.Reduction}. {@link eagerneedle.core.reduce.Reducer} is the door.
 */
@NullMarked
package eagerneedle.core.reduce;

import org.jspecify.annotations.NullMarked;
