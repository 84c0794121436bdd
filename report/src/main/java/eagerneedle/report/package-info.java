/**
 * From a session to pictures and documents. {@link eagerneedle.report.SessionReport} writes the report,
 * {@link eagerneedle.report.SessionPlots} its plots.
 */
@NullMarked
package eagerneedle.report;

import org.jspecify.annotations.NullMarked;
