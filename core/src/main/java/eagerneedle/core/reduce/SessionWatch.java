package eagerneedle.core.reduce;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.event.Edges;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.Residuals;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowProposal;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.Expectation;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.TraceWatch;
import eagerneedle.core.watch.Finding.Severity;
import eagerneedle.core.watch.SampleWatch;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** All watches over a stored session, most severe first. Keeps what it found in raw samples, since those never change. */
public final class SessionWatch {
    private final Map<String, List<Finding>> ofSamples = new HashMap<>();

    /** Findings over a reduction at a moment. */
    /** Runs score below which a watch speaks: a session has dozens of runs, and none of them may cry wolf. */
    private static final double PATTERN = -4;
    /** How many of its own uncertainties the sum of a closed circle may be off. */
    private static final double OPEN = 4;

    public List<Finding> look(Reduction reduction, Instant now) {
        List<Finding> found = new ArrayList<>();
        Sheet sheet = reduction.sheet();
        for (Run run : reduction.runs()) {
            Sheet.Capture capture = sheet.captures().get(run.capture());
            if (run.discard() != null || capture == null) {
                continue;
            }
            for (String channel : capture.channels()) {
                if (reduction.source().count(run.id(), channel) > Reducer.LONG) {
                    found.add(new Finding("long run", Severity.NOTE, run.name() + " holds " + reduction.source().count(run.id(), channel) + " samples of " + run.channel(sheet, channel).label() + "; they were watched while they came, not again now.",
                            "Looking through so many would keep the session from opening at once.", "Look at the outline at Capture.", run.id(), Double.NaN, Double.NaN));
                } else if (run.rawUnit(channel).equals(Run.COUNTS)) {
                    ofSamples.computeIfAbsent(run.id() + "/" + channel + "/" + run.entries().resumed().size(), k -> samples(run.channel(sheet, channel), run, reduction.source().samples(run.id(), channel))).stream()
                            .filter(f -> run.entries().voided().stream().noneMatch(v -> v.holds(f.from()) && v.holds(f.to()))).forEach(found::add);
                }
            }
            meanings(reduction, run, capture, found);
            if (run.leftOut() == null) {
                windows(reduction, run, capture, found);
            }
        }
        calibrations(reduction, now, found);
        for (Sheet.Step step : reduction.sheet().prepare()) {
            Instant started = reduction.session().timers().get(step.id());
            if (started != null && step.minutes() > 0 && !reduction.session().signOffs().containsKey(step.id()) && now.isBefore(started.plusSeconds((long) (60 * step.minutes())))) {
                found.add(Finding.ofSession("still warming up", Severity.ATTENTION, "Not yet: " + step.text().toLowerCase(Locale.ROOT) + ".",
                        "It needs " + Notation.plain(step.minutes(), 3) + " minutes and was started too short a time ago.", "Calibrate and capture once its time at Rig is over."));
            }
        }
        reduction.checks().stream().filter(c -> c.met().isPresent() && !c.met().get()).forEach(c -> found.add(Finding.ofSession("check", Severity.WRONG,
                "Not met: " + c.check().label() + ".", "A check of the method sheet failed.", c.check().remedy() == null ? "" : c.check().remedy())));
        long unread = sheet.inputs().keySet().stream().filter(n -> !reduction.session().measured().containsKey(n)).count();
        if (unread > 0 && !reduction.session().keptRuns().isEmpty()) {
            found.add(Finding.ofSession("as planned", Severity.NOTE, unread == 1 ? "One input is still as planned." : unread + " inputs are still as planned.",
                    "They were not read yet.", "Enter what was read at Plan; results use planned values until then."));
        }
        Map<String, String> explained = reduction.session().explained();
        found.replaceAll(f -> explained.containsKey(f.key()) ? f.explained(explained.get(f.key())) : f);
        found.sort(Comparator.comparing(Finding::severity).reversed());
        return List.copyOf(found);
    }

