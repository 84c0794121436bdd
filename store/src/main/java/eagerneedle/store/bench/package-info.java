/**
 * The bench file: one SQLite database that holds a whole session. {@link eagerneedle.store.bench.BenchFile} is the
 * door.
 */
@NullMarked
package eagerneedle.store.bench;

import org.jspecify.annotations.NullMarked;
