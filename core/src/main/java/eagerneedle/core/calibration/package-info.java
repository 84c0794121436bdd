/** Finding the relation between indication and measurand, with its covariance, and keeping it. */
package eagerneedle.core.calibration;
