/**
 * Simulated rigs: physics with a hidden truth, noise, resolution and faults; and stand-ins that serve them over real
 * connections. The only place in the program that knows one experiment from another.
 */
@NullMarked
package eagerneedle.rig.simulated;

import org.jspecify.annotations.NullMarked;
