/** Finding anything of the session and the program by words. Knows no view; tested without a window. */
@NullMarked
package eagerneedle.app.find;

import org.jspecify.annotations.NullMarked;
