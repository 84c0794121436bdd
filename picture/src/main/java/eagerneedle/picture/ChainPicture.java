package eagerneedle.picture;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Stage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.trace.Trace;
import eagerneedle.picture.Surface.Align;
import org.jspecify.annotations.Nullable;

/**
 * A chain as a ribbon: each stage with its transfer, uncertainty, step and reach; under it what is needed against what
 * can be reached, to scale.
 */
public final class ChainPicture {
    private static final double STAGE_HEIGHT = 80;

    private ChainPicture() {}

    /**
     * Paints the ribbon.
     *
     * @param at a value of the measurand at which transfers and steps are told
     * @return where the ribbon ends, in x
     */
    public static double ribbon(Surface s, Chain chain, double at, double x, double y, double w) {
        int n = chain.stages().size() + 1;
        double wide = Math.min(214, (w - 5.0 * (n - 1)) / n);
        double stepAtInput = chain.stepAt(at);
        double[] reach = chain.reach();
        for (int i = 0; i < n; i++) {
            boolean last = i == n - 1;
            Stage stage = last ? null : chain.stages().get(i);
            double signal = chain.signal(at, i);
            LabUnit unit = stage == null ? chain.converter().input() : stage.input();
            double step = stage == null
                    ? chain.converter().step()
                    : Math.abs(chain.signal(at + stepAtInput / 2, i) - chain.signal(at - stepAtInput / 2, i));
            String kind = stage == null ? "converter" : stage.kind();
            String transfer = stage == null ? chain.converter().transfer() : stage.transfer(signal);
            double a = stage == null
                    ? chain.converter().input(chain.converter().lowestCount())
                    : chain.signal(reach[0], i);
            double b = stage == null
                    ? chain.converter().input(chain.converter().highestCount())
                    : chain.signal(reach[1], i);
            boolean twoStates = last && chain.converter().bits() == 1;
            String limits = twoStates
                    ? Notation.plain(a, 2) + " or " + Printed.plain(b, 2, unit)
                    : "step " + Printed.plain(step, 2, unit.difference()) + ", " + Notation.plain(Math.min(a, b), 2)
                            + " to " + Printed.plain(Math.max(a, b), 2, unit);
            String label = stage == null ? chain.converter().label() : stage.label();
            double u = Math.sqrt(chain.shared().stream()
                    .filter(q -> q.leaf().source().equals(label))
                    .mapToDouble(q -> Math.pow(q.contribution().applyAsDouble(at), 2))
                    .sum());
            String known = u > 0 ? "u " + Printed.plain(u, 2, chain.unit().difference()) : "";
            stage(
                    s,
                    x,
                    y,
                    wide,
                    kind,
                    known,
                    stage == null ? chain.converter().label() : stage.label(),
                    transfer,
                    limits,
                    i > 0);
            x += wide + 5;
        }
        return x;
    }

    private static void stage(
            Surface s,
            double x,
            double y,
            double w,
            String kind,
            String known,
            String label,
            String transfer,
            String limits,
            boolean notched) {
        double nose = 9;
        double h = STAGE_HEIGHT;
        s.polygon(
                new double[] {x, x + w - nose, x + w, x + w - nose, x, x + (notched ? nose : 0)},
                new double[] {y, y, y + h / 2, y + h, y + h, y + h / 2},
                Ink.REACH);
        double in = w - 34;
        s.text(kind, x + 18, y + 16, Align.LEFT, Lettering.text(11.5), Ink.QUIET);
        s.text(known, x + w - 16, y + 16, Align.RIGHT, Lettering.text(11), Ink.QUIET);
        s.text(BudgetPicture.fitting(s, label, in), x + 18, y + 33, Align.LEFT, Lettering.text(12.5), Ink.INK);
        s.text(BudgetPicture.fitting(s, transfer, in), x + 18, y + 50, Align.LEFT, Lettering.figures(11.5), Ink.TRACE1);
        s.text(
                BudgetPicture.fitting(s, limits, in, Lettering.text(11)),
                x + 18,
                y + 68,
                Align.LEFT,
                Lettering.text(11),
                Ink.QUIET);
    }

    /**
     * Paints reach and need to scale over an axis, and the present reading as a red mark ({@code live} NaN for none).
     */
    public static void reach(
            Surface s, Chain chain, double @Nullable [] needed, double live, double x, double y, double w) {
        double[] reach = chain.reach();
        double low = needed == null
                ? reach[0]
                : Math.min(needed[0], Math.max(reach[0], needed[0] - 4 * (needed[1] - needed[0])));
        double high = needed == null
                ? reach[1]
                : Math.max(needed[1], Math.min(reach[1], needed[1] + 4 * (needed[1] - needed[0])));
        double margin = (high - low) * 0.06;
        java.util.function.DoubleUnaryOperator px = v -> x + (v - low + margin) / (high - low + 2 * margin) * w;
        double a = px.applyAsDouble(Math.max(reach[0], low - margin));
        double b = px.applyAsDouble(Math.min(reach[1], high + margin));
        s.rectangle(a, y, Math.max(1, b - a), 15, Ink.REACH, null, 4);
        if (needed != null) {
            double na = px.applyAsDouble(needed[0]);
            double nb = px.applyAsDouble(needed[1]);
            boolean holds = needed[0] >= reach[0] && needed[1] <= reach[1];
            s.rectangle(na, y, nb - na, 15, holds ? Ink.BAND : Ink.WINDOW, holds ? null : Ink.NEEDLE, 0);
            if (nb - na > 60) {
                s.text(
                        "needed",
                        (na + nb) / 2,
                        y + 11.5,
                        Align.CENTRE,
                        Lettering.text(11),
                        holds ? Ink.GOOD : Ink.NEEDLE);
            }
        }
        for (double t : PlotPainter.ticks(low, high, 6)) {
            double p = px.applyAsDouble(t);
            s.line(p, y + 15, p, y + 20, Ink.QUIET, 1);
            s.text(Notation.plain(t, 3), p, y + 33, Align.CENTRE, Lettering.figures(11), Ink.QUIET);
        }
        s.text(chain.unit().pretty(), x + w + 6, y + 33, Align.LEFT, Lettering.text(11), Ink.QUIET);
        if (!Double.isNaN(live)) {
            double p = Math.max(x, Math.min(x + w, px.applyAsDouble(live)));
            s.polygon(new double[] {p - 5, p + 5, p}, new double[] {y - 9, y - 9, y}, Ink.NEEDLE);
        }
    }

    /**
     * Standard uncertainty of one indication by the chain alone, in its unit of differences, at a value of the
     * measurand.
     */
    public static double uncertainty(Chain chain, double at) {
        double sum = Math.pow(chain.stepAt(at), 2) / 12;
        for (Trace.Shared shared : chain.shared()) {
            sum += Math.pow(shared.contribution().applyAsDouble(at), 2);
        }
        return Math.sqrt(sum);
    }
}
