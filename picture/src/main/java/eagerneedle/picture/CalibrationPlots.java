package eagerneedle.picture;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Departure;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The plots of a calibration: points with their relation, and how far from it points and verification points lie. */
public final class CalibrationPlots {
    private CalibrationPlots() {}

    private static LabUnit span(Calibration c) {
        LabUnit u = LabUnit.parse(c.unit());
        return u.difference();
    }

    /** Reference against indication with the relation; empty before there are points to draw. */
    public static Optional<Plot> relation(Calibration c, String label) {
        if (c.points().isEmpty() || c.relation() == Relation.CLOSURE) {
            return Optional.empty();
        }
        String unit = LabUnit.parse(c.unit()).pretty();
        List<Layer> layers = new ArrayList<>();
        double[] x =
                c.points().stream().mapToDouble(CalibrationPoint::indication).toArray();
        double[] y = c.references(c.points());
        fitted(c).ifPresent(u -> {
            double low = java.util.Arrays.stream(x).min().orElse(0);
            double high = java.util.Arrays.stream(x).max().orElse(1);
            double pad = high > low ? 0.04 * (high - low) : Math.max(1e-9, Math.abs(low) * 0.1 + 1e-6);
            double[] cx = new double[41];
            double[] cy = new double[41];
            for (int i = 0; i < cx.length; i++) {
                cx[i] = low - pad + (high - low + 2 * pad) * i / 40;
                cy[i] = u.at(cx[i]).value();
            }
            layers.add(new Layer.Curve(u.relation().label(), cx, cy, Ink.INK, 1.4, false));
            layers.add(new Layer.Legend(
                    List.of(Layer.Entry.of(u.relation() == Relation.ADJUSTED ? "one to one" : words(u))),
                    Layer.Corner.TOP_LEFT));
        });
        layers.add(new Layer.Points("points", x, y, null, false, 0));
        if (!c.verification().isEmpty()) {
            layers.add(new Layer.Points(
                    "verification",
                    c.verification().stream()
                            .mapToDouble(CalibrationPoint::indication)
                            .toArray(),
                    c.references(c.verification()),
                    null,
                    true,
                    1));
        }
        return Optional.of(new Plot(
                "Calibration of " + label,
                new Plot.Axis("indication", unit),
                new Plot.Axis("reference value", unit),
                layers));
    }

    /** The calibration when its relation can be computed; empty otherwise. */
    public static Optional<Calibration> fitted(Calibration c) {
        try {
            c.check();
            return c.relation() == Relation.CLOSURE ? Optional.empty() : Optional.of(c);
        } catch (FitException e) {
            return Optional.empty();
        }
    }

    /** The relation in a few words: "offset −0.12(3) K", "slope 1.0123(12)". */
    public static String words(Calibration c) {
        return switch (c.relation()) {
            case OFFSET -> "offset " + c.coefficients().get(0);
            case FACTOR -> "factor " + c.coefficients().get(1);
            case ADJUSTED ->
                "one to one, set to "
                        + Notation.figures(c.at(c.points().get(1).indication()).u(), 2) + " " + span(c).pretty()
                        + " at full load";
            case CLOSURE -> "both circles closed";
            default -> "slope " + c.coefficients().get(1);
        };
    }

    /**
     * Residuals of the points and errors of the verification points, with the tolerance as two lines; empty before the
     * relation is known.
     */
    public static Optional<Plot> departures(Calibration c, String label) {
        Calibration known = fitted(c).orElse(null);
        if (known == null) {
            return Optional.empty();
        }
        LabUnit span = span(c);
        Departure d = known.departure();
        double[] refs = known.references(known.points());
        double[] r = new double[refs.length];
        double[] u = new double[refs.length];
        Fit fit = known.relation() == Relation.ADJUSTED || known.relation() == Relation.OFFSET ? null : known.fit();
        double largest = known.tolerance() == null ? d.largest() : Math.max(d.largest(), known.tolerance());
        for (int i = 0; i < r.length; i++) {
            double value = known.at(known.points().get(i).indication()).value();
            r[i] = fit == null ? refs[i] - value : fit.residuals()[i];
            u[i] = Math.hypot(
                    known.referenceUncertainty(i), known.points().get(i).uIndication());
            largest = Math.max(largest, Math.abs(r[i]) + u[i]);
        }
        double scale = largest > 0 && largest < 0.05 ? 1000 : 1;
        String unit = scale == 1
                ? span.pretty()
                : span.symbol().equals("m") ? "mm" : span.pretty().isEmpty() ? "10⁻³" : "10⁻³ " + span.pretty();
        List<Layer> layers = new ArrayList<>();
        layers.add(new Layer.Level(0, Ink.QUIET));
        if (known.tolerance() != null) {
            layers.add(new Layer.Level(known.tolerance() * scale, Ink.GOOD));
            layers.add(new Layer.Level(-known.tolerance() * scale, Ink.GOOD));
        }
        layers.add(new Layer.Points("residual", refs, scaled(r, scale), scaled(u, scale), false, 0));
        if (d.errors().length > 0) {
            layers.add(new Layer.Points(
                    "verification", d.references(), scaled(d.errors(), -scale), scaled(d.u(), scale), false, 1));
            layers.add(new Layer.Legend(
                    List.of(new Layer.Entry("points", 0), new Layer.Entry("verification", 1)), Layer.Corner.TOP_RIGHT));
        }
        return Optional.of(new Plot(
                "Residuals of " + label,
                new Plot.Axis("reference value", LabUnit.parse(c.unit()).pretty()),
                new Plot.Axis("residual", unit),
                layers));
    }

    private static double[] scaled(double[] v, double k) {
        double[] out = new double[v.length];
        for (int i = 0; i < v.length; i++) {
            out[i] = v[i] * k;
        }
        return out;
    }
}
