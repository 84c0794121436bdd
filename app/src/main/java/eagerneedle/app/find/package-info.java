/** Finding anything of the session and the program by words. Knows no view; tested without a window. */
package eagerneedle.app.find;
