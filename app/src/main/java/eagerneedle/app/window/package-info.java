/** The frame of the window: course dial, ledger, watch strip, finder, start page. It alone knows all stations. */
package eagerneedle.app.window;
