package eagerneedle.app.calibrate;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.CalibrationPlots;
import eagerneedle.picture.TwoRails;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Calibrating by points: which point of the plan comes next, what was taken, what may be done now, and the check after
 * use. Where the sheet wants an adjustment, its last two readings are the first two points.
 */
final class PointsModel {
    /** With so few points the two rails say more than a line through them. */
    private static final int FEW = 3;

    private final Workbench bench;
    private final String name;
    private final Channel channel;
    private final Channel.CalibrationPlan plan;
    private final CalibrationDraft draft;
    /** What was taken, by its place in the plan: points first, then verification, then any more. */
    private final Map<Integer, CalibrationPoint> taken = new LinkedHashMap<>();

    private final List<CalibrationPoint> checked = new ArrayList<>();
    private int current;
    private AfterUse.@Nullable Use checking;
    private String reference;

    PointsModel(Workbench bench, String name) {
        this.bench = bench;
        this.name = name;
        this.channel = bench.session().channel(bench.sheet(), name);
        this.plan = channel.calibrationPlan();
        this.draft = new CalibrationDraft(bench, name);
        this.reference = plan.points().get(0).reference();
    }

    Channel channel() {
        return channel;
    }

    Channel.CalibrationPlan plan() {
        return plan;
    }

    boolean adjusts() {
        return plan.toRelation() == Relation.ADJUSTED;
    }

    /** True while zero and span are still to be set. */
    boolean isAdjusting() {
        return adjusts() && taken.size() < 2 && checking == null;
    }

    boolean few() {
        return plan.points().size() <= FEW;
    }

    /** The reference value that is set, as text. */
    String reference() {
        return reference;
    }

    void reference(String text) {
        reference = text;
    }

    private int planned() {
        return plan.points().size() + plan.verify().size();
    }

    /** The plan's entry that is next; empty beyond the plan. */
    private Optional<Channel.PointPlan> next() {
        if (checking != null) {
            return current < plan.after().size() ? Optional.of(plan.after().get(current)) : Optional.empty();
        }
        if (current < plan.points().size()) {
            return Optional.of(plan.points().get(current));
        }
        return current < planned()
                ? Optional.of(plan.verify().get(current - plan.points().size()))
                : Optional.empty();
    }

    private boolean asPlanned() {
        return next().filter(p -> p.reference().equals(reference.strip())).isPresent();
    }

    /**
     * What the bench is told when the reference is set there.
     *
     * @throws IllegalArgumentException with one sentence when the channel cannot be set to it
     */
    Map<String, String> placing() {
        draft.settable(reference);
        if (!asPlanned()) {
            return Map.of("channel", name, "reference", draft.plain(reference));
        }
        String part = checking != null ? "after" : current < plan.points().size() ? "points" : "verify";
        int index = part.equals("verify") ? current - plan.points().size() : current;
        return Map.of("channel", name, "part", part, "point", Integer.toString(index), "reference", reference.strip());
    }

    /**
     * Takes a reading as the indication at the reference.
     *
     * @return true when the next point of the plan is to be set now
     */
    boolean take(SteadyModel.Taken reading) {
        draft.settable(reference);
        CalibrationPoint point = draft.point(
                asPlanned() ? next().orElseThrow().words() : reference.strip(),
                reference.strip(),
                reading,
                next().map(Channel.PointPlan::way).orElse(null));
        if (checking == null) {
            taken.put(current, point);
            return advance(nextOpen());
        }
        checked.add(point);
        return checked.size() < plan.after().size() && advance(checked.size());
    }

    /** True when all points of the check after use are taken, and it can be kept. */
    boolean isCheckComplete() {
        return checking != null && checked.size() >= plan.after().size();
    }

    /** Keeps the check after use; says what it found. */
    String finishCheck() {
        AfterUse check = new AfterUse(bench.clock().instant(), checked, Objects.requireNonNull(checking));
        checking = null;
        bench.apply(new CalibrationCommand.CheckAfterUse(
                name, stored().orElseThrow().id(), check));
        checked.clear();
        current = 0;
        return stored().flatMap(Calibration::driftFound)
                .map(d -> "It has drifted by " + d + " since it was calibrated.")
                .orElse("Checked.");
    }

    /** The readings with which an adjustment ended are the first two points. */
    boolean adjusted(SteadyModel.Taken zero, SteadyModel.Taken full) {
        SteadyModel.Taken[] ends = {zero, full};
        for (int i = 0; i < 2; i++) {
            Channel.PointPlan p = plan.points().get(i);
            taken.put(i, draft.point(p.words(), p.reference(), ends[i], null));
        }
        return advance(nextOpen());
    }

    /** The first place of the plan that is not taken yet; the one after all others when the plan is done. */
    private int nextOpen() {
        int i = 0;
        while (taken.containsKey(i)) {
            i++;
        }
        return i;
    }

    private boolean advance(int to) {
        current = to;
        next().ifPresent(p -> reference = p.reference());
        return next().isPresent();
    }

    void startOver() {
        taken.clear();
        checking = null;
        checked.clear();
        current = 0;
        reference = plan.points().get(0).reference();
    }

    /** Begins a check after use; true when its first point is to be set now. */
    boolean check(AfterUse.Use use) {
        checking = use;
        checked.clear();
        return advance(0);
    }

    Optional<Calibration> stored() {
        return bench.session().calibrationOf(name, bench.sheet());
    }

    private List<CalibrationPoint> taken(boolean verification) {
        return taken.keySet().stream()
                .sorted()
                .filter(i -> (i >= plan.points().size() && i < planned()) == verification)
                .map(taken::get)
                .toList();
    }

