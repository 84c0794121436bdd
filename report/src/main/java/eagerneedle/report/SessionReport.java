package eagerneedle.report;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.Stated;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.PlainWords;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.watch.Finding;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.ChainPicture;
import eagerneedle.picture.ColumnPlots;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.ResidualPlots;
import eagerneedle.picture.SvgSurface;
import eagerneedle.picture.ValueRows;
import eagerneedle.store.bench.NotebookLine;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * The report of a session, as one self-contained HTML page or as PDF: question, method, rig with chains and
 * calibrations, data with windows and fits, results under every school, the law of propagation in symbols and numbers,
 * the choices that were made, checks, watches, finish and notebook.
 */
public final class SessionReport {
    static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());

    /** Pictures that were attached to runs and notes, by number. */
    public interface Attachments {
        /** @return the bytes of a picture, or empty when there is none of that number */
        java.util.Optional<byte[]> picture(int number);
    }

    private static final int SHARES = 7;

    private final Reduction reduction;
    private final Instant now;
    private final Paper paper;
    private final Figures figures = new Figures();
    private final EmbeddedPhotographs photographs;

    private SessionReport(Reduction reduction, Instant now, Attachments attachments, Paper paper) {
        this.reduction = reduction;
        this.now = now;
        this.paper = paper;
        this.photographs = new EmbeddedPhotographs(attachments);
    }

    /**
     * The page as well-formed HTML. Every figure in it is also in the ledger or the results that are exported.
     * {@code now} decides which calibrations are overdue.
     */
    public static String html(
            Reduction reduction,
            List<Finding> findings,
            List<NotebookLine> acts,
            Instant now,
            Attachments attachments) {
        return html(reduction, findings, acts, now, attachments, Paper.A4);
    }

    /** The same for paper of another size. */
    public static String html(
            Reduction reduction,
            List<Finding> findings,
            List<NotebookLine> acts,
            Instant now,
            Attachments attachments,
            Paper paper) {
        return Papers.html("report.ftlh", new SessionReport(reduction, now, attachments, paper).model(findings, acts));
    }

    /** The same as PDF on A4. */
    public static byte[] pdf(
            Reduction reduction,
            List<Finding> findings,
            List<NotebookLine> acts,
            Instant now,
            Attachments attachments) {
        return pdf(reduction, findings, acts, now, attachments, Paper.A4);
    }

    /** The same on paper of another size. */
    public static byte[] pdf(
            Reduction reduction,
            List<Finding> findings,
            List<NotebookLine> acts,
            Instant now,
            Attachments attachments,
            Paper paper) {
        return Papers.pdf(html(reduction, findings, acts, now, attachments, paper));
    }

    private Map<String, Object> model(List<Finding> findings, List<NotebookLine> acts) {
        Map<String, Object> m = new LinkedHashMap<>();
        Sheet sheet = reduction.sheet();
        m.put("title", sheet.title());
        m.put("place", sheet.place());
        m.put("date", STAMP.format(reduction.session().created()));
        m.put("who", WhoAndWhere.of(reduction));
        m.put("paper", paper.css());
        m.put("coverage", reduction.session().coverage().percent());
        m.put("front", new FrontPage(reduction, figures).of());
        m.put("question", sheet.question());
        m.put(
                "principle",
                sheet.principle().stream()
                        .map(p -> Map.of(
                                "text", p.text() == null ? "" : p.text(), "picture", figures.equation(p.formula())))
                        .toList());
        m.put("cautions", sheet.cautions());
        m.put(
                "summary",
                reduction.comparisons().stream()
                        .map(c -> c.verdict(reduction.speaks(c.id())))
                        .toList());
        m.put("blind", ChoicesMade.blind(reduction));
        m.put("drawing", Apparatus.of(sheet).map(this::drawing).orElse(""));
        m.put("chains", chains());
        m.put("prepare", steps(sheet.prepare()));
        m.put("finish", steps(sheet.finish()));
        m.put("groups", groups());
        m.put(
                "calibrations",
                reduction.session().calibrations().stream()
                        .map(new CalibrationSection(reduction, now)::of)
                        .toList());
        m.put("pool", PoolSection.of(reduction.session()));
        m.put("captures", new CaptureSection(reduction, figures, photographs).all());
        m.put(
                "plots",
                sheet.pictures().stream()
                        .flatMap(p -> ColumnPlots.columns(reduction, p).stream()
                                .map(plot -> Map.of(
                                        "title",
                                        p.title(),
                                        "svg",
                                        figures.plot(plot, Figures.WIDE, 270),
                                        "residuals",
                                        ResidualPlots.of(reduction, p)
                                                .map(r -> figures.plot(r, Figures.WIDE, 120))
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
                        .map(n -> Map.of(
                                "at", STAMP.format(n.at()), "text", n.text(), "pictures", photographs.of(n.pictures())))
                        .toList());
        m.put("budget", budget());
        m.put("laws", new LawSection(reduction, figures).all());
        return m;
    }

    private String drawing(Apparatus a) {
        SvgSurface s = figures.surface(620, 290);
        new DrawingPainter(a.drawing(), Ink.SURFACE, 0, 0, 620, 290).paint(s, a.words(), "");
        return s.document("The apparatus with its names");
    }

    /** Chains that are alike stand once, with the names of their channels. */
    private List<Map<String, Object>> chains() {
        Map<String, List<String>> alike = new LinkedHashMap<>();
        for (String name : reduction.sheet().channels().keySet()) {
            Channel c = reduction.session().channel(reduction.sheet(), name);
            alike.computeIfAbsent(c.chain() + " " + c.rate() + " " + c.needs(), k -> new ArrayList<>())
                    .add(name);
        }
        return alike.values().stream().map(this::chain).toList();
    }

    private Map<String, Object> chain(List<String> names) {
        Channel c = reduction.session().channel(reduction.sheet(), names.get(0));
        Chain chain = c.toChain();
        double at = c.needed().map(n -> (n[0] + n[1]) / 2).orElseGet(() -> (chain.reach()[0] + chain.reach()[1]) / 2);
        SvgSurface s = figures.surface(640, 88);
        ChainPicture.ribbon(s, chain, at, 0, 2, 640);
        return Map.of(
                "name",
                names.stream().map(n -> reduction.sheet().channel(n).label()).collect(Collectors.joining("; ")),
                "where",
                names.size() > 1 || c.position() == null
                        ? ""
                        : " · " + c.position() + (c.specimen() == null ? "" : " · " + c.specimen()),
                "rate",
                c.rate() > 0 ? " · " + Notation.plain(c.rate(), 5) + " samples a second" : "",
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
                                        + WhoAndWhere.agreed(reduction, s.id())
                                : "not signed off"))
                .toList();
    }

    private Map<String, Object> statement(Stated said) {
        String svg = "";
        if (!said.quantities().isEmpty()) {
            List<ValueRows.Row> rows = said.quantities().stream()
                    .map(q -> new ValueRows.Row(q.label(), q.quantity()))
                    .toList();
            double h = ValueRows.height(rows.size(), false) - 14;
            SvgSurface s = figures.surface(460, h);
            ValueRows.paint(s, 460, h, "", "", rows);
            svg = s.document(said.statement().label());
        }
        return Map.of(
                "label",
                said.statement().label(),
                "text",
                plain(said.sentence().orElse(said.problem() == null ? "Nothing yet." : said.problem())),
                "bound",
                plain(said.bound()),
                "svg",
                svg);
    }

    private String plain(String sentence) {
        return PlainWords.of(reduction.sheet()).say(sentence);
    }

    private String budget() {
        Sheet.Comparison main = reduction.sheet().mainComparison();
        return main == null
                ? ""
                : reduction
                        .quantity(main.result())
                        .map(q -> {
                            Budget b = Budget.of(q).said(PlainWords.of(reduction.sheet())::say);
                            double h = BudgetPicture.height(b, SHARES);
                            SvgSurface s = figures.surface(640, h);
                            BudgetPicture.paint(s, b, 0, 0, 640, SHARES);
                            return s.document("Uncertainty budget");
                        })
                        .orElse("");
    }

    private List<Map<String, Object>> groups() {
        Map<String, List<Map<String, Object>>> groups = new LinkedHashMap<>();
        for (Ledger.Entry e : reduction.ledger().entries()) {
            if (e.key().isOfRun()) {
                continue;
            }
            Map<String, Object> row = new LinkedHashMap<>();
            row.put("label", e.label());
            row.put("value", e.quantity().map(InPrint::of).orElseGet(() -> InPrint.none("—")));
            row.put(
                    "expanded",
                    e.quantity()
                            .map(q -> InPrint.expanded(q, reduction.session().coverage()))
                            .orElse(e.instead()));
            row.put("source", reduction.formula(e.key()).isPresent() ? "computed" : e.source());
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

    private Map<String, Object> comparison(Comparison c) {
        School speaks = reduction.speaks(c.id());
        SvgSurface s = figures.surface(360, 190);
        NeedlePicture.paint(s, c, speaks == School.PERCENT ? School.STANDARD : speaks, 0, 0, 360, 190, false);
        List<Map<String, Object>> schools = new ArrayList<>();
        for (School school : School.values()) {
            schools.add(Map.of("name", school.label(), "verdict", c.verdict(school), "speaks", school == speaks));
        }
        List<String> doubts = new ArrayList<>(reduction.doubts(c.result(), now));
        reduction.circularity(c).ifPresent(doubts::add);
        if (c.isAmiss(speaks) && !reduction.remedy(c.id()).isEmpty()) {
            doubts.add(reduction.remedy(c.id()));
        }
        return Map.of("label", c.label(), "svg", s.document(c.label()), "schools", schools, "doubts", doubts);
    }
}
