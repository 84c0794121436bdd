package eagerneedle.report;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Window;
import eagerneedle.core.watch.Finding;
import eagerneedle.report.picture.BudgetPicture;
import eagerneedle.report.picture.FormulaPicture;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.NeedlePicture;
import eagerneedle.report.picture.Plot;
import eagerneedle.report.picture.PlotPainter;
import eagerneedle.report.picture.SvgSurface;
import eagerneedle.store.bench.BenchFile;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** One self-contained HTML page: question, equations, calibrations, runs, results, verdicts, budget, watches and the notebook. */
public final class HtmlReport {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm").withLocale(java.util.Locale.UK).withZone(ZoneId.systemDefault());

    private final Reduction reduction;
    private final Instant now;
    private int pictures;

    private HtmlReport(Reduction reduction, Instant now) {
        this.reduction = reduction;
        this.now = now;
    }

    /** The page as text. Every figure in it is also in the ledger export. {@code now} decides which calibrations are overdue. */
    public static String of(Reduction reduction, List<Finding> findings, List<BenchFile.Act> acts, Instant now) {
        return Papers.html("report.ftlh", new HtmlReport(reduction, now).model(findings, acts));
    }

    private Map<String, Object> model(List<Finding> findings, List<BenchFile.Act> acts) {
        Map<String, Object> m = new LinkedHashMap<>();
        Sheet sheet = reduction.sheet();
        m.put("title", sheet.title());
        m.put("place", sheet.place());
        m.put("date", STAMP.format(reduction.session().created()));
        m.put("question", sheet.question());
        m.put("principle", sheet.principle().stream().map(p -> Map.of("text", p.text() == null ? "" : p.text(), "picture", equation(p.formula()))).toList());
        m.put("groups", groups());
        m.put("calibrations", reduction.session().calibrations().stream().map(this::calibration).toList());
        m.put("captures", captures());
        m.put("plots", sheet.pictures().stream().flatMap(p -> SessionPlots.columns(reduction, p).stream()).map(p -> Map.of("title", p.title(), "svg", plot(p, 620, 330))).toList());
        m.put("comparisons", reduction.comparisons().stream().map(this::comparison).toList());
        m.put("checks", reduction.checks().stream().map(c -> Map.of("label", c.check().label(), "state", c.met().map(b -> b ? "met" : "not met").orElse("not yet to be judged"))).toList());
        m.put("findings", findings.stream().map(f -> Map.of("message", f.message(), "cause", f.cause(), "remedy", f.remedy())).toList());
        m.put("acts", acts.stream().map(a -> Map.of("at", STAMP.format(a.at()), "text", a.text())).toList());
        m.put("budget", budget());
        return m;
    }

    private String budget() {
        Sheet.Comparison main = reduction.sheet().mainComparison();
        return main == null ? "" : reduction.quantity(main.result()).map(q -> {
            Budget b = Budget.of(q);
            double h = BudgetPicture.height(b, 10);
            SvgSurface s = surface(640, h);
            BudgetPicture.paint(s, b, 0, 0, 640, 10);
            return s.document("Uncertainty budget");
        }).orElse("");
    }

    private List<Map<String, Object>> groups() {
        Map<String, List<Map<String, String>>> groups = new LinkedHashMap<>();
        for (Ledger.Entry e : reduction.ledger().entries()) {
            if (e.key().startsWith("run ")) {
                continue;
            }
            Map<String, String> row = new LinkedHashMap<>();
            row.put("label", e.label());
            row.put("value", e.quantity().map(q -> Notation.bracketed(q.value(), q.u())).orElse("—"));
            row.put("unit", e.quantity().map(q -> q.unit().pretty()).orElse(""));
            row.put("expanded", e.quantity().map(HtmlReport::expanded).orElse(e.instead()));
            row.put("source", reduction.formula(e.key()).orElse(e.source()));
            row.put("doubt", e.quantity().map(q -> String.join(" ", reduction.doubts(q, now))).orElse(""));
            groups.computeIfAbsent(e.group(), k -> new ArrayList<>()).add(row);
        }
        List<Map<String, Object>> out = new ArrayList<>();
        groups.forEach((name, rows) -> out.add(Map.of("name", name, "rows", rows)));
        return out;
    }

    private static String expanded(Quantity q) {
        return q.isExact() ? "taken as exact" : Notation.plusMinus(q.value(), Coverage.DEFAULT.expanded(q)) + " (k = " + Notation.plain(Coverage.DEFAULT.factor(q.dof()), 3) + ")";
    }

