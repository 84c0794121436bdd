package eagerneedle.report;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.LawOfResult;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Window;
import eagerneedle.core.watch.Finding;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.CalibrationPlots;
import eagerneedle.picture.ChainPicture;
import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import eagerneedle.picture.SessionPlots;
import eagerneedle.picture.SvgSurface;
import eagerneedle.picture.ValueRows;
import eagerneedle.store.bench.BenchFile;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The report of a session, as one self-contained HTML page or as PDF: question, method, rig with chains and
 * calibrations, data with windows and fits, results under every school, the law of propagation in symbols and numbers,
 * the choices that were made, checks, watches, finish and notebook.
 */
public final class SessionReport {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private static final double WIDE = 620;

    /** Pictures that were attached to runs and notes, by number. */
    public interface Attachments {
        /** @return the bytes of a picture, or empty when there is none of that number */
        java.util.Optional<byte[]> picture(int number);
    }

    private final Reduction reduction;
    private final Instant now;
    private final Attachments attachments;
    private int pictures;

    private SessionReport(Reduction reduction, Instant now, Attachments attachments) {
        this.reduction = reduction;
        this.now = now;
        this.attachments = attachments;
    }

    /**
     * The page as well-formed HTML. Every figure in it is also in the ledger or the results that are exported.
     * {@code now} decides which calibrations are overdue.
     */
    public static String html(
            Reduction reduction,
            List<Finding> findings,
            List<BenchFile.NotebookLine> acts,
            Instant now,
            Attachments attachments) {
        return Papers.html("report.ftlh", new SessionReport(reduction, now, attachments).model(findings, acts));
    }

    /** The same as PDF on A4. */
    public static byte[] pdf(
            Reduction reduction,
            List<Finding> findings,
            List<BenchFile.NotebookLine> acts,
            Instant now,
            Attachments attachments) {
        return Papers.pdf(html(reduction, findings, acts, now, attachments));
    }

    private Map<String, Object> model(List<Finding> findings, List<BenchFile.NotebookLine> acts) {
        Map<String, Object> m = new LinkedHashMap<>();
        Sheet sheet = reduction.sheet();
        m.put("title", sheet.title());
        m.put("place", sheet.place());
        m.put("date", STAMP.format(reduction.session().created()));
        m.put("question", sheet.question());
        m.put(
                "principle",
                sheet.principle().stream()
                        .map(p -> Map.of("text", p.text() == null ? "" : p.text(), "picture", equation(p.formula())))
                        .toList());
        m.put("cautions", sheet.cautions());
        m.put(
                "summary",
                reduction.comparisons().stream()
                        .map(c -> c.verdict(reduction.speaks(c.id())))
                        .toList());
        m.put("blind", ChoicesMade.blind(reduction));
        m.put("chains", sheet.channels().keySet().stream().map(this::chain).toList());
        m.put("prepare", steps(sheet.prepare()));
        m.put("finish", steps(sheet.finish()));
        m.put("groups", groups());
        m.put(
                "calibrations",
                reduction.session().calibrations().stream()
                        .map(this::calibration)
                        .toList());
        m.put("captures", captures());
        m.put(
                "plots",
                sheet.pictures().stream()
                        .flatMap(p -> SessionPlots.columns(reduction, p).stream()
                                .map(plot -> Map.of(
                                        "title",
                                        p.title(),
                                        "svg",
                                        plot(plot, WIDE, 330)
                                                + SessionPlots.residuals(reduction, p)
                                                        .map(r -> plot(r, WIDE, 120))
                                                        .orElse(""))))
                        .toList());
        m.put(
                "comparisons",
                reduction.comparisons().stream().map(this::comparison).toList());
        m.put("statements", reduction.statements().stream().map(this::statement).toList());
        m.put(
                "checks",
                reduction.checks().stream()
                        .map(c -> Map.of(
                                "label",
                                c.check().label(),
                                "state",
                                c.met().map(b -> b ? "met" : "not met").orElse("not yet to be judged")))
                        .toList());
        m.put("choices", ChoicesMade.of(reduction));
        m.put(
                "findings",
                findings.stream()
                        .map(f -> Map.of("message", f.message(), "cause", f.cause(), "remedy", f.remedy()))
                        .toList());
        m.put(
                "acts",
                acts.stream()
                        .map(a -> Map.of("at", STAMP.format(a.at()), "text", a.text()))
                        .toList());
        m.put(
                "notes",
                reduction.session().notes().stream()
                        .filter(n -> !n.pictures().isEmpty())
                        .map(n ->
                                Map.of("at", STAMP.format(n.at()), "text", n.text(), "pictures", images(n.pictures())))
                        .toList());
        m.put("budget", budget());
        m.put("laws", laws());
        return m;
    }

