package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.physics.PhysicsTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * Tries a sheet on its own planned values: a unit that does not fit, or a value outside a function's domain, shows
 * here.
 */
public final class SheetTrial {
    private final SheetReader.Located located;
    private final Reduction plan;
    private final List<SheetException> found;

    private SheetTrial(SheetReader.Located located, String text, List<SheetException> found) {
        this.located = located;
        this.found = found;
        // What only a rehearsal can tell is planned as if there were none, so that its unit is tried here.
        plan = new Reducer(located.with(located.sheet().withoutPhysics()), (run, channel) -> RawSamples.NONE)
                .plan(Session.start(text, located.sheet().title(), Instant.EPOCH));
    }

    /**
     * Reads a sheet and computes its predicted results.
     *
     * @throws SheetException for the first thing that is wrong, with file, line and column
     */
    public static SheetReader.Located read(String text, String file) {
        SheetReader.Looked looked = look(text, file);
        if (!looked.problems().isEmpty()) {
            throw looked.problems().get(0);
        }
        return looked.located().orElseThrow();
    }

    /**
     * Reads the sheet of a session. What rests on samples need not be planned there: its runs tell.
     *
     * @throws SheetException for the first thing that is wrong, with file, line and column
     */
    public static SheetReader.Located readOfSession(String text, String file) {
        SheetReader.Looked looked = look(text, file, true);
        if (!looked.problems().isEmpty()) {
            throw looked.problems().get(0);
        }
        return looked.located().orElseThrow();
    }

    /** Reads a sheet, tries it where it is well-formed, and keeps everything that is wrong with it. */
    public static SheetReader.Looked look(String text, String file) {
        return look(text, file, false);
    }

    private static SheetReader.Looked look(String text, String file, boolean ofSession) {
        SheetReader.Looked looked = SheetReader.look(text, file);
        if (!looked.problems().isEmpty() || looked.located().isEmpty()) {
            return looked;
        }
        List<SheetException> found = new ArrayList<>();
        new SheetTrial(looked.located().get(), text, found).all(ofSession);
        found.addAll(PhysicsTrial.of(looked.located().get()));
        return new SheetReader.Looked(looked.located(), SheetReader.Looked.sorted(found));
    }

    private void all(boolean ofSession) {
        found.addAll(TwoMeanings.of(located, plan));
        for (String name : located.sheet().results().keySet()) {
            String problem = plan.outcome(name).problem();
            // What has no rows in a plan is tried in a rehearsal, where the sheet has one.
            boolean later = (ofSession || located.sheet().hasPhysics())
                    && problem != null
                    && problem.contains("has no rows yet");
            if (problem != null && !later && problem.startsWith(located.file())) {
                found.add(SheetException.placed(withAdvice(problem)));
            }
        }
        for (Reduction.CheckOutcome check : plan.checks()) {
            // A column that rests on samples has no rows in a plan, and what is asked of it cannot be tried.
            boolean onSamples = Formula.parse(check.check().formula()).names().stream()
                    .anyMatch(n -> Key.named(n, located.sheet()) instanceof Key.Column
                            && plan.column(n).isEmpty());
            if (check.problem() != null && !check.problem().startsWith(located.file()) && !onSamples) {
                int i = located.sheet().checks().indexOf(check.check());
                found.add(located.problem("/checks/" + i + "/formula", 1, check.problem()));
            }
        }
        found.addAll(KindsTrial.of(located, plan));
        outputs();
        sought();
        located.sheet().channels().forEach(this::references);
    }

    /** Outputs that do not fit what they are set to, or are set beyond their limits. */
    private void outputs() {
        located.sheet()
                .captures()
                .forEach((c, capture) -> capture.levels().forEach((l, level) -> {
                    try {
                        LevelOutputs.of(plan, c, l);
                    } catch (IllegalArgumentException e) {
                        String at = "/captures/" + c + "/levels/" + l + "/outputs";
                        found.add(located.problem(at, 1, String.valueOf(e.getMessage())));
                    }
                }));
    }

    /** A target that what is read can never stand at, because it is of another kind. */
    private void sought() {
        located.sheet().captures().forEach((c, capture) -> {
            if (capture.seek() == null) {
                return;
            }
            String at = "/captures/" + c + "/seek/until";
            try {
                for (String l : capture.levels().keySet()) {
                    LiveTarget t = LiveTarget.of(plan, c, l).orElseThrow();
                    t.otherUnit(this::middle)
                            .ifPresent(u -> found.add(located.problem(
                                    at,
                                    1,
                                    "what is read is in " + u.named() + ", and its target is " + t.target() + ".")));
                }
            } catch (IllegalArgumentException e) {
                found.add(located.problem(at, 1, String.valueOf(e.getMessage())));
            }
        });
    }

    /** A few samples in the middle of what a channel can show. */
    private RawSamples middle(String channel) {
        var converter = located.sheet().channel(channel).toChain().converter();
        double count = Math.rint((converter.lowestCount() + converter.highestCount()) / 2.0);
        return new RawSamples(new double[] {0, 0.1, 0.2, 0.3}, new double[] {count, count, count, count});
    }

    /** Without physics and without plans nothing can tell what samples will be. */
    private String withAdvice(String problem) {
        return problem.contains("has no rows yet") && !located.sheet().hasPhysics()
                ? problem.replaceFirst(
                        "has no rows yet.*", "is not planned; give the quantity a 'planned', or the sheet a 'rig'.")
                : problem;
    }

    private void references(String name, Channel channel) {
        if (channel.calibration() == null) {
            return;
        }
        var lists = java.util.Map.of(
                "points",
                channel.calibration().points(),
                "verify",
                channel.calibration().verify(),
                "after",
                channel.calibration().after());
        lists.forEach((part, points) -> {
            for (int i = 0; i < points.size(); i++) {
                try {
                    plan.evaluate(points.get(i).reference(), "trial", "trial")
                            .unit()
                            .convert(0, channel.labUnit());
                } catch (IllegalArgumentException e) {
                    found.add(located.problem(
                            "/channels/" + name + "/calibration/" + part + "/" + i, 1, String.valueOf(e.getMessage())));
                }
            }
        });
    }
}
