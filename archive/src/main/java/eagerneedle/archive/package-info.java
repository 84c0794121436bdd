/**
 * Years of benches as one data set: Parquet files, written and asked through DuckDB.
 * {@link eagerneedle.archive.Archive} is the folder, {@link eagerneedle.archive.Archiving} fills it,
 * {@link eagerneedle.archive.Asking} asks it.
 */
@NullMarked
package eagerneedle.archive;

import org.jspecify.annotations.NullMarked;
