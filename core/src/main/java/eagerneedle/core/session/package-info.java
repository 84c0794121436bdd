/**
 * One carrying-out of a method as an immutable value, changed only by {@linkplain eagerneedle.core.session.Command
 * commands}: that gives undo, the notebook and autosave.
 */
@NullMarked
package eagerneedle.core.session;

import org.jspecify.annotations.NullMarked;
