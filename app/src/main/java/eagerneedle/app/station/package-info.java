/** One class per station: each builds its work surface and keeps it true to the open session. */
package eagerneedle.app.station;
