/** Reduce: windows, fits, models and tables of runs. */
@NullMarked
package eagerneedle.app.reduce;

import org.jspecify.annotations.NullMarked;
