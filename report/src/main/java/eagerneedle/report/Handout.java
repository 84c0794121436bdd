package eagerneedle.report;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;
import eagerneedle.picture.SvgSurface;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A method on paper, for those who carry it out: cautions first, the question, what to have ready, questions to answer
 * before, the steps in the order of the work with tables to fill, and where it ends.
 *
 * <p>The instructor's copy has in the same places what is expected, and the mistakes to look for. What is expected is
 * what one careful rehearsal found, so that columns of runs can be filled too; it is said so.
 */
public final class Handout {
    /** Columns of a table that fit across a page. */
    private static final int WIDE = 7;

    private static final int MOST_ROWS = 24;
    private static final int LONG = 40;

    private final Sheet sheet;
    private final Optional<Reduction> expected;
    private final Figures figures = new Figures();

    private Handout(Sheet sheet, Optional<Reduction> expected) {
        this.sheet = sheet;
        this.expected = expected;
    }

    /**
     * The page as well-formed HTML.
     *
     * @param expected a rehearsal of the method for the instructor's copy; empty for students
     */
    public static String html(Sheet sheet, Optional<Reduction> expected, Paper paper) {
        return Papers.html("handout.ftlh", new Handout(sheet, expected).model(paper));
    }

    /** The same as PDF. */
    public static byte[] pdf(Sheet sheet, Optional<Reduction> expected, Paper paper) {
        return Papers.pdf(html(sheet, expected, paper));
    }

