/**
 * The laboratory's instruments, sensors, converters, references and specimens: what each is specified to do, and its
 * history.
 */
package eagerneedle.core.stockroom;
