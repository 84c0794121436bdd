/**
 * Finding the relation between indication and measurand, with its covariance, and keeping it.
 * {@link eagerneedle.core.calibration.Calibration} holds points and relation;
 * {@link eagerneedle.core.calibration.TrimAdvisor} leads an adjustment of two trims;
 * {@link eagerneedle.core.calibration.ClosureReadings} closes divided circles.
 */
@NullMarked
package eagerneedle.core.calibration;

import org.jspecify.annotations.NullMarked;
