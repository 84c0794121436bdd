/** All benches of one method on one picture, from a folder into which each publishes a closed copy. */
@NullMarked
package eagerneedle.app.benches;

import org.jspecify.annotations.NullMarked;
