/**
 * The open session with its history and reduction, the instrument that is connected, readings brought in, and where
 * sessions are kept. Knows no widget: everything here is tested without a window.
 */
@NullMarked
package eagerneedle.app.workbench;

import org.jspecify.annotations.NullMarked;
