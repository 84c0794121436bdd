package eagerneedle.core.edit;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/**
 * The sheet of a session as a method for further ones: what was added, read and moved by hand stands in it, and a rig
 * by which it can be rehearsed, whose signals are those that were seen.
 *
 * <p>The rig is a skeleton: where a trace was fitted, the fitted curve with the noise that was left; otherwise a
 * straight line with what is left of it. Its author puts the physics in their place.
 */
public final class KeptMethod {
    private static final int FIGURES = 6;
    private static final String DEVICE = "files";

    /**
     * A method.
     *
     * @param text the sheet
     * @param remarks what of the session it does not hold, one sentence each
     */
    public record Kept(String text, List<String> remarks) {}

    private final Reduction reduction;
    private final Sheet sheet;
    private final Session session;
    private final List<String> remarks = new ArrayList<>();
    private SheetText text;

    private KeptMethod(Reduction reduction) {
        this.reduction = reduction;
        this.sheet = reduction.sheet();
        this.session = reduction.session();
        this.text = SheetText.of(session.sheetText());
    }

    /**
     * Makes a method of a session.
     *
     * @param id small letters, digits and hyphens
     * @param subject methods of one subject stand together
     */
    public static Kept of(Reduction reduction, String id, String title, String subject) {
        KeptMethod k = new KeptMethod(reduction);
        k.text = k.text.with("/id", id).with("/title", title).with("/subject", subject);
        k.quantities();
        k.inputs();
        sheetCaptures(k);
        k.devices();
        k.rig();
        return new Kept(k.text.text(), List.copyOf(k.remarks));
    }

    private static void sheetCaptures(KeptMethod k) {
        k.sheet.captures().forEach((name, capture) -> {
            k.windows(name, capture);
            k.repeats(name, capture);
        });
    }

    /** What was added beside the sheet. */
    private void quantities() {
        session.own()
                .forEach((to, all) -> all.forEach((name, d) -> {
                    Map<String, Object> q = new LinkedHashMap<>();
                    q.put("label", d.label());
                    q.put("unit", d.unit());
                    q.put("formula", d.formula());
                    String at = to.equals(Session.RESULTS) ? "/results/" : "/captures/" + to + "/quantities/";
                    text = text.with(at + name, q);
                }));
    }

    /** Readings as they were measured are what is planned next time. */
    private void inputs() {
        session.measured().forEach((name, reading) -> {
            String at = "/inputs/" + name + "/value";
            if (text.has(at)) {
                text = text.with(at, reading);
            } else {
                remarks.add(
                        "The reading of " + name + " was not written into the method: it stands for several there.");
            }
        });
    }

    /** Windows that were moved by hand lie where the last run has them. */
    private void windows(String name, Capture capture) {
        for (String w : capture.windows().keySet()) {
            List<Run> moved = session.keptRuns().stream()
                    .filter(r -> r.capture().equals(name) && r.windows().containsKey(w))
                    .toList();
            String at = "/captures/" + name + "/windows/" + w;
            if (moved.isEmpty() || !text.has(at)) {
                continue;
            }
            Window last =
                    Objects.requireNonNull(moved.get(moved.size() - 1).windows().get(w));
            text = text.with(at + "/from", seconds(last.from())).with(at + "/to", seconds(last.to()));
            if (text.has(at + "/propose")) {
                text = text.without(at + "/propose");
            }
            moved.stream()
                    .filter(r -> !Objects.requireNonNull(r.windows().get(w)).liesAs(last))
                    .forEach(r -> remarks.add("The window '" + w + "' of " + r.name()
                            + " lay elsewhere; the method has that of "
                            + moved.get(moved.size() - 1).name() + "."));
        }
    }

    private void repeats(String name, Capture capture) {
        long runs = session.keptRuns().stream()
                .filter(r -> r.capture().equals(name) && r.takesPart())
                .count();
        if (capture.levels().size() < 2 && runs > 1 && capture.repeats() < 2) {
            text = text.with("/captures/" + name + "/repeats", runs);
        }
    }

    /** Channels that came from files are read from one next time. */
    private void devices() {
        List<String> without = sheet.channels().entrySet().stream()
                .filter(e -> e.getValue().device() == null && text.has("/channels/" + e.getKey()))
                .map(Map.Entry::getKey)
                .toList();
        if (!without.isEmpty() && sheet.devices().isEmpty()) {
            Map<String, Object> d = new LinkedHashMap<>();
            d.put("label", "Files of the logger");
            d.put("driver", "file");
            text = text.with("/devices/" + DEVICE, d);
            for (String c : without) {
                text = text.with("/channels/" + c + "/device", DEVICE);
            }
        }
    }

    private void rig() {
        if (sheet.hasPhysics() || sheet.captures().isEmpty()) {
            return;
        }
        Map<String, Object> hidden = new LinkedHashMap<>();
        Map<String, Object> rig = new LinkedHashMap<>();
        Map<String, Object> truth = new LinkedHashMap<>();
        for (Map.Entry<String, Capture> e : sheet.captures().entrySet()) {
            Optional<Run> run = session.keptRuns().stream()
                    .filter(r -> r.capture().equals(e.getKey()) && r.takesPart())
                    .reduce((a, b) -> b);
            if (run.isEmpty() || !e.getValue().mode().equals("stream")) {
                remarks.add("The method has no rig: "
                        + (run.isEmpty() ? "there is no run of '" : "nothing can be guessed of the runs of '")
                        + e.getValue().label() + "'. It cannot be rehearsed until somebody writes one.");
                return;
            }
            rig.put(e.getKey(), part(e.getKey(), e.getValue(), run.get(), hidden, truth));
        }
        Map<String, Object> all = new LinkedHashMap<>();
        if (!hidden.isEmpty()) {
            all.put("hidden", hidden);
        }
        all.putAll(rig);
        if (!truth.isEmpty()) {
            all.put("truth", truth);
        }
        text = text.with("/rig", new Block(all));
    }

