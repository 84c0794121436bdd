/** Eager Needle's window and command line. {@link eagerneedle.app.Launcher} is where it starts. */
@NullMarked
package eagerneedle.app;

import org.jspecify.annotations.NullMarked;
