/** Capture: runs in every mode, live traces and watches, and files brought in. */
package eagerneedle.app.capture;
