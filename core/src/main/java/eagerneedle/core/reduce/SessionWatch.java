package eagerneedle.core.reduce;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.Residuals;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowProposal;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.GateWatch;
import eagerneedle.core.watch.Rule;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.core.watch.TraceWatch;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * All watches over a stored session, most severe first. Keeps what it found in raw samples, since those never change.
 */
public final class SessionWatch {
    private final Map<String, List<Finding>> ofSamples = new HashMap<>();

    /** Runs score below which a watch speaks: a session has dozens of runs, and none of them may cry wolf. */
    private static final double PATTERN = -4;

    /**
     * Findings over a reduction. Runs are judged by the day they were captured on, what is still to be done by the
     * moment {@code now}.
     */
    public List<Finding> look(Reduction reduction, Instant now) {
        List<Finding> found = new ArrayList<>();
        Sheet sheet = reduction.sheet();
        reduction.runs().forEach(run -> found.addAll(ofRun(reduction, run)));
        AtItsRail.explain(reduction, found);
        CalibrationWatch.look(reduction, now, found);
        for (Sheet.Step step : reduction.sheet().prepare()) {
            Instant started = reduction.session().timers().get(step.id());
            if (started != null
                    && step.minutes() > 0
                    && !reduction.session().signOffs().containsKey(step.id())
                    && now.isBefore(started.plusSeconds((long) (60 * step.minutes())))) {
                found.add(Rule.WARMING_UP
                        .ofSession(step.id(), "Not yet: " + step.text().toLowerCase(Locale.ROOT) + ".")
                        .because("It needs " + Notation.plain(step.minutes(), 3)
                                + " minutes and was started too short a time ago."));
            }
        }
        reduction.checks().stream()
                .filter(c -> c.met().isPresent() && !c.met().get())
                .forEach(c -> found.add(Rule.CHECK
                        .ofSession(c.check().label(), "Not met: " + c.check().label() + ".")
                        .remedied(c.check().remedy() == null ? "" : c.check().remedy())));
        long unread = sheet.inputs().keySet().stream()
                .filter(n -> !reduction.session().measured().containsKey(n))
                .count();
        if (unread > 0 && !reduction.session().keptRuns().isEmpty()) {
            found.add(Rule.AS_PLANNED.ofSession(
                    "", unread == 1 ? "One input is still as planned." : unread + " inputs are still as planned."));
        }
        Map<String, String> explained = reduction.session().explained();
        found.replaceAll(f -> explained.containsKey(f.key()) ? f.explained(explained.get(f.key())) : f);
        found.sort(Comparator.comparing(Finding::severity).reversed());
        return List.copyOf(found);
    }

    /** Findings over one run, kept or about to be, in the order of looking. */
    public List<Finding> ofRun(Reduction reduction, Run run) {
        List<Finding> found = new ArrayList<>();
        Sheet sheet = reduction.sheet();
        Capture capture = sheet.captures().get(run.capture());
        if (run.discard() != null || capture == null) {
            return found;
        }
        for (String channel : capture.channels()) {
            if (reduction.source().count(run.id(), channel) > Reducer.LONG) {
                found.add(Rule.LONG_RUN
                        .ofRun(
                                run.id(),
                                channel,
                                run.name() + " holds " + reduction.source().count(run.id(), channel)
                                        + " samples of "
                                        + run.channel(sheet, channel).label()
                                        + "; they were watched while they came, not again now.")
                        .because("Looking through so many would keep the session from opening at once."));
            } else if (run.rawUnit(channel).equals(Run.COUNTS)) {
                ofSamples
                        .computeIfAbsent(
                                run.id() + "/" + channel + "/"
                                        + run.entries().resumed().size(),
                                k -> samples(
                                        channel, run.channel(sheet, channel), run, reduction.samples(run, channel)))
                        .stream()
                        .filter(f ->
                                run.entries().voided().stream().noneMatch(v -> v.holds(f.from()) && v.holds(f.to())))
                        .forEach(found::add);
            }
        }
        meanings(reduction, run, capture, found);
        rows(reduction, run, found);
        if (run.leftOut() == null) {
            windows(reduction, run, capture, found);
        }
        return found;
    }

    /** Rules of the sheet that do not hold of a run. */
    private static void rows(Reduction reduction, Run run, List<Finding> found) {
        boolean counts = run.leftOut() == null;
        for (Capture.RowRule rule : reduction.broken(run)) {
            String says = run.name() + ": " + rule.says();
            if (rule.leavesOut() && !counts) {
                found.add(Rule.ROW_LEFT_OUT.ofRun(run.id(), rule.says(), says));
            } else if (counts && !run.entries().insisted()) {
                found.add(Rule.ROW.ofRun(run.id(), rule.says(), says));
            }
        }
    }