    private Map<String, Object> chain(String name) {
        Channel c = reduction.session().channel(reduction.sheet(), name);
        Chain chain = c.toChain();
        double at = c.needed().map(n -> (n[0] + n[1]) / 2).orElseGet(() -> (chain.reach()[0] + chain.reach()[1]) / 2);
        SvgSurface s = surface(640, 88);
        ChainPicture.ribbon(s, chain, at, 0, 2, 640);
        return Map.of(
                "name",
                c.label(),
                "where",
                (c.position() == null ? "" : "at " + c.position())
                        + (c.specimen() == null ? "" : " on " + c.specimen()),
                "rate",
                c.rate() > 0 ? Notation.plain(c.rate(), 5) + " samples a second" : "",
                "svg",
                s.document("Chain of " + c.label()),
                "links",
                c.chain().stream()
                        .map(l -> l.label() + (l.instrument() == null ? "" : " " + l.instrument()))
                        .toList());
    }

    private List<Map<String, String>> steps(List<Sheet.Step> steps) {
        return steps.stream()
                .map(s -> Map.of(
                        "text",
                        s.text(),
                        "state",
                        reduction.session().signOffs().containsKey(s.id())
                                ? "signed off "
                                        + STAMP.format(
                                                reduction.session().signOffs().get(s.id()))
                                : "not signed off"))
                .toList();
    }

    private Map<String, Object> statement(Reduction.Said said) {
        String svg = "";
        if (!said.quantities().isEmpty()) {
            List<ValueRows.Row> rows = said.quantities().stream()
                    .map(q -> new ValueRows.Row(q.label(), q.quantity()))
                    .toList();
            double h = ValueRows.height(rows.size(), false) - 14;
            SvgSurface s = surface(460, h);
            ValueRows.paint(s, 460, h, "", "", rows);
            svg = s.document(said.statement().label());
        }
        return Map.of(
                "label",
                said.statement().label(),
                "text",
                said.sentence().orElse(said.problem() == null ? "Nothing yet." : said.problem()),
                "bound",
                said.bound(),
                "svg",
                svg);
    }

    /** Pictures as data that stands in the page itself. */
    private List<Map<String, String>> images(List<Entries.Picture> list) {
        List<Map<String, String>> out = new ArrayList<>();
        for (Entries.Picture p : list) {
            attachments
                    .picture(p.attachment())
                    .ifPresent(bytes -> out.add(Map.of(
                            "name",
                            p.name(),
                            "data",
                            "data:image/"
                                    + (p.name()
                                                    .toLowerCase(java.util.Locale.ROOT)
                                                    .endsWith(".png")
                                            ? "png"
                                            : "jpeg") + ";base64,"
                                    + Base64.getEncoder().encodeToString(bytes))));
        }
        return out;
    }

    private List<Map<String, Object>> laws() {
        List<Map<String, Object>> out = new ArrayList<>();
        Set<String> done = new HashSet<>();
        for (Sheet.Comparison c : reduction.sheet().comparisons()) {
            School school = reduction.speaks(c.id());
            reduction.laws(c.result(), school).stream()
                    .filter(l -> done.add(l.key() + l.school()))
                    .forEach(l -> out.add(law(l)));
        }
        return out;
    }

