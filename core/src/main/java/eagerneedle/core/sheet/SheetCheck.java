package eagerneedle.core.sheet;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Written;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Finds what a schema cannot: formulas that do not parse, names nobody defines, circles, units and readings that do not
 * read.
 */
final class SheetCheck {
    private final SheetReader.Located located;
    private final Sheet sheet;
    private final List<SheetException> found = new ArrayList<>();

    private SheetCheck(SheetReader.Located located) {
        this.located = located;
        this.sheet = located.sheet();
    }

    /** Everything that is wrong, in the order in which it was found; empty for a good sheet. */
    static List<SheetException> check(SheetReader.Located located) {
        SheetCheck c = new SheetCheck(located);
        if (!new PoolCheck(located.sheet(), c).all()) {
            // Without the other sheet nobody knows which names are wrong.
            return c.found;
        }
        c.readings("inputs", located.sheet().inputs());
        c.readings("planned", located.sheet().planned());
        c.correlations();
        new ChannelCheck(located, c).all();
        c.steps();
        c.planning();
        c.formulas();
        new ReferenceCheck(located, c).all();
        return c.found;
    }

    /** Keeps a problem at an entry, {@code column} characters into it. */
    void problem(String pointer, int column, String message) {
        found.add(located.problem(pointer, column, message));
    }

    private void readings(String section, Map<String, Sheet.Input> inputs) {
        inputs.forEach(
                (name, input) -> attempt("/" + section + "/" + name + "/value", () -> Written.check(input.value())));
    }

    /** A sign-off is kept under its step's id, so no two steps share one. */
    private void steps() {
        Set<String> seen = new LinkedHashSet<>();
        for (int i = 0; i < sheet.prepare().size() + sheet.finish().size(); i++) {
            boolean before = i < sheet.prepare().size();
            int at = before ? i : i - sheet.prepare().size();
            String id = (before ? sheet.prepare() : sheet.finish()).get(at).id();
            if (!seen.add(id)) {
                problem(
                        (before ? "/prepare/" : "/finish/") + at + "/id",
                        1,
                        "there is a step " + id + " already; signing one off would sign both.");
            }
        }
    }

    private void correlations() {
        for (int i = 0; i < sheet.correlations().size(); i++) {
            Sheet.Correlation c = sheet.correlations().get(i);
            for (String name : c.between()) {
                if (!sheet.inputs().containsKey(name)) {
                    problem(
                            "/correlations/" + i + "/between",
                            1,
                            "there is no input " + name
                                    + NearName.hint(name, sheet.inputs().keySet()));
                }
            }
            if (c.between().size() != 2 || c.between().get(0).equals(c.between().get(1))) {
                problem(
                        "/correlations/" + i + "/between",
                        1,
                        "a correlation is declared between two different inputs.");
            }
        }
    }

    private void planning() {
        for (int i = 0; i < sheet.materials().size(); i++) {
            String at = "/materials/" + i;
            names(
                    at + "/amount",
                    sheet.materials().get(i).amount(),
                    sheet.inputs().keySet());
            String unit = sheet.materials().get(i).unit();
            if (unit != null) {
                attempt(at + "/unit", () -> LabUnit.parse(unit));
            }
        }
        timeline();
        sheet.captures().forEach((c, capture) -> {
            Capture.SpreadPlan spread = capture.spread();
            if (spread != null) {
                String at = "/captures/" + c + "/spread";
                Set<String> known = new LinkedHashSet<>(sheet.inputs().keySet());
                known.add(spread.set());
                names(at + "/plotted", spread.plotted(), known);
                attempt(
                        at + "/from",
                        () -> Reading.parse(spread.to())
                                .unit()
                                .convert(0, Reading.parse(spread.from()).unit()));
            }
        });
        sheet.inputs().forEach((name, input) -> {
            if (input.actual() != null && !sheet.channels().containsKey(input.actual())) {
                problem(
                        "/inputs/" + name + "/actual",
                        1,
                        "there is no channel " + input.actual()
                                + NearName.hint(input.actual(), sheet.channels().keySet()));
            }
        });
    }

    private void timeline() {
        List<String> ids = sheet.timeline().stream().map(Sheet.Task::id).toList();
        boolean known = true;
        for (int i = 0; i < sheet.timeline().size(); i++) {
            for (String before : sheet.timeline().get(i).after()) {
                if (!ids.contains(before)) {
                    known = false;
                    problem(
                            "/timeline/" + i + "/after",
                            1,
                            "the task " + ids.get(i) + " waits for " + before + ", which is not in the time line"
                                    + NearName.hint(before, ids));
                }
            }
        }
        if (known) {
            attempt(
                    "/timeline",
                    () -> TimeLine.of(
                            sheet.timeline().stream().map(Sheet.Task::toTask).toList()));
        }
    }

