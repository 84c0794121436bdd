package eagerneedle.core.physics;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Face;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Tries the physics of a sheet: every formula of every capture and level is compiled, every channel of a capture is
 * shown something in its unit, every mistake at the bench changes something that is there.
 */
public final class PhysicsTrial {
    private static final double A_MOMENT = 1e-3;

    private final SheetReader.Located located;
    private final Sheet sheet;
    private final List<SheetException> found = new ArrayList<>();

    private PhysicsTrial(SheetReader.Located located) {
        this.located = located;
        this.sheet = located.sheet();
    }

    /** Everything that is wrong with the physics of a sheet; nothing for a sheet without any. */
    public static List<SheetException> of(SheetReader.Located located) {
        if (!located.sheet().hasPhysics()) {
            return List.of();
        }
        PhysicsTrial trial = new PhysicsTrial(located);
        trial.names();
        if (trial.found.isEmpty()) {
            trial.session();
            located.sheet().captures().forEach(trial::capture);
        }
        if (trial.found.isEmpty()) {
            trial.mistakes();
        }
        return List.copyOf(trial.found);
    }

    /** Parts must be captures, and their parts levels; what is shown must be a channel of the capture. */
    private void names() {
        nature();
        sheet.rig().parts().forEach((name, part) -> {
            Capture c = sheet.captures().get(name);
            if (c == null && !name.equals(RigPlan.POINTS)) {
                List<String> known = new ArrayList<>(sheet.captures().keySet());
                known.addAll(RigPlan.WORDS);
                problem("/rig/" + name, 1, "there is no capture " + name + near(name, known));
                return;
            }
            channels("/rig/" + name, part);
            reserved("/rig/" + name, part);
            part.parts().keySet().stream()
                    .filter(l -> c == null || !c.levels().containsKey(l))
                    .forEach(l -> problem(
                            "/rig/" + name + "/" + l,
                            1,
                            "the capture " + name + " has no level " + l
                                    + near(l, c == null ? List.of() : c.levels().keySet())));
            part.readings().keySet().stream()
                    .filter(r -> c == null || !c.byEye().containsKey(r))
                    .forEach(r -> problem(
                            "/rig/" + name + "/readings/" + r,
                            1,
                            "nothing called " + r + " is read by eye with " + name
                                    + near(r, c == null ? List.of() : c.byEye().keySet())));
            part.readings().forEach((r, eye) -> seen("/rig/" + name + "/readings/" + r, c, r, eye));
        });
        sheet.captures().forEach((name, c) -> {
            if (!c.channels().isEmpty() && !sheet.rig().tells(name, c)) {
                problem(
                        "/captures/" + name,
                        1,
                        "the rig says nothing of this capture: write what its channels are shown, as signals of rig."
                                + name + " or of the whole rig");
            }
        });
        reserved("/rig", sheet.rig());
        channels("/rig", sheet.rig());
        sheet.rig().readings().keySet().stream()
                .filter(r -> !sheet.inputs().containsKey(r))
                .forEach(r -> problem(
                        "/rig/readings/" + r,
                        1,
                        "there is no input " + r + near(r, sheet.inputs().keySet())));
        sheet.rig().truth().keySet().stream()
                .filter(r -> !sheet.results().containsKey(r))
                .forEach(r -> problem(
                        "/rig/truth/" + r,
                        1,
                        "there is no result " + r + near(r, sheet.results().keySet())));
    }

    /** What is read by eye must be something that an eye can be shown: a plain reading, or one of the faces. */
    private void seen(String pointer, @Nullable Capture c, String name, RigPlan.Eye eye) {
        if (c == null || !c.byEye().containsKey(name)) {
            return;
        }
        String as = eye.value() == null ? c.byEye().get(name).value() : eye.value();
        if (Arrays.stream(Face.values()).noneMatch(f -> f.taken(as).isPresent()) && !isPlain(as)) {
            problem(
                    pointer,
                    1,
                    "nothing can be seen on '" + as
                            + "': no face is written so. Say under value what a rehearsal reads, "
                            + "such as 150.0(5) mm, or write every argument of the face");
        }
    }

    private static boolean isPlain(String reading) {
        try {
            return World.isReading(reading);
        } catch (IllegalArgumentException neither) {
            return false;
        }
    }

