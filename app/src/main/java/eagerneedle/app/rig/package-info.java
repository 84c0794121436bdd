/** Rig: chains, instruments, outputs and preparation. */
@NullMarked
package eagerneedle.app.rig;

import org.jspecify.annotations.NullMarked;