    private Map<String, Object> calibration(Calibration c) {
        Sheet.Channel channel = reduction.sheet().channels().get(c.channel());
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("channel", channel == null ? c.channel() : channel.label());
        m.put("kind", c.kind());
        m.put("taken", STAMP.format(c.taken()));
        m.put("due", STAMP.format(c.due()));
        m.put("by", c.by());
        m.put("conditions", (c.reference() == null || c.reference().isBlank() ? "" : "Reference: " + c.reference() + ". ") + (c.conditions() == null ? "" : c.conditions()));
        m.put("relation", c.relation() == Relation.CLOSURE ? "Both circles close; the errors of the intervals stand in the certificate." : "Relation: " + CalibrationPlots.words(c) + ".");
        m.put("remarks", c.relation() == Relation.ADJUSTED || c.relation() == Relation.CLOSURE ? List.of() : c.fit().remarks());
        m.put("doubt", (c.overdue(now) ? "It was due on " + STAMP.format(c.due()) + ". " : "") + c.failure().map(f -> "It failed its verification: " + f).orElse(""));
        m.put("drift", c.driftFound().map(d -> "After use it had drifted by " + d + ".").orElse(""));
        m.put("points", c.points().stream().map(p -> Map.of("reference", p.reference(), "indication", Notation.bracketed(p.indication(), p.uIndication()) + " " + eagerneedle.core.quantity.LabUnit.parse(c.unit()).pretty(), "n", p.samples())).toList());
        return m;
    }

    private List<Map<String, Object>> captures() {
        List<Map<String, Object>> out = new ArrayList<>();
        reduction.sheet().captures().forEach((name, capture) -> {
            List<Run> runs = reduction.runs().stream().filter(r -> r.capture().equals(name) && r.discard() == null).toList();
            if (!runs.isEmpty()) {
                List<String> heads = capture.quantities().values().stream().filter(Sheet.Derived::shown).map(Sheet.Derived::label).toList();
                List<Map<String, Object>> rows = runs.stream().map(r -> row(r, capture)).toList();
                Run first = runs.stream().filter(Run::takesPart).reduce((a, b) -> b).orElse(runs.get(0));
                String svg = SessionPlots.run(reduction, first, capture.channels().get(0)).map(p -> plot(p, 620, 280)).orElse("")
                        + SessionPlots.residuals(reduction, first).map(p -> plot(p, 620, 120)).orElse("");
                out.add(Map.of("label", capture.label(), "heads", heads, "rows", rows, "svg", svg, "shown", first.name() + ", " + SessionPlots.levelLabel(reduction, first)));
            }
        });
        return out;
    }

    private Map<String, Object> row(Run run, Sheet.Capture capture) {
        List<String> cells = reduction.ofRun(run).stream().map(e -> e.quantity().map(Quantity::toString).orElse("—")).toList();
        String windows = capture.windows().keySet().stream().map(w -> reduction.window(run, w).map(x -> window(run, w, x)).orElse("none")).reduce((a, b) -> a + "; " + b).orElse("");
        return Map.of("name", run.name(), "level", SessionPlots.levelLabel(reduction, run), "window", windows, "cells", cells, "leftOut", run.leftOut() == null ? "" : run.leftOut());
    }

    private static String window(Run run, String name, Window w) {
        return String.format(java.util.Locale.ROOT, "%.2f … %.2f s%s", w.from(), w.to(), run.windows().containsKey(name) ? " (set by hand)" : "");
    }

    private Map<String, Object> comparison(Comparison c) {
        School speaks = reduction.speaks(c.id());
        SvgSurface s = surface(360, 190);
        NeedlePicture.paint(s, c, speaks == School.PERCENT ? School.STANDARD : speaks, 0, 0, 360, 190, false);
        List<Map<String, Object>> schools = new ArrayList<>();
        for (School school : School.values()) {
            schools.add(Map.of("name", school.label(), "verdict", c.verdict(school), "speaks", school == speaks));
        }
        List<String> doubts = new ArrayList<>(reduction.doubts(c.result(), now));
        reduction.circularity(c).ifPresent(doubts::add);
        return Map.of("label", c.label(), "svg", s.document(c.label()), "schools", schools, "doubts", doubts);
    }

    private String plot(Plot p, double w, double h) {
        SvgSurface s = surface(w, h);
        PlotPainter.paint(s, p, p.whole(), 0, 0, w, h, true);
        return s.document(p.title());
    }

    private String equation(String formula) {
        FormulaPicture.Size size = FormulaPicture.measure(new SvgSurface(1, 1, false, "m"), formula, 17);
        SvgSurface s = surface(size.width() + 4, size.ascent() + size.descent() + 6);
        FormulaPicture.paint(s, formula, 2, size.ascent() + 3, 17, Ink.INK);
        return s.document(formula);
    }

    private SvgSurface surface(double w, double h) {
        return new SvgSurface(w, h, false, "p" + pictures++);
    }
}