    private Map<String, Object> model(Paper paper) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("paper", paper.css());
        m.put("key", expected.isPresent());
        m.put("title", sheet.title());
        m.put("place", sheet.place() == null ? "" : sheet.place());
        m.put("question", sheet.question() == null ? "" : sheet.question());
        m.put("cautions", sheet.cautions());
        m.put(
                "principle",
                sheet.principle().stream()
                        .map(p -> Map.of(
                                "text", p.text() == null ? "" : p.text(), "picture", figures.equation(p.formula())))
                        .toList());
        m.put("drawing", Apparatus.of(sheet).map(Handout::drawing).orElse(""));
        m.put("ready", ready());
        m.put("wiring", wiring());
        m.put("before", before());
        m.put("inputs", inputs());
        m.put("prepare", sheet.prepare().stream().map(Handout::step).toList());
        m.put("calibrations", calibrations());
        m.put("captures", captures());
        m.put("sketches", sketches());
        m.put("results", results());
        m.put("comparisons", comparisons());
        m.put("mistakes", expected.isEmpty() ? List.of() : mistakes());
        m.put("finish", sheet.finish().stream().map(Handout::step).toList());
        return m;
    }

    private static String drawing(Apparatus a) {
        SvgSurface s = new SvgSurface(640, 300, false, "handout");
        new DrawingPainter(a.drawing(), Ink.SURFACE, 0, 0, 640, 300).paint(s, a.words(), "");
        return s.document("Drawing of the apparatus");
    }

    private static String step(Sheet.Step s) {
        return s.text() + (s.minutes() > 0 ? " (" + plain(s.minutes()) + " min before it may be signed)" : "");
    }

    private static String time(double minutes) {
        return minutes < 1 ? plain(Math.rint(60 * minutes)) + " s" : plain(minutes) + " min";
    }

    private static String plain(double v) {
        return Notation.plain(v, 4);
    }

    /** Instruments, what readings are taken with, and materials with their amounts. */
    private List<String> ready() {
        Set<String> out = new LinkedHashSet<>();
        sheet.devices().values().forEach(d -> out.add(d.label()));
        sheet.inputs().values().stream()
                .filter(i -> i.by() != null && !Boolean.TRUE.equals(i.given()))
                .forEach(i -> out.add(capital(i.by())));
        sheet.captures()
                .values()
                .forEach(c ->
                        c.byEye().values().stream().filter(i -> i.by() != null).forEach(i -> out.add(capital(i.by()))));
        sheet.materials()
                .forEach(x -> out.add(
                        x.label() + expected.map(r -> ": " + amount(r, x)).orElse("")));
        return List.copyOf(out);
    }

    private static String amount(Reduction r, Sheet.Material x) {
        try {
            Quantity q = r.evaluate(x.amount(), "handout", x.label());
            return (x.unit() == null ? q : q.to(LabUnit.parse(x.unit()))).toString();
        } catch (IllegalArgumentException e) {
            return x.amount();
        }
    }

    private List<Map<String, String>> wiring() {
        List<Map<String, String>> out = new ArrayList<>();
        sheet.channels()
                .forEach((name, c) -> out.add(Map.of(
                        "label", c.label(),
                        "tag", c.tag() == null ? "" : c.tag(),
                        "input", c.inputOr(name),
                        "place", c.position() == null ? "" : c.position(),
                        "unit", c.labUnit().pretty())));
        return out;
    }

    /** What is to be thought about before anything is switched on. */
    private List<String> before() {
        List<String> out = new ArrayList<>();
        Optional<Map.Entry<String, Derived>> main = main();
        long read = sheet.inputs().values().stream()
                .filter(i -> !Boolean.TRUE.equals(i.given()))
                .count();
        main.ifPresent(r -> {
            if (read + sheet.channels().size() > 1) {
                out.add("Which of what you read contributes most to the uncertainty of the " + lower(label(r))
                        + ", and why do you think so?");
            }
            out.add("About how large do you expect the " + lower(label(r)) + " to be? Say how you estimated it.");
        });
        for (Map.Entry<String, Capture> c : sheet.captures().entrySet()) {
            if (c.getValue().levels().size() > 2) {
                List<String> levels = c.getValue().levels().keySet().stream()
                        .limit(6)
                        .map(l -> Notebook.level(c.getValue(), l))
                        .toList();
                out.add(c.getValue().label() + ": in what order will the readings come out at "
                        + String.join(", ", levels) + (c.getValue().levels().size() > 6 ? ", ..." : "")
                        + "? Sketch what you expect.");
                break;
            }
        }
        if (!sheet.mistakes().isEmpty()) {
            out.add("Name one mistake that would make the result too large, and how you would notice it.");
        }
        return out;
    }

    private Optional<Map.Entry<String, Derived>> main() {
        return sheet.comparisons().stream()
                .map(c -> Map.entry(
                        c.result(), Optional.ofNullable(sheet.results().get(c.result()))))
                .filter(e -> e.getValue().isPresent())
                .map(e -> Map.entry(e.getKey(), e.getValue().get()))
                .findFirst()
                .or(() -> sheet.results().entrySet().stream()
                        .filter(e -> e.getValue().label() != null)
                        .reduce((a, b) -> b));
    }

    private static String label(Map.Entry<String, Derived> r) {
        return r.getValue().label() == null ? r.getKey() : r.getValue().label();
    }

    private static String lower(String s) {
        return s.length() > 1 && Character.isLowerCase(s.charAt(1))
                ? Character.toLowerCase(s.charAt(0)) + s.substring(1)
                : s;
    }

    private static String capital(String s) {
        return s.isEmpty() ? s : Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    private List<Map<String, Object>> inputs() {
        List<Map<String, Object>> out = new ArrayList<>();
        sheet.inputs().forEach((name, i) -> {
            boolean given = Boolean.TRUE.equals(i.given());
            out.add(Map.of(
                    "label", i.label(),
                    "by", i.by() == null ? "" : i.by(),
                    "given", given ? Notation.asWritten(i.value()) : "",
                    "unit", unitOf(i.value()),
                    "expected",
                            given
                                    ? ""
                                    : expected.flatMap(r -> r.quantity(new Key.Global(name)))
                                            .map(Quantity::toString)
                                            .orElse("")));
        });
        return out;
    }

    private static String unitOf(String reading) {
        try {
            return Reading.parse(reading).unit().pretty();
        } catch (IllegalArgumentException formula) {
            return "";
        }
    }

    private List<Map<String, Object>> calibrations() {
        List<Map<String, Object>> out = new ArrayList<>();
        sheet.channels().values().forEach(c -> {
            if (c.calibration() != null) {
                Channel.CalibrationPlan p = c.calibration();
                List<String> set = new ArrayList<>();
                p.points().forEach(x -> set.add(Notation.asWritten(x.words())));
                p.verify().forEach(x -> set.add(Notation.asWritten(x.words()) + " (to verify)"));
                out.add(Map.of(
                        "label", c.label(),
                        "kind", p.kind(),
                        "prepare", p.prepare() == null ? "" : p.prepare(),
                        "unit", c.labUnit().pretty(),
                        "points", set.stream().limit(MOST_ROWS).toList()));
            }
        });
        return out;
    }

    /** Each capture with its rows, cut into as many tables as fit across a page. */
    private List<Map<String, Object>> captures() {
        List<Map<String, Object>> out = new ArrayList<>();
        sheet.captures().forEach((name, c) -> {
            List<Map<String, String>> columns = new ArrayList<>();
            c.byEye().forEach((n, i) -> columns.add(column(n, i.label(), unitOf(i.value()))));
            c.quantities().forEach((n, q) -> {
                if (q.label() != null) {
                    columns.add(column(
                            n,
                            q.label(),
                            q.unit() == null ? "" : LabUnit.parse(q.unit()).pretty()));
                }
            });
            List<Map<String, Object>> tables = new ArrayList<>();
            for (int from = 0; from < Math.max(1, columns.size()); from += WIDE - 1) {
                List<Map<String, String>> part = columns.subList(from, Math.min(columns.size(), from + WIDE - 1));
                tables.add(Map.of("heads", part, "rows", rows(name, c, part)));
            }
            long runs = (long) c.levels().size() * c.repeats();
            out.add(Map.of(
                    "label",
                    c.label(),
                    "hint",
                    c.hint() == null ? "" : c.hint(),
                    "runs",
                    runs + (runs == 1 ? " run" : " runs") + (c.minutes() > 0 ? ", " + time(c.minutes()) + " each" : ""),
                    "tables",
                    tables,
                    "cut",
                    runs > MOST_ROWS ? "The table has room for the first " + MOST_ROWS + " runs." : ""));
        });
        return out;
    }

    private static Map<String, String> column(String name, String label, String unit) {
        return Map.of(
                "name",
                name,
                "label",
                label.length() > LONG ? label.substring(0, LONG - 1) + "…" : label,
                "unit",
                unit);
    }

    private List<Map<String, Object>> rows(String name, Capture c, List<Map<String, String>> columns) {
        List<Map<String, Object>> rows = new ArrayList<>();
        List<Run> taken = expected.map(r -> r.runs().stream()
                        .filter(x -> x.capture().equals(name) && x.discard() == null)
                        .toList())
                .orElse(List.of());
        int at = 0;
        for (String level : c.levels().keySet()) {
            for (int i = 0; i < c.repeats() && rows.size() < MOST_ROWS; i++) {
                int n = at++;
                rows.add(Map.of(
                        "level",
                        Notebook.level(c, level),
                        "cells",
                        columns.stream()
                                .map(h -> n < taken.size()
                                        ? expected.orElseThrow()
                                                .ofRun(taken.get(n), Objects.requireNonNull(h.get("name")))
                                                .quantity()
                                                .map(q -> cell(q, h.get("unit")))
                                                .orElse("")
                                        : "")
                                .toList()));
            }
        }
        return rows;
    }

    /** In the unit of the heading, which stands over it. */
    private static String cell(Quantity q, @Nullable String heading) {
        return q.unit().pretty().equals(heading) ? Notation.bracketed(q.value(), q.u()) : q.toString();
    }

    private List<Map<String, String>> sketches() {
        return sheet.pictures().stream()
                .limit(2)
                .map(p -> Map.of(
                        "title", p.title(),
                        "x", axis(p.xLabel(), p.xUnit()),
                        "y", axis(p.yLabel(), p.yUnit())))
                .toList();
    }

    private static String axis(@Nullable String label, @Nullable String unit) {
        return (label == null ? "" : label)
                + (unit == null || unit.isEmpty()
                        ? ""
                        : ", " + LabUnit.parse(unit).pretty());
    }

    private List<Map<String, String>> results() {
        List<Map<String, String>> out = new ArrayList<>();
        sheet.results().forEach((n, d) -> {
            if (d.label() != null) {
                Optional<Quantity> q = expected.flatMap(r -> r.quantity(new Key.Global(n)));
                out.add(Map.of(
                        "label", d.label(),
                        "unit",
                                d.unit() == null
                                        ? q.map(x -> x.unit().pretty()).orElse("")
                                        : LabUnit.parse(d.unit()).pretty(),
                        "expected", q.map(Quantity::toString).orElse("")));
            }
        });
        return out;
    }

    private List<Map<String, String>> comparisons() {
        return sheet.comparisons().stream()
                .map(c -> Map.of(
                        "label", c.label(),
                        "verdict",
                                expected.flatMap(r -> r.comparisons().stream()
                                                .filter(x -> x.id().equals(c.id()))
                                                .findFirst()
                                                .map(x -> x.verdict(r.speaks(x.id()))))
                                        .orElse("")))
                .toList();
    }

    private List<Map<String, String>> mistakes() {
        return sheet.mistakes().stream()
                .map(x -> Map.of("label", x.label(), "says", x.says()))
                .toList();
    }
}
