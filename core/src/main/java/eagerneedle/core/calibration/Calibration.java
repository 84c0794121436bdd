package eagerneedle.core.calibration;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A calibration of one channel: reference values, indications, and the relation between them.
 *
 * <p>A relation gives the reference value from the indication, so that it is applied without inversion. Lines and
 * curves are weighted by the uncertainties of both sides (effective variance; ISO/TS 28037). It is stored with its
 * points and applied on reading, never on writing, so that a later calibration reaches runs that were captured before
 * it.
 *
 * @param id identity within the session
 * @param channel which channel
 * @param kind what was done, for instance "known length"
 * @param relation what kind of relation; null for a straight line
 * @param unit symbol of the channel's unit
 * @param points what the relation is found from
 * @param verification points that test it and take no part in it
 * @param tolerance largest error allowed at a verification point, in {@code unit}; null when none is stated
 * @param closure readings of a circle closure; null for other kinds
 * @param taken when
 * @param due when it must be done again
 * @param by who
 * @param reference against which reference
 * @param conditions what else a reader should know
 * @param after the check after use, null while there is none
 * @param chain serials of the instruments in the channel's chain when it was taken; null where that was not kept, and
 *     then it holds whatever is in the chain
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Calibration(
        String id,
        String channel,
        String kind,
        Relation relation,
        String unit,
        List<CalibrationPoint> points,
        List<CalibrationPoint> verification,
        @Nullable Double tolerance,
        @Nullable ClosureReadings closure,
        Instant taken,
        Instant due,
        String by,
        String reference,
        String conditions,
        @Nullable AfterUse after,
        @Nullable List<String> chain) {
    public Calibration {
        chain = chain == null ? null : List.copyOf(chain);
        relation = relation == null ? Relation.LINE : relation;
        points = List.copyOf(points);
        verification = verification == null ? List.of() : List.copyOf(verification);
    }

    /** A straight line without verification points. */
    public static Calibration line(
            String id,
            String channel,
            String kind,
            String unit,
            List<CalibrationPoint> points,
            Instant taken,
            Instant due,
            String by,
            String conditions) {
        return new Calibration(
                id,
                channel,
                kind,
                Relation.LINE,
                unit,
                points,
                List.of(),
                null,
                null,
                taken,
                due,
                by,
                "",
                conditions,
                null,
                null);
    }

    /** The same, taken of a chain of these instruments. */
    public Calibration ofChain(List<String> serials) {
        return with(channel, points, verification, after, serials);
    }

    /** True where it speaks of a chain of these instruments. */
    public boolean speaksOf(List<String> serials) {
        return chain == null || chain.equals(serials);
    }

    /**
     * The same with some references put right.
     *
     * @param right what a reference is in truth, given its point and what it was taken to be; empty where it was right
     */
    public Calibration corrected(Corrected right) {
        return with(
                channel,
                corrected(points, "", right),
                corrected(verification, "verification", right),
                after == null
                        ? null
                        : new AfterUse(after.taken(), corrected(after.points(), "after", right), after.use()),
                chain);
    }

    private List<CalibrationPoint> corrected(List<CalibrationPoint> list, String part, Corrected right) {
        List<CalibrationPoint> out = new ArrayList<>();
        for (CalibrationPoint p : list) {
            Quantity was = asTaken(list, out.size(), part);
            out.add(right.of(p, was).map(p::corrected).orElse(p));
        }
        return out;
    }

    /** The same, its influences called by what people call the channel. */
    public Calibration called(String label) {
        return with(label, points, verification, after, chain);
    }

    public Calibration withAfter(AfterUse check) {
        return with(channel, points, verification, check, chain);
    }

    private Calibration with(
            String called,
            List<CalibrationPoint> against,
            List<CalibrationPoint> tested,
            @Nullable AfterUse check,
            @Nullable List<String> serials) {
        return new Calibration(
                id,
                called,
                kind,
                relation,
                unit,
                against,
                tested,
                tolerance,
                closure,
                taken,
                due,
                by,
                reference,
                conditions,
                check,
                serials);
    }

    /** Unit of differences, in which everything is computed: kelvin for a temperature. */
    LabUnit span() {
        LabUnit u = LabUnit.parse(unit);
        return u.difference();
    }

    /** The reference value of a point with its uncertainty, in {@link #unit()}. */
    public Quantity referenceOf(int point) {
        return asTaken(points, point, "").to(LabUnit.parse(unit));
    }

    /** A reference value as it was taken to be, in the unit it was written in. */
    private Quantity asTaken(List<CalibrationPoint> list, int i, String part) {
        return list.get(i)
                .referenceQuantity(
                        "calibration:" + id + "/" + part + i,
                        channel + " calibration: reference values",
                        reference == null || reference.isBlank() ? kind : reference);
    }

    Quantity reference(List<CalibrationPoint> list, int i, String part) {
        Quantity q = asTaken(list, i, part);
        LabUnit u = LabUnit.parse(unit);
        return u.isAffine() ? q.to(u).minus(Quantity.exact(0, u)) : q.to(u);
    }

    private Quantity indication(List<CalibrationPoint> list, int i, String part) {
        CalibrationPoint p = list.get(i);
        if (!Double.isFinite(p.indication()) || !Double.isFinite(p.uIndication())) {
            throw new FitException("At " + p.reference() + " " + channel
                    + " shows nothing that its sensor could give: a lead is open, or its chain is not that of the sheet. "
                    + "Look at it at Rig, then take that point again.");
        }
        String leaf = "calibration:" + id + "/" + part + i + "/indication";
        String label = channel + " calibration: indications";
        return Quantity.of(
                p.indication(),
                p.uIndication(),
                span(),
                p.samples() == 0
                        ? Leaf.typeB(leaf, label, kind, Distribution.NORMAL)
                        : Leaf.typeA(leaf, label, kind, Math.max(1, p.samples() - 1)));
    }

    /**
     * The fitted relation: reference value against indication. Parameter k is the coefficient of the k-th power (an
     * offset alone for {@link Relation#OFFSET}); temperatures count in kelvin from the zero of their scale.
     *
     * @throws FitException when there are too few points or they do not determine it
     */
    public Fit fit() {
        if (points.size() < relation.fewest()) {
            throw new FitException("A calibration by " + relation.article() + " needs at least " + relation.fewest()
                    + (relation.fewest() == 1 ? " point" : " points") + "; there "
                    + (points.size() == 1 ? "is 1." : "are " + points.size() + "."));
        }
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < points.size(); i++) {
            x.add(indication(points, i, ""));
            y.add(reference(points, i, ""));
        }
        return relation.through(x, y, "calibration:" + id, channel + " calibration");
    }

    /** Reference values of a list of points, in {@link #unit()}. */
    public double[] references(List<CalibrationPoint> list) {
        double[] v = new double[list.size()];
        for (int i = 0; i < v.length; i++) {
            v[i] = reference(list, i, "").value();
        }
        return v;
    }

    /**
     * Standard uncertainty of the reference value of point i, in {@link #unit()} (a temperature difference in kelvin).
     */
    public double referenceUncertainty(int i) {
        return reference(points, i, "").u();
    }

    /**
     * What the readings of a circle closure say; only for a calibration of that kind.
     *
     * @throws FitException when the readings are too few, or do not hang together
     */
    public ClosureReadings.Solution closed() {
        return circles().solve(id);
    }

    /** The readings of a circle closure; only for a calibration of that kind. */
    public ClosureReadings circles() {
        return Objects.requireNonNull(closure, "readings of the circles");
    }

    /** Throws as {@link #fit()} does when the calibration cannot be used. */
    public void check() {
        if (relation == Relation.CLOSURE) {
            closed();
        } else if (relation == Relation.ADJUSTED) {
            if (points.size() < relation.fewest()) {
                throw new FitException("Zero and span must both have been read once they hold.");
            }
        } else {
            fit();
        }
    }

    /** Coefficients of the relation by power of the indication; temperatures in kelvin from the zero of their scale. */
    public List<Quantity> coefficients() {
        Quantity none = Quantity.exact(0, span());
        return switch (relation) {
            case OFFSET -> List.of(fit().parameter(0), Quantity.number(1));
            case FACTOR -> List.of(none, fit().parameter(0));
            case ADJUSTED -> adjusted();
            case CLOSURE -> List.of(none, Quantity.number(1));
            default -> fit().parameters();
        };
    }

    /**
     * What remains uncertain of an indicator that was adjusted: how well the zero and the span were set; the relation
     * itself is taken as one to one.
     */
    private List<Quantity> adjusted() {
        Quantity zero = reference(points, 0, "").minus(indication(points, 0, ""));
        Quantity full = reference(points, 1, "").minus(indication(points, 1, ""));
        double reach = points.get(1).indication() - points.get(0).indication();
        Quantity slope = full.minus(zero).scaled(1 / reach);
        Quantity offset = zero.minus(slope.scaled(points.get(0).indication()));
        return List.of(offset.withValue(0), slope.mapped(1, LabUnit.ONE, 1));
    }

    /** The measurand at an indication, with everything the calibration leaves uncertain. */
    public Quantity at(double indicated) {
        return new Conversion(this).at(indicated);
    }

    /** A trace of nominal indications turned into the measurand; all samples share the relation's uncertainty. */
    public Trace apply(Trace indicated) {
        return new Conversion(this).apply(indicated, null, null);
    }

    /**
     * The drift found after use: mean error of the check points by this calibration, in {@link #unit()}; empty without
     * a check.
     */
    public Optional<Quantity> driftFound() {
        return new Conversion(this).driftFound();
    }

    /** What the verification points say. */
    public Departure departure() {
        int n = verification.size();
        double[] references = new double[n];
        double[] errors = new double[n];
        double[] u = new double[n];
        double[] p = n == 0 ? new double[0] : Conversion.numbers(coefficients(), span());
        for (int i = 0; i < n; i++) {
            Quantity reference = reference(verification, i, "verification");
            references[i] = reference.value();
            errors[i] = Conversion.value(p, verification.get(i).indication()) - references[i];
            u[i] = Math.hypot(reference.u(), verification.get(i).uIndication());
        }
        return Departure.of(
                references,
                errors,
                u,
                verification.stream().map(v -> v.way() == null ? "" : v.way()).toList());
    }

    /**
     * Range of the reference values the relation was found over, in {@link #unit()}: beyond it the relation is not
     * known.
     */
    public double[] validRange() {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < points.size(); i++) {
            double r = reference(points, i, "").value();
            low = Math.min(low, r);
            high = Math.max(high, r);
        }
        for (int i = 0; i < verification.size(); i++) {
            double r = reference(verification, i, "verification").value();
            low = Math.min(low, r);
            high = Math.max(high, r);
        }
        return new double[] {low, high};
    }

    /** Why the calibration failed its verification: one sentence; empty when it passed or there is nothing to fail. */
    public Optional<String> failure() {
        Departure d = departure();
        for (int i = 0; i < d.errors().length; i++) {
            double allowed = tolerance != null
                    ? tolerance
                    : 3
                            * Math.hypot(
                                    d.u()[i],
                                    relation == Relation.ADJUSTED
                                            ? 0
                                            : at(verification.get(i).indication())
                                                    .u());
            if (relation == Relation.ADJUSTED && tolerance == null) {
                return Optional.empty();
            }
            if (Math.abs(d.errors()[i]) > allowed) {
                return Optional.of("At " + verification.get(i).reference() + " it is off by "
                        + Notation.plain(d.errors()[i], 3) + " " + span().pretty() + ", more than the "
                        + (tolerance != null ? "tolerance of " : "") + Notation.plain(allowed, 3) + " "
                        + span().pretty() + (tolerance != null ? "." : " its uncertainty explains."));
            }
        }
        return Optional.empty();
    }

    public boolean overdue(Instant now) {
        return now.isAfter(due);
    }
}
