/** Reduce: windows, fits, models and tables of runs. */
package eagerneedle.app.reduce;