    private Block part(String name, Capture capture, Run run, Map<String, Object> hidden, Map<String, Object> truth) {
        Map<String, Object> signals = new LinkedHashMap<>();
        double lasts = 0;
        for (String channel : capture.channels()) {
            Trace trace = reduction
                    .trace(run, channel)
                    .orElseThrow(() -> new IllegalArgumentException("The trace of " + channel + " in " + run.name()
                            + " cannot be worked out, so no rig follows from it."));
            lasts = Math.max(lasts, trace.time()[trace.size() - 1]);
            signals.put(channel, signal(name, capture, run, channel, trace, hidden, truth));
        }
        Map<String, Object> part = new LinkedHashMap<>();
        part.put("signals", new Block(signals));
        part.put("lasts", seconds(lasts));
        return new Block(part);
    }

    private String signal(
            String name,
            Capture capture,
            Run run,
            String channel,
            Trace trace,
            Map<String, Object> hidden,
            Map<String, Object> truth) {
        for (Map.Entry<String, Derived> q : capture.quantities().entrySet()) {
            Optional<Fit> fit = reduction.fitOfRun(run, q.getKey());
            boolean through = q.getValue().formula().matches("(fit|polynomial)\\(" + channel + "\\b.*");
            if (through && fit.isPresent() && fit.get().yUnit().fits(trace.unit())) {
                Optional<String> curve = RigCurve.of(fit.get());
                if (curve.isPresent()) {
                    return fitted(name, capture, channel, q.getKey(), fit.get(), curve.get(), hidden, truth);
                }
            }
        }
        return straight(channel, trace, hidden);
    }

    private String fitted(
            String name,
            Capture capture,
            String channel,
            String fitName,
            Fit fit,
            String curve,
            Map<String, Object> hidden,
            Map<String, Object> truth) {
        String formula = curve;
        for (int k = 0; k < fit.names().size(); k++) {
            String parameter = RigCurve.name(fit, k);
            String called = "true_" + channel + "_" + parameter;
            hidden.put(called, written(fit.parameter(k), RigCurve.isAbsolute(parameter)));
            formula = formula.replaceAll("<" + parameter + ">", called);
            for (Map.Entry<String, Derived> q : capture.quantities().entrySet()) {
                if (RigCurve.takes(q.getValue().formula(), fitName, parameter)) {
                    sheet.results().forEach((result, d) -> {
                        if (d.formula().replace(" ", "").equals("mean(" + name + "." + q.getKey() + ")")) {
                            truth.put(result, called);
                        }
                    });
                }
            }
        }
        return formula + noise(fit.residualSd(), fit.yUnit());
    }

    private static String straight(String channel, Trace trace, Map<String, Object> hidden) {
        int n = trace.size();
        double mt = 0;
        double mv = 0;
        for (int i = 0; i < n; i++) {
            mt += trace.time()[i] / n;
            mv += trace.value()[i] / n;
        }
        double stt = 0;
        double stv = 0;
        for (int i = 0; i < n; i++) {
            stt += (trace.time()[i] - mt) * (trace.time()[i] - mt);
            stv += (trace.time()[i] - mt) * (trace.value()[i] - mv);
        }
        double slope = stt > 0 ? stv / stt : 0;
        double squares = 0;
        for (int i = 0; i < n; i++) {
            double r = trace.value()[i] - mv - slope * (trace.time()[i] - mt);
            squares += r * r;
        }
        LabUnit unit = trace.unit();
        String rate = unit.difference().per(LabUnit.SECOND).symbol();
        hidden.put("true_" + channel + "_start", (number(mv - slope * mt) + " " + unit.symbol()).strip());
        hidden.put("true_" + channel + "_rate", (number(slope) + " " + rate).strip());
        return "true_" + channel + "_start + true_" + channel + "_rate * t"
                + noise(Math.sqrt(squares / Math.max(1, n - 2)), unit);
    }

    private static String noise(double sd, LabUnit unit) {
        return sd > 0
                ? " + uncertain(" + ("0 " + unit.difference().symbol()).strip() + ", "
                        + (number(sd) + " " + unit.difference().symbol()).strip() + ")"
                : "";
    }

    private static String written(Quantity q, boolean absolute) {
        LabUnit unit = absolute ? q.unit() : q.unit().difference();
        return (number(q.value()) + " " + unit.symbol()).strip();
    }

    private static String seconds(double s) {
        return number(s) + " s";
    }

    private static String number(double v) {
        return String.format(Locale.ROOT, "%." + FIGURES + "g", v)
                .replaceFirst("(\\.\\d*?)0+($|e)", "$1$2")
                .replaceFirst("\\.($|e)", "$1");
    }
}
