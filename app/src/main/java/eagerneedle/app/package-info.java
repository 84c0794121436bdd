/** Eager Needle's window and command line. {@link eagerneedle.app.Launcher} is where it starts. */
package eagerneedle.app;
