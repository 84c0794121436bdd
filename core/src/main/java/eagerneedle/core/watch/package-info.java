/** Rules that look at live or stored samples and warn, each with a likely cause and a remedy. */
package eagerneedle.core.watch;
