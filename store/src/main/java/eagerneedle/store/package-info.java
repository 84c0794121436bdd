/** What is kept in files, each kind in a room of its own: bench files, the stockroom, files from elsewhere, exports. */
@NullMarked
package eagerneedle.store;

import org.jspecify.annotations.NullMarked;
