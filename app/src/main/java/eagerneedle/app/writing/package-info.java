/** The method desk: a sheet as text on the left, what it means on the right. */
package eagerneedle.app.writing;