    private Map<String, Object> law(LawOfResult l) {
        String unit = (" " + l.result().unit().pretty()).stripTrailing();
        boolean limits = l.school() == School.LIMITS;
        List<Map<String, String>> rows = l.terms().stream()
                .map(t -> Map.of(
                        "label",
                        t.label(),
                        "name",
                        t.name(),
                        "value",
                        t.quantity().toString(),
                        "u",
                        Notation.figures(
                                limits ? t.quantity().limit() : t.quantity().u(), 2),
                        "derivative",
                        (Notation.plain(t.derivative().value(), 4) + " "
                                        + t.derivative().unit().pretty())
                                .strip(),
                        "part",
                        Notation.figures(t.contribution(), 2)))
                .toList();
        String total = l.law().isEmpty()
                ? ""
                : (limits ? "Their sum is " : "Their root sum of squares is ")
                        + Notation.figures(l.alone(), 2)
                        + unit
                        + (l.shares()
                                ? "; what they share counted, it is " + Notation.figures(l.stated(), 2) + unit + "."
                                : ".");
        return Map.of(
                "formula",
                equation(l.key() + " = "
                        + reduction.sheet().results().get(l.key()).formula()),
                "law",
                l.law().isEmpty() ? "" : law(l.law()),
                "rows",
                rows,
                "total",
                total,
                "symbol",
                limits ? "limit" : "standard uncertainty",
                "unit",
                l.result().unit().pretty(),
                "label",
                reduction.sheet().results().get(l.key()).label() == null
                        ? l.key()
                        : reduction.sheet().results().get(l.key()).label());
    }

    private String law(String text) {
        double h = FormulaPicture.paintWithin(new SvgSurface(1, 1, false, "m"), text, 2, 0, 14, WIDE - 8, Ink.INK);
        SvgSurface s = surface(WIDE, h);
        FormulaPicture.paintWithin(s, text, 2, 0, 14, WIDE - 8, Ink.INK);
        return s.document(text);
    }

    private String budget() {
        Sheet.Comparison main = reduction.sheet().mainComparison();
        return main == null
                ? ""
                : reduction
                        .quantity(main.result())
                        .map(q -> {
                            Budget b = Budget.of(q);
                            double h = BudgetPicture.height(b, 10);
                            SvgSurface s = surface(640, h);
                            BudgetPicture.paint(s, b, 0, 0, 640, 10);
                            return s.document("Uncertainty budget");
                        })
                        .orElse("");
    }

    private List<Map<String, Object>> groups() {
        Map<String, List<Map<String, String>>> groups = new LinkedHashMap<>();
        for (Ledger.Entry e : reduction.ledger().entries()) {
            if (e.key().isOfRun()) {
                continue;
            }
            Map<String, String> row = new LinkedHashMap<>();
            row.put("label", e.label());
            row.put(
                    "value",
                    e.quantity().map(q -> Notation.bracketed(q.value(), q.u())).orElse("—"));
            row.put("unit", e.quantity().map(q -> q.unit().pretty()).orElse(""));
            row.put("expanded", e.quantity().map(SessionReport::expanded).orElse(e.instead()));
            row.put("source", reduction.formula(e.key()).orElse(e.source()));
            row.put(
                    "doubt",
                    e.quantity()
                            .map(q -> String.join(" ", reduction.doubts(q, now)))
                            .orElse(""));
            groups.computeIfAbsent(e.group(), k -> new ArrayList<>()).add(row);
        }
        List<Map<String, Object>> out = new ArrayList<>();
        groups.forEach((name, rows) -> out.add(Map.of("name", name, "rows", rows)));
        return out;
    }

    private static String expanded(Quantity q) {
        return q.isExact()
                ? "taken as exact"
                : Notation.plusMinus(q.value(), Coverage.DEFAULT.expanded(q)) + " (k = "
                        + Notation.plain(Coverage.DEFAULT.factor(q.dof()), 3) + ")";
    }

