/** Events in time: gate edges, what block times and periods follow from them, and counts. Times in seconds. */
@NullMarked
package eagerneedle.core.event;

import org.jspecify.annotations.NullMarked;
