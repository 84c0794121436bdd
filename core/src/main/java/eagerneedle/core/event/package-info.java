/** Events in time: gate edges, what block times and periods follow from them, and counts. Times in seconds. */
package eagerneedle.core.event;