    private Map<String, Object> calibration(Calibration c) {
        Channel channel = reduction.sheet().channels().get(c.channel());
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("channel", channel == null ? c.channel() : channel.label());
        m.put("kind", c.kind());
        m.put("taken", STAMP.format(c.taken()));
        m.put("due", STAMP.format(c.due()));
        m.put("by", c.by());
        m.put(
                "conditions",
                (c.reference() == null || c.reference().isBlank() ? "" : "Reference: " + c.reference() + ". ")
                        + (c.conditions() == null ? "" : c.conditions()));
        m.put(
                "relation",
                c.relation() == Relation.CLOSURE
                        ? "Both circles close; the errors of the intervals stand in the certificate."
                        : "Relation: " + CalibrationPlots.words(c) + ".");
        m.put(
                "remarks",
                c.relation() == Relation.ADJUSTED || c.relation() == Relation.CLOSURE
                        ? List.of()
                        : c.fit().remarks());
        m.put(
                "doubt",
                (c.overdue(now) ? "It was due on " + STAMP.format(c.due()) + ". " : "")
                        + c.failure()
                                .map(f -> "It failed its verification: " + f)
                                .orElse(""));
        m.put(
                "drift",
                c.driftFound()
                        .map(d -> "After use it had drifted by " + d + ".")
                        .orElse(""));
        m.put(
                "points",
                c.points().stream()
                        .map(p -> Map.of(
                                "reference",
                                p.reference(),
                                "indication",
                                Notation.bracketed(p.indication(), p.uIndication()) + " "
                                        + eagerneedle.core.quantity.LabUnit.parse(c.unit())
                                                .pretty(),
                                "n",
                                p.samples()))
                        .toList());
        return m;
    }

    private List<Map<String, Object>> captures() {
        List<Map<String, Object>> out = new ArrayList<>();
        reduction.sheet().captures().forEach((name, capture) -> {
            List<Run> runs = reduction.runs().stream()
                    .filter(r -> r.capture().equals(name) && r.discard() == null)
                    .toList();
            if (!runs.isEmpty()) {
                List<String> heads = capture.quantities().values().stream()
                        .filter(Sheet.Derived::shown)
                        .map(Sheet.Derived::label)
                        .toList();
                List<Map<String, Object>> rows =
                        runs.stream().map(r -> row(r, capture)).toList();
                Run first =
                        runs.stream().filter(Run::takesPart).reduce((a, b) -> b).orElse(runs.get(0));
                String svg =
                        SessionPlots.run(reduction, first, capture.channels().get(0))
                                        .map(p -> plot(p, WIDE, 280))
                                        .orElse("")
                                + SessionPlots.residuals(reduction, first)
                                        .map(p -> plot(p, WIDE, 120))
                                        .orElse("");
                List<Map<String, String>> photographs = runs.stream()
                        .flatMap(r -> images(r.entries().pictures()).stream())
                        .toList();
                out.add(Map.of(
                        "label",
                        capture.label(),
                        "heads",
                        heads,
                        "rows",
                        rows,
                        "svg",
                        svg,
                        "shown",
                        first.name() + ", " + SessionPlots.levelLabel(reduction, first),
                        "pictures",
                        photographs));
            }
        });
        return out;
    }

    private Map<String, Object> row(Run run, Capture capture) {
        List<String> cells = reduction.ofRun(run).stream()
                .map(e -> e.quantity().map(Quantity::toString).orElse("—"))
                .toList();
        String windows = capture.windows().keySet().stream()
                .map(w -> reduction.window(run, w).map(x -> window(run, w, x)).orElse("none"))
                .reduce((a, b) -> a + "; " + b)
                .orElse("");
        return Map.of(
                "name",
                run.name(),
                "level",
                SessionPlots.levelLabel(reduction, run),
                "window",
                windows,
                "cells",
                cells,
                "leftOut",
                run.leftOut() == null ? "" : run.leftOut());
    }

    private static String window(Run run, String name, Window w) {
        return String.format(
                java.util.Locale.ROOT,
                "%.2f … %.2f s%s",
                w.from(),
                w.to(),
                run.windows().containsKey(name) ? " (set by hand)" : "");
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
        if (!c.agrees(speaks) && !reduction.remedy(c.id()).isEmpty()) {
            doubts.add(reduction.remedy(c.id()));
        }
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

    /** Whole points: the writer of PDF takes fractions for no size at all. */
    private SvgSurface surface(double w, double h) {
        return new SvgSurface(Math.ceil(w), Math.ceil(h), false, "p" + pictures++);
    }
}
