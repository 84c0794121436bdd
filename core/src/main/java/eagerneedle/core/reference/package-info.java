/**
 * Published reference functions: thermocouples (ITS-90), platinum resistance (IEC 60751), thermistors (Steinhart and
 * Hart), moist air (CIPM-2007). Each takes and gives quantities, with exact derivatives, and refuses arguments outside
 * its published range.
 */
@NullMarked
package eagerneedle.core.reference;

import org.jspecify.annotations.NullMarked;
