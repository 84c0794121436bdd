/** The one canvas plot of the window, and the surface that all pictures paint on. */
package eagerneedle.app.plot;
