/** Open formats out: the ledger and runs as CSV, a reduction as JSON. */
@NullMarked
package eagerneedle.store.export;

import org.jspecify.annotations.NullMarked;
