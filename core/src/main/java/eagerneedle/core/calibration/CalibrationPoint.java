package eagerneedle.core.calibration;

/**
 * One point: a reference value and the steadied indication at it.
 *
 * @param reference   as a person wrote it, with its own uncertainty: {@code 0.4000(5) m}
 * @param indication  mean of the reading, in the channel's unit, by the chain's nominal transfer
 * @param uIndication standard uncertainty of that mean, same unit
 * @param samples     how many samples it rests on
 * @param steady      whether the reading was steady when it was taken
 */
public record CalibrationPoint(String reference, double indication, double uIndication, int samples, boolean steady) {
}
