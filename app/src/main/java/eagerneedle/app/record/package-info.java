/** Record: notebook, photographs, report and export. */
@NullMarked
package eagerneedle.app.record;

import org.jspecify.annotations.NullMarked;
