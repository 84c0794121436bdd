/**
 * When to take samples: triggers of shots, schedules of prompted readings. Knows no device and no clock; times in
 * seconds.
 */
@NullMarked
package eagerneedle.core.capture;

import org.jspecify.annotations.NullMarked;
