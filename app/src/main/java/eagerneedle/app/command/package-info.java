/**
 * The command line: one class per command, each printing results on standard output and one-line reasons on standard
 * error.
 */
@NullMarked
package eagerneedle.app.command;

import org.jspecify.annotations.NullMarked;
