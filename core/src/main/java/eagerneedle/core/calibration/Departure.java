package eagerneedle.core.calibration;

import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;

/**
 * How far verification points lie from their references, in the channel's unit.
 *
 * @param references reference values
 * @param errors one a point: measurand by the relation less reference
 * @param u combined standard uncertainty of each, the relation's own not included
 * @param largest largest size of the errors; 0 without points
 * @param linearity largest departure of the points taken upwards from their own straight line; NaN for fewer than 3
 * @param hysteresis largest difference between going up and going down at one reference; NaN when there is no such pair
 */
public record Departure(
        double[] references, double[] errors, double[] u, double largest, double linearity, double hysteresis) {
    static Departure of(double[] references, double[] errors, double[] u, List<String> ways) {
        double largest = 0;
        for (double e : errors) {
            largest = Math.max(largest, Math.abs(e));
        }
        return new Departure(
                references,
                errors,
                u,
                largest,
                linearity(references, errors, ways),
                hysteresis(references, errors, ways));
    }

    private static double linearity(double[] references, double[] errors, List<String> ways) {
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < errors.length; i++) {
            if (!"down".equals(ways.get(i))) {
                x.add(Quantity.number(references[i]));
                y.add(Quantity.number(errors[i]));
            }
        }
        if (x.stream().mapToDouble(Quantity::value).distinct().count() < 3) {
            return Double.NaN;
        }
        double most = 0;
        for (double r : PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_RESIDUALS, "linearity", "linearity")
                .residuals()) {
            most = Math.max(most, Math.abs(r));
        }
        return most;
    }

    private static double hysteresis(double[] references, double[] errors, List<String> ways) {
        double most = Double.NaN;
        for (int i = 0; i < errors.length; i++) {
            for (int j = 0; j < errors.length; j++) {
                boolean pair = !"down".equals(ways.get(i))
                        && "down".equals(ways.get(j))
                        && Math.abs(references[i] - references[j]) <= 1e-9 * (1 + Math.abs(references[i]));
                if (pair) {
                    most = Math.max(Double.isNaN(most) ? 0 : most, Math.abs(errors[j] - errors[i]));
                }
            }
        }
        return most;
    }
}
