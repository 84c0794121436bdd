/** Rig: chains, instruments, outputs and preparation. */
package eagerneedle.app.rig;
