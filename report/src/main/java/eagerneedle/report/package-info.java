/**
 * From a session to pictures and documents. {@link eagerneedle.report.SessionReport} writes the report,
 * {@link eagerneedle.report.SessionPlots} its plots.
 */
package eagerneedle.report;
