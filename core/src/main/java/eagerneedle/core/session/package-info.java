/**
 * One carrying-out of a method as an immutable value, changed only by {@linkplain eagerneedle.core.session.Command
 * commands}: that gives undo, the notebook and autosave.
 */
package eagerneedle.core.session;
