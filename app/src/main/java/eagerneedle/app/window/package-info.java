/** The frame of the window: course dial, ledger, watch strip, theme. */
package eagerneedle.app.window;