    private void formulas() {
        Map<String, Set<String>> uses = new LinkedHashMap<>();
        Map<String, String> places = new HashMap<>();
        Set<String> global = new LinkedHashSet<>(sheet.inputs().keySet());
        global.addAll(sheet.results().keySet());
        sheet.captures().forEach((c, capture) -> columnsOf(capture).forEach(q -> global.add(c + "." + q)));
        sheet.channels().forEach((c, channel) -> global.addAll(channel.givenByCalibration(c)));
        global.addAll(sheet.pool().columns());
        for (String name : sheet.results().keySet()) {
            if (sheet.inputs().containsKey(name)) {
                problem("/results/" + name, 1, name + " is an input and a result; give one of them another name.");
            }
        }
        sheet.results().forEach((name, d) -> derived("/results/" + name, name, d, global, global, uses, places, ""));
        sheet.captures().forEach((c, capture) -> {
            String p = "/captures/" + c;
            boolean misspelt = false;
            for (int i = 0; i < capture.channels().size(); i++) {
                String channel = capture.channels().get(i);
                if (!sheet.channels().containsKey(channel)) {
                    misspelt = true;
                    problem(
                            p + "/channels/" + i,
                            1,
                            "there is no channel " + channel
                                    + NearName.hint(channel, sheet.channels().keySet()));
                }
            }
            // One channel with a wrong name is one mistake, though windows and formulas name the right one.
            Set<String> channels = new LinkedHashSet<>(capture.channels());
            if (misspelt) {
                channels.addAll(sheet.channels().keySet());
            }
            capture.windows().forEach((w, plan) -> {
                if (plan.on() != null && !channels.contains(plan.on())) {
                    problem(
                            p + "/windows/" + w + "/on",
                            1,
                            "this capture has no channel " + plan.on() + NearName.hint(plan.on(), capture.channels()));
                }
            });
            new ModeCheck(sheet, this).of(p, capture);
            Set<String> known = new LinkedHashSet<>(global);
            known.addAll(columnsOf(capture));
            known.addAll(channels);
            if (capture.until() != null) {
                Set<String> live = new LinkedHashSet<>(channels);
                live.add("t");
                names(p + "/until", capture.until(), live);
            }
            capture.windows().forEach((w, plan) -> {
                plan.ends().ifPresent(e -> {
                    names(p + "/windows/" + w + "/from", e.from(), known);
                    names(p + "/windows/" + w + "/to", e.to(), known);
                });
            });
            Set<String> inPlan = new LinkedHashSet<>(known);
            inPlan.addAll(sheet.planned().keySet());
            capture.levels()
                    .forEach((l, level) -> level.set().forEach((name, formula) -> {
                        String at = p + "/levels/" + l + "/set/" + name;
                        uses.computeIfAbsent(c + "." + name, k -> new LinkedHashSet<>())
                                .addAll(names(at, formula, global));
                        places.put(c + "." + name, at);
                    }));
            capture.rules().forEach((r, rule) -> names(p + "/rules/" + r + "/must", rule.must(), known));
            new ReferenceCheck(located, this)
                    .pictures(
                            p + "/views",
                            capture.views(),
                            known,
                            capture.quantities().keySet());
            capture.quantities()
                    .forEach((q, d) ->
                            derived(p + "/quantities/" + q, c + "." + q, d, known, inPlan, uses, places, c + "."));
        });
        try {
            new Circles(located, uses, places).find();
        } catch (SheetException circle) {
            found.add(circle);
        }
    }

    private void derived(
            String pointer,
            String key,
            Derived d,
            Set<String> known,
            Set<String> inPlan,
            Map<String, Set<String>> uses,
            Map<String, String> places,
            String prefix) {
        String unit = d.unit();
        if (unit != null) {
            attempt(pointer + "/unit", () -> LabUnit.parse(unit));
        }
        Set<String> names = names(pointer + "/formula", d.formula(), known);
        d.ways().forEach((way, formula) -> names(pointer + "/ways/" + way, formula, known));
        if (d.planned() != null) {
            names(pointer + "/planned", d.planned(), inPlan);
        }
        Set<String> needs = new LinkedHashSet<>();
        for (String n : names) {
            needs.add(uses.containsKey(prefix + n) || isRunName(prefix, n) ? prefix + n : n);
        }
        uses.put(key, needs);
        places.put(key, pointer + "/formula");
    }

    private boolean isRunName(String prefix, String name) {
        return !prefix.isEmpty()
                && columnsOf(sheet.capture(prefix.substring(0, prefix.length() - 1)))
                        .contains(name);
    }

    /** The names in a formula, all of which must be known. */
    Set<String> names(String pointer, String formula, Set<String> known) {
        Formula parsed;
        try {
            parsed = Formula.parse(formula);
            parsed.checkCalls();
        } catch (FormulaException e) {
            problem(pointer, e.column(), e.getMessage());
            return Set.of();
        }
        for (String name : parsed.names()) {
            if (!known.contains(name) && !Constants.has(name) && !name.equals("none") && !isPart(name, known)) {
                problem(
                        pointer,
                        formula.indexOf(name) + 1,
                        "the name " + name + " is not known here" + NearName.hint(name, known));
            }
        }
        return parsed.names();
    }

    /** Part of something known, such as {@code fall_line.slope}; which parts a fit has shows when it is made. */
    private boolean isPart(String name, Set<String> known) {
        int dot = name.lastIndexOf('.');
        String whole = dot < 0 ? "" : name.substring(0, dot);
        return known.contains(whole) && !sheet.inputs().containsKey(whole);
    }

    /** The unit of a channel; empty when there is no such channel, or none of its unit, which is told elsewhere. */
    Optional<LabUnit> unitOf(String channel) {
        try {
            return Optional.ofNullable(sheet.channels().get(channel)).map(Channel::labUnit);
        } catch (IllegalArgumentException unknown) {
            return Optional.empty();
        }
    }

    /** What the runs of a capture have a column of. */
    static Set<String> columnsOf(Capture capture) {
        Set<String> columns = new LinkedHashSet<>();
        capture.levels().values().forEach(l -> columns.addAll(l.set().keySet()));
        columns.addAll(capture.byEye().keySet());
        columns.addAll(capture.turned());
        columns.addAll(capture.quantities().keySet());
        return columns;
    }

    /** Reads something; what it complains of is kept with its place. True when it could be read. */
    boolean attempt(String pointer, Runnable reading) {
        try {
            reading.run();
            return true;
        } catch (IllegalArgumentException e) {
            String said = String.valueOf(e.getMessage());
            problem(pointer, 1, Character.toLowerCase(said.charAt(0)) + said.substring(1));
            return false;
        }
    }
}
