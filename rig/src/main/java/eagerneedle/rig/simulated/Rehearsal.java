package eagerneedle.rig.simulated;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.History;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
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

/**
 * Carries a whole method out on a simulated rig, as a careful person would: reads the inputs, calibrates, captures every
 * scheduled run. General: it knows the sheet and the rig's interface, not the experiment.
 *
 * @param session  the session as it stands after the last run
 * @param acts     the commands that made it, in order
 * @param samples  raw samples by run, then by channel
 * @param truth    what was hidden, by the names of the ledger
 */
public record Rehearsal(Session session, List<Command> acts, Map<Integer, Map<String, RawSamples>> samples, Map<String, Quantity> truth) {
    private static final int CALIBRATION_SAMPLES = 100;

    /** Carries the method out, starting at a moment. The sheet must name a simulated rig. */
    public static Rehearsal of(SheetReader.Located located, RigModel rig, Instant start) {
        Sheet sheet = located.sheet();
        Session empty = Session.start(located.text(), sheet.title(), start);
        History history = new History(empty);
        List<Command> acts = new ArrayList<>();
        Map<Integer, Map<String, RawSamples>> samples = new HashMap<>();
        rig.readings().forEach((name, reading) -> {
            if (sheet.inputs().containsKey(name)) {
                act(history, acts, new Command.SetMeasured(name, sheet.inputs().get(name).label(), reading));
            }
        });
        Instant now = start.plus(Duration.ofMinutes(10));
        for (Sheet.Step step : sheet.prepare()) {
            act(history, acts, new Command.SignOff(step.id(), step.text(), now));
        }
        for (Map.Entry<String, Sheet.Channel> c : sheet.channels().entrySet()) {
            if (c.getValue().calibration() != null) {
                act(history, acts, new Command.Calibrate(calibrate(c.getKey(), c.getValue(), rig, now)));
            }
        }
        now = now.plus(Duration.ofMinutes(15));
        for (Map.Entry<String, Sheet.Capture> c : sheet.captures().entrySet()) {
            for (String level : c.getValue().levels().keySet()) {
                for (int i = 0; i < c.getValue().repeats(); i++) {
                    String device = sheet.channels().get(c.getValue().channels().get(0)).device();
                    Run run = Run.captured(history.session().nextRunId(), c.getKey(), level, now, sheet.devices().get(device).label(), Run.COUNTS);
                    samples.put(run.id(), capture(rig, sheet, c.getKey(), level, c.getValue()));
                    act(history, acts, new Command.KeepRun(run));
                    now = now.plus(Duration.ofSeconds(50));
                }
            }
        }
        return new Rehearsal(history.session(), acts, samples, rig.truth());
    }

    private static void act(History history, List<Command> acts, Command command) {
        history.apply(command);
        acts.add(command);
    }

    private static Map<String, RawSamples> capture(RigModel rig, Sheet sheet, String capture, String level, Sheet.Capture plan) {
        rig.arrange(Map.of("capture", capture, "level", level));
        double rate = sheet.channels().get(plan.channels().get(0)).rate();
        return stream(rig, rate, (int) (Math.min(rig.duration(), plan.longest()) * rate));
    }

    /** n samples of every channel at a rate in samples a second. */
    private static Map<String, RawSamples> stream(RigModel rig, double rate, int n) {
        List<String> channels = rig.channels();
        double[] time = new double[n];
        double[][] counts = new double[channels.size()][n];
        rig.begin();
        for (int i = 0; i < n; i++) {
            time[i] = i / rate;
            double[] read = rig.read();
            for (int c = 0; c < read.length; c++) {
                counts[c][i] = read[c];
            }
            rig.advance(1 / rate);
        }
        Map<String, RawSamples> out = new LinkedHashMap<>();
        for (int c = 0; c < channels.size(); c++) {
            out.put(channels.get(c), new RawSamples(time, counts[c]));
        }
        return out;
    }

    private static Calibration calibrate(String name, Sheet.Channel channel, RigModel rig, Instant now) {
        Chain chain = channel.toChain();
        List<CalibrationPoint> points = new ArrayList<>();
        for (String reference : channel.calibration().points()) {
            rig.arrange(Map.of("reference", reference));
            RawSamples raw = stream(rig, channel.rate(), CALIBRATION_SAMPLES).get(name);
            double[] indication = new double[raw.size()];
            for (int i = 0; i < indication.length; i++) {
                indication[i] = chain.indication(raw.values()[i]);
            }
            WindowStatistics s = WindowStatistics.of(new Trace(name, raw.time(), indication, channel.labUnit(), chain.step(), List.of()));
            points.add(new CalibrationPoint(reference, s.mean(), s.uMean(), s.n(), s.steady(3)));
        }
        int days = channel.calibration().days();
        return new Calibration(name + "-" + now.getEpochSecond(), name, channel.calibration().kind(), channel.unit(), points, now,
                now.plus(Duration.ofDays(days == 0 ? 365 : days)), "instructor on duty", channel.calibration().reference() == null ? "" : "reference: " + channel.calibration().reference());
    }
}
