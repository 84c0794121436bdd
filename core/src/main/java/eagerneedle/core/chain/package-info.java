/**
 * What turns a measurand into counts and back: sensor, conditioner and converter, composed in a
 * {@link eagerneedle.core.chain.Chain}.
 */
@NullMarked
package eagerneedle.core.chain;

import org.jspecify.annotations.NullMarked;