    /** What the samples of a run mean, channel by channel and together. */
    private static void meanings(Reduction reduction, Run run, Sheet.Capture capture, List<Finding> found) {
        if (capture.mode().equals("gate")) {
            capture.channels().forEach(c -> {
                // Where windows were chosen only what lies in one counts: before and after, a wheel may well stand still.
                Optional<Window> chosen = capture.windows().entrySet().stream().filter(w -> w.getValue().on().equals(c)).findFirst().flatMap(w -> reduction.window(run, w.getKey()));
                RawSamples states = reduction.source().samples(run.id(), c);
                missedEdges(run, run.channel(reduction.sheet(), c).label(), chosen.map(w -> states.between(w.from(), w.to())).orElse(states), found);
            });
            return;
        }
        Map<String, Double> typical = new java.util.LinkedHashMap<>();
        Map<String, Expectation> expected = new HashMap<>();
        Map<String, String> labels = new HashMap<>();
        for (String name : capture.channels()) {
            Sheet.Channel channel = run.channel(reduction.sheet(), name);
            Trace t = reduction.trace(run, name).orElse(null);
            if (t == null || t.size() == 0) {
                continue;
            }
            double middle = t.value()[t.size() / 2];
            TraceWatch watch = new TraceWatch(channel.label(), channel.expectation(), channel.toChain().noiseAt(middle));
            watch.look(run.id(), t).forEach(f -> found.add(named(run, f)));
            Optional<Finding> hum = hum(reduction, run, capture, watch, t);
            hum.ifPresent(f -> found.add(named(run, f)));
            if (capture.mode().equals("hold") && hum.isEmpty()) {
                watch.contact(run.id(), t).ifPresent(f -> found.add(named(run, f)));
                if (t.size() > 20 && !WindowStatistics.of(t).steady(5)) {
                    found.add(new Finding("not steady", Severity.ATTENTION, run.name() + ": " + channel.label() + " was not steady when the row was taken.", "It was taken before it had settled.",
                            "Void the row and take it again once it is steady.", run.id(), t.time()[0], t.time()[t.size() - 1]));
                }
            }
            double[] sorted = t.value().clone();
            java.util.Arrays.sort(sorted);
            typical.put(name, sorted[sorted.length / 2]);
            expected.put(name, channel.expectation());
            labels.put(name, channel.label());
        }
        TraceWatch.bands(run.id(), typical, expected, labels).forEach(f -> found.add(named(run, f)));
    }

    /** Hum of the mains in a row that stands still, or in what a run's fit leaves of the trace. */
    private static Optional<Finding> hum(Reduction reduction, Run run, Sheet.Capture capture, TraceWatch watch, Trace t) {
        if (capture.mode().equals("hold")) {
            return watch.hum(run.id(), t.time(), t.value(), t.unit());
        }
        return reduction.fitOfRun(run).filter(f -> f.yUnit().equals(t.unit()) && f.xUnit().fits(eagerneedle.core.quantity.LabUnit.SECOND)).flatMap(f -> watch.hum(run.id(), f.x(), f.residuals(), f.yUnit()));
    }

    /** Edges that a gate did not see, or saw twice. */
    private static void missedEdges(Run run, String label, RawSamples states, List<Finding> found) {
        double[] rising = java.util.stream.IntStream.range(1, states.size()).filter(i -> states.values()[i] > 0.5 && states.values()[i - 1] <= 0.5).mapToDouble(i -> states.time()[i]).toArray();
        if (rising.length < 5) {
            return;
        }
        List<Edges.Suspect> suspects = Edges.of(rising).suspects();
        if (!suspects.isEmpty()) {
            Edges.Suspect s = suspects.get(0);
            boolean missed = s.kind() == Edges.Kind.MISSED;
            double at = rising[Math.min(rising.length - 1, s.index())];
            found.add(new Finding(missed ? "missed edge" : "double edge", Severity.ATTENTION, run.name() + ": " + label + ": " + s.sentence() + (suspects.size() > 1 ? " " + (suspects.size() - 1) + " more like it." : ""),
                    missed ? "A spoke or flag passed beside the beam, or the train was not steady." : "A reflection, or an edge that is not sharp.", "Set the gate so that every edge crosses the middle of the beam; periods leave such edges out by themselves.", run.id(), at, at));
        }
    }

    private static Finding named(Run run, Finding f) {
        return new Finding(f.watch(), f.severity(), run.name() + ": " + f.message(), f.cause(), f.remedy(), f.run(), f.from(), f.to());
    }

    private static List<Finding> samples(Sheet.Channel channel, Run run, RawSamples raw) {
        return new SampleWatch(channel.label(), channel.toChain(), channel.rate()).look(run.id(), raw.time(), raw.values()).stream().map(f -> named(run, f)).toList();
    }

