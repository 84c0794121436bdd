/**
 * Small parts of every view: words in their sizes, sentences to the person, files asked for, the theme, cards of steps,
 * typed readings.
 */
@NullMarked
package eagerneedle.app.widget;

import org.jspecify.annotations.NullMarked;
