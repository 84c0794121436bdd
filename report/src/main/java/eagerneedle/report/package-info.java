/** From a session to pictures and documents. {@link eagerneedle.report.HtmlReport} writes the report, {@link eagerneedle.report.SessionPlots} its plots. */
package eagerneedle.report;
