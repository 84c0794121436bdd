/**
 * What the window shows, without a window: the open session with its history and reduction, and the instrument that is
 * connected. Tested without JavaFX.
 */
package eagerneedle.app.bench;
