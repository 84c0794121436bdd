/** Talking to instruments: the {@link eagerneedle.rig.driver.Driver} interface and the drivers behind it. */
@NullMarked
package eagerneedle.rig.driver;

import org.jspecify.annotations.NullMarked;
