/**
 * The command line: one class per command, each printing results on standard output and one-line reasons on standard
 * error.
 */
package eagerneedle.app.command;
