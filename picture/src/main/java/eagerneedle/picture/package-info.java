/**
 * Pictures as code, drawn once for screen and paper: every picture paints itself on a
 * {@link eagerneedle.picture.Surface}, which is an SVG document here and a canvas in the window.
 */
@NullMarked
package eagerneedle.picture;

import org.jspecify.annotations.NullMarked;
