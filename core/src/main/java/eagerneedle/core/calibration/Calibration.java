package eagerneedle.core.calibration;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.trace.Trace;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * A calibration of one channel by reference values: measurand = intercept + slope × indication.
 *
 * <p>The line is fitted to the reference value against the indication, so that it is applied without inversion, weighted by the
 * uncertainties of both (effective variance). It is stored with its points and applied on reading, never on writing.
 *
 * @param id         identity within the session
 * @param channel    which channel
 * @param kind       what was done, for instance "known length"
 * @param unit       symbol of the channel's unit
 * @param points     at least {@value #FEWEST}
 * @param taken      when
 * @param due        when it must be done again
 * @param by         who
 * @param conditions what else a reader should know
 */
public record Calibration(String id, String channel, String kind, String unit, List<CalibrationPoint> points, Instant taken, Instant due, String by,
                          String conditions) {
    public static final int FEWEST = 4;

    public Calibration {
        points = List.copyOf(points);
    }

    /**
     * The fitted line; parameter 0 is the intercept in the channel's unit, parameter 1 the slope, a pure number.
     *
     * @throws FitException when there are fewer than {@value #FEWEST} points
     */
    public Fit fit() {
        if (points.size() < FEWEST) {
            throw new FitException("A calibration line needs at least " + FEWEST + " points; there " + (points.size() == 1 ? "is 1." : "are " + points.size() + "."));
        }
        LabUnit u = LabUnit.parse(unit);
        List<Quantity> references = new ArrayList<>();
        List<Quantity> indications = new ArrayList<>();
        for (int i = 0; i < points.size(); i++) {
            CalibrationPoint p = points.get(i);
            String root = "calibration:" + id + "/" + i;
            references.add(Reading.parse(p.reference()).toQuantity(root + "/reference", channel + " calibration: reference values", kind).to(u));
            indications.add(Quantity.of(p.indication(), p.uIndication(), u,
                    Leaf.typeA(root + "/indication", channel + " calibration: indications", kind, Math.max(1, p.samples() - 1))));
        }
        return PolynomialFit.ofPoints(indications, references, 1, Scatter.FROM_UNCERTAINTIES, "calibration:" + id, channel + " calibration");
    }

    /** A trace of nominal indications turned into the measurand; all samples share the line's uncertainty. */
    public Trace apply(Trace indicated) {
        Fit line = fit();
        Quantity a = line.parameter(0).to(indicated.unit());
        Quantity b = line.parameter(1);
        double[] v = new double[indicated.size()];
        for (int i = 0; i < v.length; i++) {
            v[i] = a.value() + b.value() * indicated.value()[i];
        }
        List<Trace.Shared> shared = new ArrayList<>();
        Set<Leaf> leaves = new TreeSet<>(a.contributions().keySet());
        leaves.addAll(b.contributions().keySet());
        for (Leaf leaf : leaves) {
            double ca = a.contribution(leaf);
            double cb = b.contribution(leaf);
            shared.add(new Trace.Shared(leaf, value -> ca + cb * (value - a.value()) / b.value()));
        }
        return new Trace(indicated.name(), indicated.time(), v, indicated.unit(), indicated.step() * Math.abs(b.value()), shared);
    }

    public boolean overdue(Instant now) {
        return now.isAfter(due);
    }
}
