/** The day: what a laboratory afternoon needs from the stockroom, its rota, and its pages. */
@NullMarked
package eagerneedle.app.day;

import org.jspecify.annotations.NullMarked;
