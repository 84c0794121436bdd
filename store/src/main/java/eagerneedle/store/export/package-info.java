/** Open formats out: the ledger and runs as CSV, a reduction as JSON. */
package eagerneedle.store.export;
