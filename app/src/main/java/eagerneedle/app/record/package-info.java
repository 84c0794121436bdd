/** Record: notebook, photographs, report and export. */
package eagerneedle.app.record;
