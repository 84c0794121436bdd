/** Calibrate: by points, by adjusting, by closing circles, and actual values of inputs. */
package eagerneedle.app.calibrate;
