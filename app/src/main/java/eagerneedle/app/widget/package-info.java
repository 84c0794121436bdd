/**
 * Small parts of every view: words in their sizes, sentences to the person, files asked for, the theme, cards of steps,
 * typed readings.
 */
package eagerneedle.app.widget;
