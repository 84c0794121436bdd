package eagerneedle.rig.simulated;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.calibration.TrimAdvisor;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.History;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.PoolingCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * Carries a whole method out on a simulated rig, as a careful person would: reads the inputs, calibrates, captures
 * every scheduled run. General: it knows the sheet and the rig's interface, not the experiment.
 *
 * @param session the session as it stands after the last run
 * @param acts the commands that made it, in order
 * @param samples raw samples by run, then by channel
 * @param truth what was hidden, by the names of the ledger
 */
public record Rehearsal(
        Session session,
        List<Command> acts,
        Map<Integer, Map<String, RawSamples>> samples,
        Map<String, Quantity> truth) {
    private static final int CALIBRATION_SAMPLES = 100;
    private static final int AGAIN = 3;

    /** Carries the method out, starting at a moment. The sheet must name a simulated rig. */
    public static Rehearsal of(SheetReader.Located located, SimulatedRig rig, Instant start) {
        Sheet sheet = located.sheet();
        Session empty = Session.start(located.text(), sheet.title(), start);
        History history = new History(empty);
        List<Command> acts = new ArrayList<>();
        Map<Integer, Map<String, RawSamples>> samples = new HashMap<>();
        rig.readings().forEach((name, reading) -> {
            if (sheet.inputs().containsKey(name)) {
                act(
                        history,
                        acts,
                        new PlanningCommand.SetMeasured(
                                name, sheet.inputs().get(name).label(), reading));
            }
        });
        rig.sources(start).forEach(source -> act(history, acts, new PoolingCommand.Take(source)));
        Instant now = start.plus(Duration.ofMinutes(10));
        for (Sheet.Step step : sheet.prepare()) {
            act(history, acts, new RigCommand.SignOff(step.id(), step.text(), now));
        }
        Reduction reduction = new Reducer(located, (run, channel) -> RawSamples.NONE).reduce(history.session());
        for (Map.Entry<String, Channel> c : sheet.channels().entrySet()) {
            if (c.getValue().calibration() != null && rig.calibrates(c.getKey())) {
                try {
                    act(
                            history,
                            acts,
                            new CalibrationCommand.Calibrate(calibrate(c.getKey(), c.getValue(), rig, reduction, now)));
                } catch (FitException e) {
                    // Indications that fix no relation cannot be kept as a calibration by a person either.
                }
            }
        }
        now = now.plus(Duration.ofMinutes(15));
        for (Map.Entry<String, Capture> c : sheet.captures().entrySet()) {
            for (String level : c.getValue().levels().keySet()) {
                for (int i = 0; i < c.getValue().repeats(); i++) {
                    String device = c.getValue().channels().stream()
                            .findFirst()
                            .map(n -> sheet.channel(n).device())
                            .orElse(null);
                    Run run = Run.captured(
                            history.session().nextRunId(),
                            c.getKey(),
                            level,
                            now,
                            c.getValue().isByEye()
                                    ? "a reading by eye"
                                    : device == null
                                            ? "a rehearsal"
                                            : Objects.requireNonNull(
                                                            sheet.devices().get(device))
                                                    .label(),
                            Run.COUNTS);
                    Captured captured = Captured.of(rig, reduction, c.getKey(), level, run.id());
                    // What a rule refuses is done again, as a person would.
                    for (int again = 0; again < AGAIN && refuses(located, history.session(), run, captured); again++) {
                        captured = Captured.of(rig, reduction, c.getKey(), level, run.id());
                    }
                    samples.put(run.id(), captured.samples());
                    act(
                            history,
                            acts,
                            new RunCommand.KeepRun(
                                    run.entered(readOnce(history.session(), run, c.getValue(), captured.entries()))
                                            .clockedBy(captured.clocks())));
                    now = now.plus(Duration.ofSeconds(50));
                }
            }
        }
        return new Rehearsal(history.session(), acts, samples, rig.truth());
    }

    /** What serves all runs at a level was read with the first. */
    private static Entries readOnce(Session session, Run run, Capture plan, Entries seen) {
        Entries out = seen;
        for (Map.Entry<String, Sheet.Input> e : plan.byEye().entrySet()) {
            Optional<String> before = session.keptRuns().stream()
                    .filter(r -> r.capture().equals(run.capture()) && r.level().equals(run.level()))
                    .flatMap(r -> Optional.ofNullable(r.entries().byEye().get(e.getKey())).stream())
                    .findFirst();
            if (e.getValue().isOncePerLevel() && before.isPresent()) {
                out = out.read(e.getKey(), before.get());
            }
        }
        return out;
    }

    private static boolean refuses(SheetReader.Located located, Session before, Run run, Captured captured) {
        if (located.sheet().capture(run.capture()).rules().values().stream().noneMatch(Capture.RowRule::refuses)) {
            return false;
        }
        Run kept = run.entered(captured.entries()).clockedBy(captured.clocks());
        Session alone = new RunCommand.KeepRun(kept).apply(before);
        Reducer of = new Reducer(
                located,
                (id, channel) ->
                        id == run.id() ? captured.samples().getOrDefault(channel, RawSamples.NONE) : RawSamples.NONE);
        return !of.broken(alone, kept, Capture.RowRule::refuses).isEmpty();
    }

    private static void act(History history, List<Command> acts, Command command) {
        history.apply(command);
        acts.add(command);
    }

    /**
     * n samples of every channel at a rate in samples a second, by the sheet's names; of a gate its edges meanwhile.
     * Where several instruments sample, each does so no faster than the sheet wants of it.
     */
    static Map<String, RawSamples> stream(SimulatedRig rig, Sheet sheet, double rate, int n) {
        List<String> channels = rig.channels();
        List<double[]> rows = new ArrayList<>(n);
        List<double[]> edges = new ArrayList<>();
        boolean samples = sheet.channels().keySet().stream().anyMatch(c -> !isGate(rig, sheet, c));
        rig.begin();
        for (int i = 0; i < n; i++) {
            if (samples) {
                double[] read = rig.read();
                double[] row = new double[read.length + 1];
                row[0] = i / rate;
                System.arraycopy(read, 0, row, 1, read.length);
                rows.add(row);
            }
            rig.advance(1 / rate);
            edges.addAll(rig.edges());
        }
        edges.forEach(e -> e[0] = Math.rint(e[0] * 1e6) / 1e6);
        Map<String, RawSamples> out = new LinkedHashMap<>();
        sheet.channels().forEach((name, channel) -> {
            int at = channels.indexOf(channel.inputOr(name));
            if (at >= 0) {
                boolean gate = isGate(rig, sheet, name);
                out.put(name, column(gate ? edges : rows, at + 1, gate ? 1 : every(sheet, channel, rate)));
            }
        });
        return out;
    }

    /** How many steps of the fastest lie between two samples of a channel's instrument. */
    private static int every(Sheet sheet, Channel channel, double rate) {
        double own = sheet.channels().values().stream()
                .filter(c -> Objects.equals(c.device(), channel.device()))
                .mapToDouble(Channel::rate)
                .max()
                .orElse(rate);
        return sheet.devices().size() < 2 ? 1 : (int) Math.max(1, Math.round(rate / own));
    }

    private static boolean isGate(SimulatedRig rig, Sheet sheet, String channel) {
        String device = sheet.channel(channel).device();
        return rig.isGate()
                && (sheet.devices().size() < 2
                        || device != null
                                && "gate"
                                        .equals(Objects.requireNonNull(
                                                        sheet.devices().get(device))
                                                .driver()));
    }

    private static RawSamples column(List<double[]> rows, int column, int every) {
        int n = (rows.size() + every - 1) / every;
        double[] time = new double[n];
        double[] value = new double[n];
        for (int i = 0; i < n; i++) {
            time[i] = rows.get(i * every)[0];
            value[i] = rows.get(i * every)[column];
        }
        return new RawSamples(time, value);
    }

    private static WindowStatistics steadied(SimulatedRig rig, Sheet sheet, String name, int n) {
        Channel channel = sheet.channel(name);
        Chain chain = channel.toChain();
        RawSamples raw =
                Objects.requireNonNull(stream(rig, sheet, channel.rate(), n).get(name));
        double[] indication = new double[raw.size()];
        for (int i = 0; i < indication.length; i++) {
            indication[i] = chain.indication(raw.values()[i]);
        }
        return WindowStatistics.of(
                new Trace(name, raw.time(), indication, channel.labUnit(), chain.stepAt(indication[0]), List.of()));
    }

    private static Calibration calibrate(
            String name, Channel channel, SimulatedRig rig, Reduction reduction, Instant now) {
        Sheet sheet = reduction.sheet();
        Channel.CalibrationPlan plan = channel.calibrationPlan();
        Relation relation = plan.toRelation();
        List<CalibrationPoint> points = new ArrayList<>();
        ClosureReadings closure = null;
        if (relation == Relation.CLOSURE) {
            closure = close(name, channel, rig, sheet);
        } else {
            if (relation == Relation.ADJUSTED) {
                adjust(name, channel, rig, reduction);
            }
            points.addAll(points(name, channel, "points", plan.points(), rig, reduction));
        }
        List<CalibrationPoint> verification = points(name, channel, "verify", plan.verify(), rig, reduction);
        Double tolerance = plan.tolerance() == null ? null : difference(plan.tolerance(), channel);
        return new Calibration(
                name + "-" + now.getEpochSecond(),
                name,
                plan.kind(),
                relation,
                channel.unit(),
                points,
                verification,
                tolerance,
                closure,
                now,
                now.plus(Duration.ofDays(plan.days())),
                "instructor on duty",
                plan.reference() == null ? "" : plan.reference(),
                "",
                null,
                Link.serials(channel.chain()));
    }

    private static double difference(String text, Channel channel) {
        Reading r = Reading.parse(text);
        return r.value() * r.unit().scaleTo(channel.labUnit());
    }

    private static List<CalibrationPoint> points(
            String name,
            Channel channel,
            String part,
            List<Channel.PointPlan> plans,
            SimulatedRig rig,
            Reduction reduction) {
        List<CalibrationPoint> out = new ArrayList<>();
        for (int i = 0; i < plans.size(); i++) {
            Channel.PointPlan p = plans.get(i);
            rig.arrange(
                    Map.of("channel", name, "part", part, "point", Integer.toString(i), "reference", p.reference()));
            WindowStatistics s = steadied(rig, reduction.sheet(), name, CALIBRATION_SAMPLES);
            out.add(point(p, reduction, channel, s).going(p.way()));
        }
        return out;
    }

    /** A point from a plan and a steadied reading. */
    public static CalibrationPoint point(
            Channel.PointPlan plan, Reduction reduction, Channel channel, WindowStatistics s) {
        try {
            Reading.parse(plan.reference());
            return new CalibrationPoint(plan.reference(), s.mean(), s.uMean(), s.n(), s.steady(3));
        } catch (IllegalArgumentException formula) {
            return CalibrationPoint.computed(
                    plan.words(),
                    reduction.evaluate(plan.reference(), "x", plan.words()).to(channel.labUnit()),
                    s.mean(),
                    s.uMean(),
                    s.n(),
                    s.steady(3));
        }
    }

    private static void adjust(String name, Channel channel, SimulatedRig rig, Reduction reduction) {
        Channel.CalibrationPlan plan = channel.calibrationPlan();
        double band = difference(Objects.requireNonNull(plan.band(), name), channel);
        double zero =
                reduction.evaluate(plan.points().get(0).reference(), "x", "x").in(channel.labUnit());
        double full =
                reduction.evaluate(plan.points().get(1).reference(), "x", "x").in(channel.labUnit());
        double noise =
                steadied(rig, reduction.sheet(), name, CALIBRATION_SAMPLES).uMean();
        Novice.adjust(
                new TrimAdvisor.Goal(zero, full, band, noise),
                plan.trims(),
                load -> rig.arrange(Map.of("channel", name, "point", load == TrimAdvisor.Load.FULL ? "1" : "0")),
                (trim, turns) -> rig.arrange(Map.of(
                        "channel",
                        name,
                        "trim",
                        trim == TrimAdvisor.Trim.ZERO ? "0" : "1",
                        "turn",
                        Double.toString(turns))),
                () -> steadied(rig, reduction.sheet(), name, CALIBRATION_SAMPLES)
                        .mean());
    }

    private static ClosureReadings close(String name, Channel channel, SimulatedRig rig, Sheet sheet) {
        int n = channel.calibrationPlan().intervals();
        double[][] readings = new double[n][n];
        boolean cumulative = channel.calibrationPlan().mode().equals("cumulative");
        for (int k = 0; k < n; k++) {
            double sum = 0;
            for (int i = 0; i < n; i++) {
                rig.arrange(
                        Map.of("channel", name, "lower", Integer.toString(i), "upper", Integer.toString((i + k) % n)));
                double m = steadied(rig, sheet, name, 20).mean();
                sum += m;
                readings[k][i] = cumulative ? sum : m;
            }
        }
        return new ClosureReadings(channel.unit(), channel.calibrationPlan().mode(), readings);
    }

    /** A reference as it is written into a point: rounded to what it is worth. */
    static String written(Quantity q) {
        return Digits.bracket(q);
    }
}