    /** What is so in every session rests on nothing that belongs to one. */
    private void nature() {
        RigPlan rig = PooledSheet.rig(sheet);
        rig.nature().forEach((name, formula) -> {
            for (String n : namesOf("/rig/nature/" + name, formula)) {
                if (!rig.nature().containsKey(n) && !Constants.has(n)) {
                    problem(
                            "/rig/nature/" + name,
                            formula.indexOf(n) + 1,
                            n + " belongs to one session; what is so in all of them can only rest on what else is in "
                                    + "nature" + near(n, rig.nature().keySet()));
                }
            }
        });
        rig.parts().forEach((c, part) -> {
            inPart("/rig/" + c, part);
            part.parts().forEach((l, level) -> inPart("/rig/" + c + "/" + l, level));
        });
    }

    private void inPart(String at, RigPlan part) {
        if (!part.nature().isEmpty()) {
            problem(at + "/nature", 1, "nature stands in the rig itself: it is so in every session, and every run.");
        }
    }

    /** Names that mean something in every rig. */
    private void reserved(String at, RigPlan part) {
        Map.of(
                        "nature",
                        part.nature().keySet(),
                        "hidden",
                        part.hidden().keySet(),
                        "state",
                        part.state().keySet(),
                        "when",
                        part.when().keySet())
                .forEach((section, names) -> names.stream()
                        .filter(n -> List.of("t", "clock", "run", "none").contains(n))
                        .forEach(n -> problem(
                                at + "/" + section + "/" + n,
                                1,
                                n + " means something of its own in a rig; give this another name.")));
    }

    private void channels(String at, RigPlan part) {
        Map.of(
                        "signals", part.signals().keySet(),
                        "edges", part.edges().keySet(),
                        "stuck", part.stuck().keySet(),
                        "circles", part.circles().keySet())
                .forEach((section, names) -> names.stream()
                        .filter(n -> !sheet.channels().containsKey(n))
                        .forEach(n -> problem(
                                at + "/" + section + "/" + n,
                                1,
                                "there is no channel " + n
                                        + near(n, sheet.channels().keySet()))));
    }

    private static String near(String name, Collection<String> known) {
        return NearName.hint(name, known);
    }

    /** Names in a formula; what cannot be read is told at its place and has none. */
    private Collection<String> namesOf(String pointer, String formula) {
        try {
            return Formula.parse(formula).names();
        } catch (FormulaException e) {
            problem(pointer, e.column(), Objects.requireNonNull(e.getMessage()));
            return List.of();
        }
    }

    private void problem(String pointer, int column, String message) {
        found.add(located.problem(pointer, column, message));
    }

    private World world() {
        return new World(sheet, PooledSheet.rig(sheet), 1);
    }

    private void session() {
        attempt(RigPlan.POINTS, "", () -> {
            Course c = world().points();
            sheet.channels().forEach((name, channel) -> {
                if (c.shows(name)) {
                    c.stands("reference", Quantity.exact(needed(channel), channel.labUnit()));
                    for (String word : List.of("lower", "upper", "upper_backwards")) {
                        c.stands(word, Quantity.exact(0, channel.labUnit()));
                    }
                    c.stands("interval", Quantity.number(1));
                    c.stands("series", Quantity.number(0));
                    c.signal(name, channel.labUnit());
                }
            });
        });
        sheet.rig()
                .truth()
                .forEach((name, text) -> attempt("", "", () -> {
                    World w = calibrated();
                    Quantity q;
                    try {
                        q = w.needed(w.drawn(text, "truth/" + name), "this");
                    } catch (FormulaException e) {
                        throw new RigException("", "", "truth/" + name, e);
                    }
                    Derived d = sheet.results().get(name);
                    if (d != null && d.unit() != null && !q.unit().fits(LabUnit.parse(d.unit()))) {
                        throw new RigException(
                                "",
                                "",
                                "truth/" + name,
                                new FormulaException(
                                        1,
                                        "this gives " + q.unit().named() + ", but " + name + " is in "
                                                + LabUnit.parse(d.unit()).named() + "."));
                    }
                }));
        attempt("", "", () -> calibrated().readings());
    }

    private static double needed(Channel channel) {
        return channel.needed().map(n -> n[1]).orElse(1.0);
    }