    /** What the samples of a run mean, channel by channel and together. */
    private static void meanings(Reduction reduction, Run run, Capture capture, List<Finding> found) {
        if (capture.mode().equals("gate")) {
            capture.channels().forEach(c -> {
                // Where windows were chosen only what lies in one counts: before and after, a wheel may well stand
                // still.
                Optional<Window> chosen = capture.windows().entrySet().stream()
                        .filter(w -> c.equals(w.getValue().on()))
                        .findFirst()
                        .flatMap(w -> reduction.window(run, w.getKey()));
                RawSamples states = reduction.source().samples(run.id(), c);
                new GateWatch(run.channel(reduction.sheet(), c).label())
                        .look(
                                run.id(),
                                chosen.map(w -> states.between(w.from(), w.to()))
                                        .orElse(states))
                        .ifPresent(f -> found.add(named(run, c, f)));
            });
            return;
        }
        List<TraceWatch.Tagged> tagged = new ArrayList<>();
        for (String name : capture.channels()) {
            Channel channel = run.channel(reduction.sheet(), name);
            Trace t = reduction.trace(run, name).orElse(null);
            if (t == null || t.size() == 0) {
                continue;
            }
            double middle = t.value()[t.size() / 2];
            TraceWatch watch = new TraceWatch(
                    channel.label(), channel.expectation(), channel.toChain().noiseAt(middle));
            watch.look(run.id(), t).forEach(f -> found.add(named(run, name, f)));
            Optional<Finding> hum = hum(reduction, run, capture, watch, t);
            hum.ifPresent(f -> found.add(named(run, name, f)));
            if (capture.mode().equals("hold") && hum.isEmpty()) {
                watch.contact(run.id(), t).ifPresent(f -> found.add(named(run, name, f)));
                if (t.size() > 20 && !WindowStatistics.of(t).steady(5)) {
                    found.add(Rule.NOT_STEADY.of(
                            run.id(),
                            name,
                            t.time()[0],
                            t.time()[t.size() - 1],
                            run.name() + ": " + channel.label() + " was not steady when the row was taken."));
                }
            }
            double[] sorted = t.value().clone();
            java.util.Arrays.sort(sorted);
            tagged.add(new TraceWatch.Tagged(name, channel.label(), channel.expectation(), sorted[sorted.length / 2]));
        }
        TraceWatch.bands(run.id(), tagged).forEach(f -> found.add(named(run, f.channel(), f)));
    }

    /** Hum of the mains in a row that stands still, or in what a run's fit leaves of the trace. */
    private static Optional<Finding> hum(Reduction reduction, Run run, Capture capture, TraceWatch watch, Trace t) {
        if (capture.mode().equals("hold")) {
            return watch.hum(run.id(), t.time(), t.value(), t.unit());
        }
        return reduction
                .fitOfRun(run)
                .filter(f -> f.yUnit().equals(t.unit()) && f.xUnit().fits(eagerneedle.core.quantity.LabUnit.SECOND))
                .flatMap(f -> watch.hum(run.id(), f.x(), f.residuals(), f.yUnit()));
    }

    private static Finding named(Run run, String channel, Finding f) {
        return f.onChannel(channel).in(run.name());
    }

    private static List<Finding> samples(String name, Channel channel, Run run, RawSamples raw) {
        return new SampleWatch(channel.label(), channel.toChain(), channel.rate())
                .look(run.id(), raw.time(), raw.values()).stream()
                        .map(f -> named(run, name, f))
                        .toList();
    }

    private static void windows(Reduction reduction, Run run, Capture capture, List<Finding> found) {
        capture.windows().forEach((name, plan) -> {
            Window byHand = run.windows().get(name);
            Trace trace = Optional.ofNullable(plan.on())
                    .flatMap(on -> reduction.trace(run, on))
                    .orElse(null);
            if (byHand != null && trace != null && !plan.isByMoments()) {
                WindowProposal.named(plan.propose()).of(trace).ifPresent(p -> {
                    double slack = 3 * trace.interval();
                    if (byHand.to() > p.to() + slack || byHand.from() < p.from() - slack) {
                        boolean late = byHand.to() > p.to() + slack;
                        found.add(Rule.WINDOW
                                .of(
                                        run.id(),
                                        "",
                                        late ? p.to() : byHand.from(),
                                        late ? byHand.to() : p.from(),
                                        Notation.sentence(
                                                "%s: the window '%s' runs %.2f s past the change at %.2f s.",
                                                run.name(),
                                                name,
                                                late ? byHand.to() - p.to() : p.from() - byHand.from(),
                                                late ? p.to() : p.from()))
                                .because(
                                        late
                                                ? "The trace changes there: contact with a stop, or a hand."
                                                : "The trace changes there: it was still held, or just released.")
                                .about(name));
                    }
                });
            }
        });
        Fit fit = reduction.fitOfRun(run).orElse(null);
        if (fit != null
                && Residuals.runsScore(fit.residuals()) < PATTERN
                && found.stream()
                        .noneMatch(
                                f -> f.run() == run.id() && (f.rule() == Rule.WINDOW || f.rule() == Rule.MAINS_HUM))) {
            found.add(Rule.RESIDUALS.of(
                    run.id(),
                    "",
                    fit.x()[0],
                    fit.x()[fit.x().length - 1],
                    run.name() + ": the residuals of the fit follow a pattern."));
        }
        Optional<String> problem = reduction.ofRun(run).stream()
                .flatMap(e -> Stream.ofNullable(e.outcome().problem()))
                .findFirst();
        problem.ifPresent(why -> {
            boolean unread = capture.byEye().keySet().stream()
                    .anyMatch(n -> !run.entries().byEye().containsKey(n));
            Finding none = Rule.NO_VALUE.ofRun(run.id(), "", why);
            found.add(
                    unread
                            ? none.remedied(
                                    "A reading is entered before its run is kept: go back to there with Ctrl+Z, "
                                            + "or leave the run out at Reduce.")
                            : none);
        });
    }
}
