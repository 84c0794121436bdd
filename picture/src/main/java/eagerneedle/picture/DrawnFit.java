package eagerneedle.picture;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * A fit as it is drawn: its curve, the band of 95 % about it, and what a legend says of it. All three come from one
 * fit, so that a legend cannot speak of another curve than the one under it.
 *
 * @param band where the curve lies with a probability of 95 %
 * @param curve the curve itself
 */
record DrawnFit(Fit fit, Layer.Band band, Layer.Curve curve) {
    private static final int STEPS = 40;
    private static final int FEW_PARAMETERS = 4;

    /** Through the points that were fitted, in the units of the fit. */
    static DrawnFit throughPoints(Fit f) {
        double[] x = f.x();
        return new DrawnFit(
                f,
                band(f, x[0], x[x.length - 1], f.xUnit(), f.yUnit()),
                new Layer.Curve(f.model(), x, f.fitted(), Ink.INK, 1.4, false));
    }

    /**
     * Along the abscissae given, and from 0 where they begin near it, in the units of a picture.
     *
     * @param byFactors true for steps that are as wide on a logarithmic axis
     */
    static DrawnFit along(Fit f, List<Quantity> abscissae, LabUnit xUnit, LabUnit yUnit, boolean byFactors) {
        double least =
                abscissae.stream().mapToDouble(q -> q.in(f.xUnit())).min().orElse(0);
        double most = abscissae.stream().mapToDouble(q -> q.in(f.xUnit())).max().orElse(1);
        boolean factors = byFactors && least > 0;
        double from = !factors && least > 0 && least < 0.5 * most ? 0 : least;
        int n = !factors && f.isPolynomial() && f.parameters().size() <= 2 ? 2 : 80;
        double[] x = new double[n];
        double[] y = new double[n];
        double to = from + (most - from) * 1.02;
        int there = 0;
        for (int i = 0; i < n; i++) {
            double at = factors ? from * Math.pow(to / from, (double) i / (n - 1)) : from + (to - from) * i / (n - 1);
            double v = f.at(at).in(yUnit);
            // A law need not have a value where its data end.
            if (Double.isFinite(v)) {
                x[there] = f.xUnit().convert(at, xUnit);
                y[there++] = v;
            }
        }
        Layer.Curve curve =
                new Layer.Curve("fit", Arrays.copyOf(x, there), Arrays.copyOf(y, there), Ink.INK, 1.4, false);
        return new DrawnFit(f, band(f, from, to, xUnit, yUnit), curve);
    }

    /** With the abscissa upright; a band across is not drawn. */
    DrawnFit swapped() {
        return new DrawnFit(
                fit,
                new Layer.Band("", new double[0], new double[0], new double[0]),
                new Layer.Curve(curve.name(), curve.y(), curve.x(), curve.ink(), curve.width(), curve.dashed()));
    }

    private static Layer.Band band(Fit f, double from, double to, LabUnit xUnit, LabUnit yUnit) {
        double[] x = new double[STEPS + 1];
        double[] low = new double[STEPS + 1];
        double[] high = new double[STEPS + 1];
        int there = 0;
        for (int i = 0; i <= STEPS; i++) {
            double at = from + (to - from) * i / STEPS;
            Quantity q = f.at(at).to(yUnit);
            double expanded = Coverage.DEFAULT.expanded(q);
            if (Double.isFinite(q.value()) && Double.isFinite(expanded)) {
                x[there] = f.xUnit().convert(at, xUnit);
                low[there] = q.value() - expanded;
                high[there++] = q.value() + expanded;
            }
        }
        return new Layer.Band(
                "95 % band of the curve",
                Arrays.copyOf(x, there), Arrays.copyOf(low, there), Arrays.copyOf(high, there));
    }

    /**
     * What a legend says of it: slope and intercept of a straight line, the parameters of any other curve.
     *
     * @param of begins the first line, to tell several fits apart
     * @param brief true for one line
     * @param slopeUnit in which a slope is given elsewhere
     */
    List<String> says(String of, boolean brief, LabUnit xUnit, LabUnit yUnit, Optional<LabUnit> slopeUnit) {
        if (fit.isPolynomial() && fit.parameters().size() == 2) {
            LabUnit own = yUnit.coherent().per(xUnit.coherent());
            String slope = of + "slope "
                    + Printed.of(fit.parameter(1).to(slopeUnit.filter(own::fits).orElse(own)))
                            .text();
            return brief
                    ? List.of(slope)
                    : List.of(
                            slope,
                            "intercept "
                                    + Printed.of(fit.parameter(0).to(yUnit)).text());
        }
        List<String> out = new ArrayList<>();
        for (int k = 0; k < Math.min(FEW_PARAMETERS, fit.parameters().size()); k++) {
            out.add((k == 0 ? of : "") + fit.names().get(k) + " "
                    + Printed.of(fit.parameter(k)).text());
        }
        return brief ? List.of(String.join(", ", out)) : out;
    }
}
