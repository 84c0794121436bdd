/**
 * Readings by eye: built from what makes them uncertain, before the face of the instrument, or picked on a picture.
 * {@link eagerneedle.app.eye.ReadingField} is the field in which any of them is typed.
 */
@NullMarked
package eagerneedle.app.eye;

import org.jspecify.annotations.NullMarked;