    /** The calibration that what was taken makes. */
    Calibration made() {
        return draft.of(taken(false), taken(true), null);
    }

    private boolean fresh() {
        return !taken.isEmpty();
    }

    /** What is shown: the one in the making, or else the one that is kept. */
    Optional<Calibration> shown() {
        return fresh() ? Optional.of(made()) : stored();
    }

    boolean canKeep() {
        int fewest = plan.toRelation().fewest();
        int wanted = Math.max(fewest, Math.min(plan.points().size(), fewest + 2));
        return fresh()
                && taken(false).size() >= wanted
                && CalibrationPlots.fitted(made()).isPresent();
    }

    boolean canStartOver() {
        return fresh() || checking != null;
    }

    boolean canCertify() {
        return stored().isPresent();
    }

    boolean canCheckAfterUse() {
        return stored().isPresent() && !fresh();
    }

    /** What is to be set now, in words; empty while adjusting. */
    String says() {
        if (isAdjusting()) {
            return "";
        }
        String words = next().map(Channel.PointPlan::words).orElse("");
        if (checking != null) {
            return "Check after use: " + words;
        }
        if (next().isEmpty()) {
            return "All points of the plan are taken; more may be added.";
        }
        int points = plan.points().size();
        return (current < points
                        ? "Point " + (current + 1) + " of " + points
                        : "Verification " + (current - points + 1) + " of "
                                + plan.verify().size())
                + ": " + words;
    }

    /** The reference value that a formula gives, or why it gives none; empty where the text says it itself. */
    String computed() {
        try {
            Quantity q = draft.reference(reference);
            return next().filter(p -> p.say() != null && !isAdjusting())
                    .map(p -> "reference value " + q)
                    .orElse("");
        } catch (IllegalArgumentException e) {
            return String.valueOf(e.getMessage());
        }
    }

    /** What the calibration says, or what is still missing before it says anything. */
    String result() {
        Calibration c = shown().orElse(null);
        String missing = CalibrationWords.missing(c, plan.toRelation().fewest(), adjusts());
        if (c == null || !missing.isEmpty()) {
            return missing;
        }
        return CalibrationWords.of(c, channel.labUnit())
                + (fresh() ? "" : CalibrationWords.dates(c, bench.clock().instant()));
    }

    /**
     * One row of the panel of points.
     *
     * @param words what is set
     * @param reference the reference value as text, empty when the words say it
     * @param point what was taken there; null while it is still to be taken
     * @param check a verification point
     * @param current the one that is next
     */
    record Row(String words, String reference, @Nullable CalibrationPoint point, boolean check, boolean current) {}

    /** Rows for all points of the plan, taken or not, and for any more; or for the points of the kept calibration. */
    List<Row> rows() {
        List<Row> rows = new ArrayList<>();
        Calibration c = shown().orElse(null);
        if (checking == null && !fresh() && c != null) {
            c.points().forEach(p -> rows.add(row(planned(p), p, false, false)));
            c.verification().forEach(p -> rows.add(row(planned(p), p, true, false)));
            return rows;
        }
        if (checking != null || isAdjusting()) {
            return rows;
        }
        int points = plan.points().size();
        for (int i = 0; i < planned(); i++) {
            Channel.PointPlan p =
                    i < points ? plan.points().get(i) : plan.verify().get(i - points);
            rows.add(row(p, taken.get(i), i >= points, i == current));
        }
        taken.entrySet().stream()
                .filter(e -> e.getKey() >= planned())
                .sorted(Map.Entry.comparingByKey())
                .forEach(e -> rows.add(row(planned(e.getValue()), e.getValue(), false, false)));
        return rows;
    }

    private Stream<Channel.PointPlan> ofPlan() {
        return Stream.concat(plan.points().stream(), plan.verify().stream());
    }

    /** The plan's entry for a point that was taken; one of its own where the plan has none. */
    private Channel.PointPlan planned(CalibrationPoint p) {
        return ofPlan().filter(
                        x -> (x.reference().equals(p.reference()) || x.words().equals(p.reference()))
                                && Objects.equals(x.way(), p.way()))
                .findFirst()
                .orElse(Channel.PointPlan.of(p.reference()));
    }

    private Row row(Channel.PointPlan p, @Nullable CalibrationPoint point, boolean check, boolean now) {
        String value = "";
        if (p.say() != null) {
            try {
                Quantity q = draft.reference(p.reference());
                value = Notation.bracketed(q.value(), q.u());
            } catch (IllegalArgumentException e) {
                value = "not known yet";
            }
        }
        return new Row(p.words(), value, point, check, now);
    }

    /** Reference values with what was indicated at each: the two rails. Those not known yet are left out. */
    List<TwoRails.Strand> strands() {
        Calibration c = shown().orElse(null);
        List<TwoRails.Strand> strands = new ArrayList<>();
        for (Row r : rows()) {
            value(r, c)
                    .ifPresent(v -> strands.add(new TwoRails.Strand(
                            r.words(),
                            v,
                            r.point() == null ? Double.NaN : r.point().indication(),
                            r.check(),
                            r.current())));
        }
        return strands;
    }

    private Optional<Double> value(Row r, @Nullable Calibration c) {
        try {
            if (r.point() != null && c != null) {
                return Optional.of(c.references(List.of(r.point()))[0]);
            }
            String text = ofPlan().filter(x -> x.words().equals(r.words()))
                    .findFirst()
                    .map(Channel.PointPlan::reference)
                    .orElse(r.words());
            return Optional.of(draft.reference(text).value());
        } catch (IllegalArgumentException unknown) {
            return Optional.empty();
        }
    }
}
