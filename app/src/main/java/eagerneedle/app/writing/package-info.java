/** The method desk: a sheet as text on the left, what it means on the right. */
@NullMarked
package eagerneedle.app.writing;

import org.jspecify.annotations.NullMarked;