    private static void windows(Reduction reduction, Run run, Sheet.Capture capture, List<Finding> found) {
        capture.windows().forEach((name, plan) -> {
            Window byHand = run.windows().get(name);
            Trace trace = reduction.trace(run, plan.on()).orElse(null);
            if (byHand != null && trace != null) {
                WindowProposal.named(plan.propose()).of(trace).ifPresent(p -> {
                    double slack = 3 * trace.interval();
                    if (byHand.to() > p.to() + slack || byHand.from() < p.from() - slack) {
                        boolean late = byHand.to() > p.to() + slack;
                        found.add(new Finding("window", Severity.ATTENTION, String.format(Locale.ROOT, "%s: the window '%s' runs %.2f s past the change at %.2f s.", run.name(), name,
                                late ? byHand.to() - p.to() : p.from() - byHand.from(), late ? p.to() : p.from()),
                                late ? "The trace changes there: contact with a stop, or a hand." : "The trace changes there: it was still held, or just released.",
                                "Draw the edge back before the change.", run.id(), late ? p.to() : byHand.from(), late ? byHand.to() : p.from()));
                    }
                });
            }
        });
        Fit fit = reduction.fitOfRun(run).orElse(null);
        if (fit != null && Residuals.runsScore(fit.residuals()) < PATTERN && found.stream().noneMatch(f -> f.run() == run.id() && (f.watch().equals("window") || f.watch().equals("mains hum")))) {
            found.add(new Finding("residuals", Severity.ATTENTION, run.name() + ": the residuals of the fit follow a pattern.",
                    "The window holds more than one kind of motion, or the sensor saw something else.", "Look at the residuals and move the window, or leave the run out.",
                    run.id(), fit.x()[0], fit.x()[fit.x().length - 1]));
        }
        if (reduction.ofRun(run).stream().anyMatch(e -> e.outcome().problem() != null)) {
            String why = reduction.ofRun(run).stream().filter(e -> e.outcome().problem() != null).findFirst().orElseThrow().outcome().problem();
            found.add(new Finding("no value", Severity.WRONG, why, "The run could not be reduced.", "Set its window, leave it out or discard it.", run.id(), Double.NaN, Double.NaN));
        }
    }

    private static void calibrations(Reduction reduction, Instant now, List<Finding> found) {
        reduction.sheet().channels().forEach((name, channel) -> {
            Calibration c = reduction.session().calibrationOf(name).orElse(null);
            boolean used = reduction.session().keptRuns().stream().anyMatch(r -> r.rawUnit(name).equals(Run.COUNTS)
                    && reduction.sheet().captures().get(r.capture()).channels().contains(name));
            if (c == null && channel.calibration() != null && used) {
                found.add(Finding.ofSession("not calibrated", Severity.ATTENTION, capital(channel.label()) + " is not calibrated.",
                        channel.toChain().shared().isEmpty() ? "Values rest on the nominal transfer of the chain; its error is in no budget." : "Values rest on the nominal transfer of the chain, as uncertain as its links say.",
                        "Calibrate it; stored runs will follow."));
            }
            if (c != null && c.relation() == Relation.CLOSURE) {
                closure(channel.label(), c, found);
            }
            if (c != null) {
                c.failure().ifPresent(f -> found.add(Finding.ofSession("calibration failed", Severity.WRONG, "The calibration of " + channel.label() + " failed its verification. " + f,
                        "The relation does not hold where it was tested.", "Look at the points, take the doubtful one again, or choose another relation.")));
                c.driftFound().filter(d -> Math.abs(d.value()) > 2 * d.u()).ifPresent(d -> found.add(Finding.ofSession("drift", Severity.NOTE,
                        capital(channel.label()) + " had drifted by " + Notation.bracket(d) + " when it was checked after use.", "Temperature, creep or a loose contact.",
                        c.after().use() == AfterUse.Use.CORRECT ? "It is taken out in proportion to time." : c.after().use() == AfterUse.Use.INFLUENCE ? "It stands in the budget as an influence."
                                : "Choose at Calibrate whether it is taken out or kept as an influence.")));
            }
            if (c != null && c.overdue(now)) {
                found.add(Finding.ofSession("calibration overdue", Severity.ATTENTION, "The calibration of " + channel.label() + " was due on " + c.due().toString().substring(0, 10) + ".",
                        "It is older than the sheet allows.", "Calibrate again."));
            }
        });
    }

    /** What a closure of circles says against itself: readings that stand out, series that do not close. */
    private static void closure(String label, Calibration c, List<Finding> found) {
        try {
            ClosureReadings.Solution s = c.closure().solve(c.id());
            s.remarks().forEach(r -> found.add(Finding.ofSession("closure", Severity.ATTENTION, r, "A reading was misread or written into the wrong cell, or a table was turned the wrong way.", "Look at the map of residuals at Calibrate and take that series again.")));
            for (int k = 0; k < s.closures().length; k++) {
                if (Math.abs(s.closures()[k]) > OPEN * s.uClosure()) {
                    found.add(Finding.ofSession("closure", Severity.ATTENTION, "Series " + (k + 1) + " of " + label + " does not close: its sum is " + Notation.figures(s.closures()[k], 2) + " "
                            + LabUnit.parse(c.unit()).pretty() + " where 0 is expected within " + Notation.figures(s.uClosure(), 2) + ".", "The zero was not renewed, or it drifted during the series.", "Take that series again, with the zero renewed at every step."));
                }
            }
        } catch (FitException e) {
            found.add(Finding.ofSession("closure", Severity.ATTENTION, e.getMessage(), "Cells of the closure are empty.", "Take the missing readings."));
        }
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }
}
