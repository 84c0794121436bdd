package eagerneedle.core.reduce;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import java.time.Instant;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What calibrations say: missing, overdue, failed, drifted, not closing, and whether a sensor answered to its
 * references at all. What such an answer betrays explains what the runs of that channel show, so it is said once, as
 * the cause, and not again as a guess.
 */
final class CalibrationWatch {
    /** How many of its own uncertainties the sum of a closed circle may be off. */
    private static final double OPEN = 4;
    /** Share of a change of the reference below which a sensor of known transfer has not answered to it. */
    private static final double ANSWERS = 0.3;
    /** What a run shows of a channel whose leads are not as they should be. */
    private static final Set<Rule> GUESSES =
            EnumSet.of(Rule.OUT_OF_RANGE, Rule.REVERSED, Rule.SWAPPED, Rule.OUTSIDE_ITS_BAND);

    private CalibrationWatch() {}

    static void look(Reduction reduction, Instant now, List<Finding> found) {
        reduction.sheet().channels().forEach((name, channel) -> {
            Calibration c =
                    reduction.session().calibrationOf(name, reduction.sheet()).orElse(null);
            boolean used = reduction.session().keptRuns().stream()
                    .anyMatch(r -> r.rawUnit(name).equals(Run.COUNTS)
                            && reduction.sheet().capture(r.capture()).channels().contains(name));
            if (c == null && channel.calibration() != null && used) {
                found.add(Rule.NOT_CALIBRATED
                        .ofSession("", capital(channel.label()) + " is not calibrated.")
                        .onChannel(name)
                        .because(
                                channel.toChain().shared().isEmpty()
                                        ? "Values rest on the nominal transfer of the chain; its error "
                                                + "is in no budget."
                                        : "Values rest on the nominal transfer of the chain, as "
                                                + "uncertain as its links say."));
            }
            if (c != null && c.relation() == Relation.CLOSURE) {
                closure(name, channel.label(), c, found);
            }
            if (c != null && c.relation() != Relation.CLOSURE) {
                answers(name, channel, c, found);
            }
            if (c != null) {
                c.failure()
                        .ifPresent(f -> found.add(Rule.CALIBRATION_FAILED
                                .ofSession(
                                        "", "The calibration of " + channel.label() + " failed its verification. " + f)
                                .onChannel(name)));
                c.driftFound()
                        .filter(d -> Math.abs(d.value()) > 2 * d.u())
                        .ifPresent(d -> found.add(Rule.DRIFT
                                .ofSession(
                                        "",
                                        capital(channel.label()) + " had drifted by "
                                                + Notation.bracket(d)
                                                + " when it was checked after use.")
                                .onChannel(name)
                                .remedied(whatBecomesOfIt(c.after()))));
            }
            if (c != null && c.overdue(reduction.lastUse(name).orElse(now))) {
                found.add(Rule.CALIBRATION_OVERDUE
                        .ofSession(
                                "",
                                "The calibration of " + channel.label() + " was due on " + Notation.day(c.due()) + ".")
                        .onChannel(name));
            }
        });
    }

    /**
     * Whether a sensor followed its references. Only of a chain that is known from the measurand on: what its converter
     * reads of it is then in the unit of the reference, one for one but for its errors.
     */
    private static void answers(String name, Channel channel, Calibration c, List<Finding> found) {
        LabUnit unit = LabUnit.parse(c.unit());
        if (c.points().size() < 2
                || !LabUnit.parse(channel.chain().get(0).from()).fits(unit)) {
            return;
        }
        CalibrationPoint low = c.points().stream()
                .min(Comparator.comparingDouble(p -> p.referenceIn(unit)))
                .orElseThrow();
        CalibrationPoint high = c.points().stream()
                .max(Comparator.comparingDouble(p -> p.referenceIn(unit)))
                .orElseThrow();
        double set = high.referenceIn(unit) - low.referenceIn(unit);
        double shown = high.indication() - low.indication();
        if (set <= 0 || shown > ANSWERS * set) {
            return;
        }
        boolean reversed = shown < -ANSWERS * set;
        Finding why = (reversed ? Rule.REVERSED : Rule.SWAPPED)
                .ofSession(
                        "calibration",
                        "When it was calibrated, " + channel.label()
                                + (reversed ? " fell where its reference rose." : " did not answer to its references."))
                .onChannel(name);
        found.removeIf(f -> f.run() > 0 && f.channel().equals(name) && GUESSES.contains(f.rule()));
        found.add(
                reversed
                        ? why.remedied("Exchange its two leads and calibrate it again.")
                        : why.because("Another sensor is on this input: leads or tags are exchanged.")
                                .remedied("Touch it to identify it at Rig, then calibrate it again."));
    }

    private static String whatBecomesOfIt(@Nullable AfterUse drift) {
        AfterUse.Use use = drift == null ? AfterUse.Use.TELL : drift.use();
        return switch (use) {
            case CORRECT -> "It is taken out in proportion to time.";
            case INFLUENCE -> "It stands in the budget as an influence.";
            case TELL -> "Choose at Calibrate whether it is taken out or kept as an influence.";
        };
    }

    /** What a closure of circles says against itself: readings that stand out, series that do not close. */
    private static void closure(String name, String label, Calibration c, List<Finding> found) {
        try {
            ClosureReadings.Solution s = c.closed();
            s.remarks().forEach(r -> found.add(Rule.CLOSURE.ofSession(r, r).onChannel(name)));
            for (int k = 0; k < s.closures().length; k++) {
                if (Math.abs(s.closures()[k]) > OPEN * s.uClosure()) {
                    found.add(Rule.CLOSURE
                            .ofSession(
                                    "series " + (k + 1),
                                    "Series " + (k + 1) + " of " + label + " does not close: its sum is "
                                            + Notation.figures(s.closures()[k], 2) + " "
                                            + LabUnit.parse(c.unit()).pretty() + " where 0 is expected within "
                                            + Notation.figures(s.uClosure(), 2) + ".")
                            .onChannel(name)
                            .because("The zero was not renewed, or it drifted during the series.")
                            .remedied("Take that series again, with the zero renewed at every step."));
                }
            }
        } catch (FitException e) {
            found.add(Rule.CLOSURE
                    .ofSession("cells", e.getMessage())
                    .onChannel(name)
                    .because("Cells of the closure are empty.")
                    .remedied("Take the missing readings."));
        }
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }
}
