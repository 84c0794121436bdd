/** The stockroom: the instruments of the laboratory with their specifications and dates. */
package eagerneedle.app.stockroom;
