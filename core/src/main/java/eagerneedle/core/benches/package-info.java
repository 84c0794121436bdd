/**
 * Several benches of one method held together: what they give in common is a {@link eagerneedle.core.benches.Benches},
 * and by what one of them differs from the others its {@link eagerneedle.core.benches.Cause}s.
 */
@NullMarked
package eagerneedle.core.benches;

import org.jspecify.annotations.NullMarked;
