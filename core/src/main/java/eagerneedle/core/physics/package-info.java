/**
 * The physics of a rig, simulated forwards from causes to what a sensor is shown: formulas of a sheet compiled to
 * arithmetic on doubles in coherent units, draws that are keyed by where they stand, rate equations, and events found
 * to their moment.
 */
@NullMarked
package eagerneedle.core.physics;

import org.jspecify.annotations.NullMarked;