    /** A world in which every calibration has been done. */
    private World calibrated() {
        return calibrated(world());
    }

    private World calibrated(World w) {
        sheet.channels().forEach((name, channel) -> {
            if (channel.calibration() != null && channel.calibration().divisions() != null) {
                List<Quantity> zeros =
                        Collections.nCopies(channel.calibration().divisions(), Quantity.exact(0, channel.labUnit()));
                w.are(name + ".lower", zeros);
                w.are(name + ".upper", zeros);
            } else if (channel.calibration() != null) {
                w.is(name + ".slope", Quantity.number(1));
                w.is(name + ".intercept", Quantity.exact(0, channel.labUnit().difference()));
            }
        });
        return w;
    }

    private void capture(String name, Capture capture) {
        for (String level : capture.levels().keySet()) {
            int before = found.size();
            attempt(name, level, () -> run(calibrated().run(name, level), name, level, capture));
            if (found.size() > before) {
                // What is wrong at one level is mostly wrong at all.
                return;
            }
        }
    }

    private void run(Course course, String name, String level, Capture capture) {
        for (String channel : capture.channels()) {
            if (course.shows(channel)) {
                course.signal(
                        channel,
                        Objects.requireNonNull(sheet.channels().get(channel)).labUnit());
                course.isStuck(channel);
            } else if (!course.gates().contains(channel)) {
                throw new RigException(
                        name,
                        level,
                        "signals",
                        new FormulaException(
                                1,
                                "nothing says what " + channel + " is shown in " + name
                                        + "; write signals or edges for it."));
            }
        }
        course.lasts();
        course.advance(A_MOMENT);
        course.seen(false);
        course.seen(true);
    }

    private void mistakes() {
        for (int i = 0; i < sheet.mistakes().size(); i++) {
            Sheet.Mistake m = sheet.mistakes().get(i);
            if (!m.isAtBench()) {
                continue;
            }
            String at = "/mistakes/" + i + "/change/";
            RigPlan plan = sheet.rig();
            String last = "";
            try {
                for (Map.Entry<String, String> e : m.change().entrySet()) {
                    last = e.getKey();
                    if (!RigChange.isAtBench(e.getKey())) {
                        throw new IllegalArgumentException(
                                "a mistake is made at the bench or in reckoning; write two of them.");
                    }
                    plan = RigChange.of(plan, sheet, e.getKey(), e.getValue());
                    changed(plan);
                }
            } catch (FormulaException e) {
                problem(at + last, e.column(), lower(e));
            } catch (IllegalArgumentException e) {
                problem(at + last, 1, lower(e));
            }
        }
    }

    /** Compiles a changed plan once for every capture, at its first level. */
    private void changed(RigPlan plan) {
        World w = new World(sheet, plan, 1);
        calibrated(w);
        sheet.captures()
                .forEach((name, capture) -> run(
                        w.run(name, capture.levels().keySet().iterator().next()),
                        name,
                        capture.levels().keySet().iterator().next(),
                        capture));
    }

    private void attempt(String capture, String level, Runnable what) {
        try {
            what.run();
        } catch (RigException e) {
            found.add(placed(located, e));
        } catch (FormulaException e) {
            problem("/rig" + (capture.isEmpty() ? "" : "/" + capture), e.column(), lower(e));
        } catch (IllegalArgumentException e) {
            problem("/rig" + (capture.isEmpty() ? "" : "/" + capture), 1, lower(e));
        }
    }

    /** The problem at the entry of the sheet in which it stands. */
    public static SheetException placed(SheetReader.Located located, RigException e) {
        String part = e.capture().isEmpty() ? "" : "/" + e.capture();
        for (String p : List.of(
                "/rig" + part + "/" + e.level() + "/" + e.entry(),
                "/rig" + part + "/" + e.entry(),
                "/rig/" + e.entry(),
                "/rig" + part)) {
            if (located.places().containsKey(p)) {
                return located.problem(p, e.column(), lower(e));
            }
        }
        return located.problem("/rig", e.column(), lower(e));
    }

    private static String lower(RuntimeException e) {
        String message = String.valueOf(e.getMessage());
        return Character.toLowerCase(message.charAt(0)) + message.substring(1);
    }
}
