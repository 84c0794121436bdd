/**
 * The open session with its history and reduction, the instrument that is connected, readings brought in, and where
 * sessions are kept. Knows no widget: everything here is tested without a window.
 */
package eagerneedle.app.workbench;
