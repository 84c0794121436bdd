/** Talking to instruments: the {@link eagerneedle.rig.driver.Driver} interface and the drivers behind it. */
package eagerneedle.rig.driver;
