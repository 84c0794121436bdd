/**
 * Readings taken by eye or hand, built from what really makes them uncertain: each cause a leaf of its own, so that the
 * budget names it and so that what two readings share cancels or adds as it should.
 */
@NullMarked
package eagerneedle.core.reading;

import org.jspecify.annotations.NullMarked;
