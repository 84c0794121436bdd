package eagerneedle.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.ColumnPlots;
import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Layer;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.Plot;
import eagerneedle.picture.PlotPainter;
import eagerneedle.picture.ResidualPlots;
import eagerneedle.picture.SessionPlots;
import eagerneedle.picture.SvgSurface;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.RehearsalTrial;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.bench.NotebookLine;
import java.io.StringReader;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Document;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;

class ReportTest {
    private final SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("baggage-chute"), "sheet");
    private final Rehearsal rehearsal =
            Rehearsal.of(sheet, Rigs.shipped("baggage-chute", 7, Set.of()), Instant.parse("2026-11-23T09:00:00Z"));
    private final Reducer reducer = new Reducer(
            sheet,
            (run, channel) -> rehearsal.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));

    private Reduction reduction(Command... acts) {
        Session s = rehearsal.session();
        for (Command c : acts) {
            s = c.apply(s);
        }
        return reducer.reduce(s);
    }

    private static Document xml(String text) throws Exception {
        return DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(new InputSource(new StringReader(text)));
    }

    @Test
    void theReportIsOnePageWithEveryPartAndNothingFromOutside() {
        Reduction r = reduction(new RunCommand.LeaveOut(12, "hand in the <beam>"));
        String html = SessionReport.html(
                r,
                new SessionWatch().look(r, Instant.parse("2026-11-24T09:00:00Z")),
                List.of(new NotebookLine(Instant.EPOCH, "Something & more.")),
                Instant.EPOCH,
                n -> java.util.Optional.empty());
        assertThat(html)
                .contains(
                        "Question",
                        "Method",
                        "Results",
                        "Ledger",
                        "Calibrations",
                        "Runs",
                        "Checks",
                        "Watches",
                        "Notebook");
        assertThat(html)
                .contains("hand in the &lt;beam&gt;")
                .contains("Something &amp; more.")
                .doesNotContain("<beam>");
        assertThat(html.replace("http://www.w3.org/2000/svg", ""))
                .doesNotContain("http://")
                .doesNotContain("https://")
                .doesNotContain("src=");
        assertThat(html).contains("Run 12").doesNotContain("${").doesNotContain("null");
        assertThat(html.split("<svg", -1).length).isGreaterThan(8);
    }

    @Test
    void everyFigureOfTheResultsIsTheLedgers() {
        Reduction r = reduction();
        String html = SessionReport.html(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty());
        r.ledger().entries().stream().filter(e -> !e.key().isOfRun()).forEach(e -> {
            Quantity q = e.quantity().orElseThrow();
            Printed w = Printed.of(q);
            assertThat(html).as(e.name()).contains(w.number() + "<span class=\"unc\">" + w.uncertainty() + "</span>");
        });
        for (Comparison c : r.comparisons()) {
            for (School s : School.values()) {
                // Numbers are held together where a line may end.
                assertThat(html.replaceAll("<span class='name'>([^<]*)</span>", "$1"))
                        .contains(c.verdict(s));
            }
        }
    }

    /**
     * Every number of the laws of propagation stands in the exported results too, and so does every number of the runs.
     */
    @Test
    void everyFigureOfLawsAndRunsIsExported() throws Exception {
        Reduction r = reduction();
        String html = SessionReport.html(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty());
        com.fasterxml.jackson.databind.JsonNode exported = new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(eagerneedle.store.export.ReductionJson.of(r, List.of()));
        assertThat(exported.get("laws")).isNotEmpty();
        for (var law : exported.get("laws")) {
            for (var t : law.get("terms")) {
                if (law.get("school").asText().startsWith("standard")) {
                    assertThat(t.get("u").asDouble()
                                    * Math.abs(t.get("derivative").asDouble()))
                            .as("a row can be multiplied")
                            .isCloseTo(
                                    t.get("contribution").asDouble(),
                                    org.assertj.core.data.Percentage.withPercentage(1e-6));
                }
                assertThat(html)
                        .as(t.get("name").asText())
                        .contains(Notation.figures(t.get("contribution").asDouble(), 2))
                        .contains(Notation.plain(t.get("derivative").asDouble(), 4));
            }
        }
        String ledger = eagerneedle.store.export.LedgerCsv.of(r.ledger());
        r.runs()
                .forEach(run -> r.ofRun(run)
                        .forEach(e -> e.quantity().ifPresent(q -> {
                            assertThat(html)
                                    .as(e.name())
                                    .contains(Printed.of(q).text().replace("&", "&amp;"));
                            assertThat(ledger).as(e.name()).contains(Double.toString(q.value()));
                        })));
    }

    @Test
    void theReportSaysWhatWasChosenAndWhatWasSignedOff() {
        Reduction r = reduction(
                new RunCommand.LeaveOut(12, "hand in the beam"),
                new JudgeCommand.ChooseSchool(School.LIMITS),
                new ReducingCommand.SetWindow(
                        9, "rolling", new eagerneedle.core.trace.Window(0.6, 1.9, "moved by hand")),
                new ReducingCommand.AddQuantity(
                        "slopes",
                        "half",
                        new eagerneedle.core.sheet.Derived("half of it", null, null, null, "a / 2", null)),
                new RigCommand.SignOff("cart", "Cart taken off", Instant.EPOCH));
        String html = SessionReport.html(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty());
        assertThat(html)
                .contains(
                        "Run 12 was left out of the results: hand in the beam.",
                        "The school in use: Limits",
                        "of Run 9 was set to 0.600 s",
                        "Added to every run of slopes: half = a / 2.",
                        "not signed off",
                        "signed off 1 Jan 1970",
                        "half of it");
        assertThat(html).contains("Their sum is ");
    }

    @Test
    void aBlindReportHoldsNoReference() {
        Reduction r = reduction(new JudgeCommand.HideReferences(Instant.EPOCH));
        String html = SessionReport.html(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty());
        assertThat(html)
                .contains("The references have been hidden since")
                .doesNotContain(r.quantity("g_reference").orElseThrow().toString())
                .doesNotContain("9.8126")
                .contains(Reduction.HIDDEN);
        Reduction locked = reduction(
                new JudgeCommand.HideReferences(Instant.EPOCH),
                new JudgeCommand.LockResults(Instant.EPOCH, r.results()));
        assertThat(SessionReport.html(locked, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty()))
                .contains("before the references were seen: Local g against the reference of the laboratory: "
                        + r.quantity("g").orElseThrow());
    }

    /** Pages of the PDF are laid out with everything that the page of HTML says. */
    @Test
    void thePdfHasTheSameWordsOnItsPages() throws Exception {
        Reduction r = reduction();
        byte[] pdf = SessionReport.pdf(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty());
        try (var document = org.apache.pdfbox.Loader.loadPDF(pdf)) {
            String text = new org.apache.pdfbox.text.PDFTextStripper().getText(document);
            assertThat(document.getNumberOfPages()).isBetween(5, 20);
            for (String part : List.of(
                    "Question",
                    "Method",
                    "Rig",
                    "Calibrations",
                    "Runs",
                    "Results",
                    "Uncertainty",
                    "Ledger",
                    "Choices made",
                    "Checks",
                    "Finish",
                    "Notebook")) {
                assertThat(text).contains(part);
            }
            assertThat(text)
                    .contains(Notation.bracketed(
                            r.quantity("g").orElseThrow().value(),
                            r.quantity("g").orElseThrow().u()));
        }
    }

    @Test
    void equationsThatAreTooLongGoOnBelow() throws Exception {
        String law = "u(y)^2 = (a + b)^2 * u(c)^2 + (d * e / f)^2 * u(g)^2 + h^2 * u(k)^2 - (sin(m) * n)^2 * u(p)^2";
        double one = FormulaPicture.paintWithin(new SvgSurface(1, 1, false, "m"), law, 0, 0, 14, 2000, Ink.INK);
        SvgSurface page = new SvgSurface(220, 300, false, "m");
        double several = FormulaPicture.paintWithin(page, law, 0, 0, 14, 220, Ink.INK);
        assertThat(several).isGreaterThan(2 * one);
        NodeList texts = xml(page.document(law)).getElementsByTagName("text");
        for (int i = 0; i < texts.getLength(); i++) {
            assertThat(Double.parseDouble(
                            texts.item(i).getAttributes().getNamedItem("x").getNodeValue()))
                    .isLessThan(230);
        }
    }

    @Test
    void runsLieOverEachOtherFromTheBeginningOfTheirWindows() {
        Reduction r = reduction(new RunCommand.LeaveOut(12, "blurred"));
        Plot overlay = SessionPlots.overlay(r, "slopes", "position").orElseThrow();
        List<Layer.Points> runs = overlay.layers().stream()
                .filter(l -> l instanceof Layer.Points)
                .map(l -> (Layer.Points) l)
                .toList();
        assertThat(runs).hasSize(20);
        assertThat(runs).allSatisfy(p -> assertThat(p.x()[0]).isCloseTo(0, within(1e-9)));
        assertThat(runs.stream().filter(Layer.Points::weak)).hasSize(1);
        Plot columns = ColumnPlots.columns(r, sheet.sheet().pictures().get(0)).orElseThrow();
        Layer.Points kept = (Layer.Points) columns.layers().stream()
                .filter(l -> l instanceof Layer.Points p && !p.weak())
                .findFirst()
                .orElseThrow();
        Layer.Points out = (Layer.Points) columns.layers().stream()
                .filter(l -> l instanceof Layer.Points p && p.weak())
                .findFirst()
                .orElseThrow();
        assertThat(ColumnPlots.runOf(r, out, 0).orElseThrow().id()).isEqualTo(12);
        for (int i = 0; i < kept.x().length; i++) {
            var run = ColumnPlots.runOf(r, kept, i).orElseThrow();
            assertThat(r.ofRun(run, "sin_theta").quantity().orElseThrow().value())
                    .isCloseTo(kept.x()[i], within(1e-12));
        }
        assertThat(columns.layers()).anyMatch(l -> l instanceof Layer.Band);
    }

    @Test
    void anEmptySessionHasAReportToo() {
        Reduction r = reducer.reduce(Session.start(sheet.text(), "empty", Instant.EPOCH));
        String html = SessionReport.html(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty());
        assertThat(html).contains("None.").contains("not yet to be judged");
    }

    @Test
    void aRunsPlotHasItsWindowItsFitAndNamedAxes() throws Exception {
        Reduction r = reduction();
        var run = r.session().run(20).orElseThrow();
        Plot plot = SessionPlots.run(r, run, "position").orElseThrow();
        assertThat(plot.x().label()).isEqualTo("time, s");
        assertThat(plot.y().label()).isEqualTo("position, m");
        assertThat(plot.layers()).anyMatch(l -> l instanceof Layer.Span).anyMatch(l -> l instanceof Layer.Curve);
        int points = plot.layers().stream()
                .filter(l -> l instanceof Layer.Points)
                .mapToInt(l -> ((Layer.Points) l).x().length)
                .sum();
        assertThat(points).isEqualTo(r.trace(run, "position").orElseThrow().size());
        SvgSurface s = new SvgSurface(600, 300, false, "a");
        PlotPainter.Frame f = PlotPainter.paint(s, plot, plot.whole(), 0, 0, 600, 300, true);
        Document d = xml(s.document(plot.title()));
        NodeList texts = d.getElementsByTagName("text");
        assertThat(texts.getLength()).isGreaterThan(8);
        for (int i = 0; i < texts.getLength(); i++) {
            double x = Double.parseDouble(
                    texts.item(i).getAttributes().getNamedItem("x").getNodeValue());
            double y = Double.parseDouble(
                    texts.item(i).getAttributes().getNamedItem("y").getNodeValue());
            assertThat(x).isBetween(0.0, 600.0);
            assertThat(y).isBetween(0.0, 300.0);
        }
        assertThat(f.xAt(f.px(1.234))).isCloseTo(1.234, within(1e-9));
        assertThat(f.yAt(f.py(0.77))).isCloseTo(0.77, within(1e-9));
        assertThat(f.contains(f.px(1), f.py(0.8))).isTrue();
    }

    @Test
    void theLineThroughRunsGoesThroughItsPoints() {
        Reduction r = reduction(new RunCommand.LeaveOut(12, "blurred"));
        Plot plot = ColumnPlots.columns(r, sheet.sheet().pictures().get(0)).orElseThrow();
        Layer.Curve line = (Layer.Curve) plot.layers().stream()
                .filter(l -> l instanceof Layer.Curve)
                .findFirst()
                .orElseThrow();
        Layer.Points points = (Layer.Points) plot.layers().stream()
                .filter(l -> l instanceof Layer.Points p && !p.weak())
                .findFirst()
                .orElseThrow();
        Layer.Points out = (Layer.Points) plot.layers().stream()
                .filter(l -> l instanceof Layer.Points p && p.weak())
                .findFirst()
                .orElseThrow();
        assertThat(points.x()).hasSize(19);
        assertThat(out.x()).hasSize(1);
        double slope = (line.y()[1] - line.y()[0]) / (line.x()[1] - line.x()[0]);
        assertThat(slope).isCloseTo(r.quantity("g_eff").orElseThrow().value(), within(1e-9));
        for (int i = 0; i < points.x().length; i++) {
            assertThat(points.y()[i]).isCloseTo(line.y()[0] + slope * (points.x()[i] - line.x()[0]), within(0.05));
        }
        assertThat(PlotTable.csv(plot).lines().count()).isEqualTo(21);
    }

    @Test
    void aMillionPointsCostNoMoreThanAScreenfulAndKeepTheirSpike() throws Exception {
        int n = 1_000_000;
        double[] x = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            x[i] = i;
            y[i] = Math.sin(i * 1e-4);
        }
        y[654_321] = 5;
        Plot plot = new Plot(
                "many",
                new Plot.Axis("t", "s"),
                new Plot.Axis("v", "V"),
                List.of(new Layer.Points("v", x, y, null, false, 0)));
        SvgSurface s = new SvgSurface(600, 300, false, "a");
        PlotPainter.Frame f = PlotPainter.paint(s, plot, plot.whole(), 0, 0, 600, 300, true);
        Document d = xml(s.document("many"));
        NodeList lines = d.getElementsByTagName("line");
        assertThat(lines.getLength()).isLessThan(700);
        double top = f.py(5);
        boolean found = false;
        for (int i = 0; i < lines.getLength(); i++) {
            found |= Math.abs(Double.parseDouble(lines.item(i)
                                    .getAttributes()
                                    .getNamedItem("y1")
                                    .getNodeValue())
                            - top)
                    < 0.02;
        }
        assertThat(found).isTrue();
    }

    @ParameterizedTest
    @CsvSource({"0, 1, 5", "-3.2, 7.9, 6", "0.00012, 0.00019, 4", "1e6, 5e6, 5", "0, 100000, 3"})
    void ticksAreRoundAndInside(double from, double to, int wanted) {
        double[] t = PlotPainter.ticks(from, to, wanted);
        assertThat(t.length).isBetween(2, 3 * wanted);
        for (double v : t) {
            assertThat(v).isBetween(from - 1e-9 * Math.abs(to), to + 1e-9 * Math.abs(to));
        }
        double step = t[1] - t[0];
        double mantissa = step / Math.pow(10, Math.floor(Math.log10(step) + 1e-9));
        assertThat(Math.min(
                        Math.min(Math.abs(mantissa - 1), Math.abs(mantissa - 2)),
                        Math.min(Math.abs(mantissa - 5), Math.abs(mantissa - 10))))
                .isLessThan(1e-6);
        assertThat(PlotPainter.ticks(1, 1, 5)).isEmpty();
    }

    private static Comparison comparison(String result, String reference) {
        return Comparison.of(
                "c",
                "c",
                Reading.parse(result).toQuantity("a", "a", "a"),
                Reading.parse(reference).toQuantity("b", "b", "b"),
                Coverage.DEFAULT,
                Double.NaN);
    }

    /** The needle's tip, from the picture itself. */
    private static double tip(Comparison c) throws Exception {
        SvgSurface s = new SvgSurface(400, 220, false, "n");
        NeedlePicture.paint(s, c, School.STANDARD, 0, 0, 400, 220, false);
        NodeList polygons = xml(s.document("needle")).getElementsByTagName("polygon");
        String points = polygons.item(polygons.getLength() - 1)
                .getAttributes()
                .getNamedItem("points")
                .getNodeValue();
        return Double.parseDouble(points.split("[ ,]")[0]);
    }

    @Test
    void theNeedlePointsWhereTheDifferenceIs() throws Exception {
        assertThat(tip(comparison("5.00(1)", "5.00"))).isCloseTo(200, within(0.5));
        double half = tip(comparison("5.01(1)", "5.00"));
        double one = tip(comparison("5.02(1)", "5.00"));
        assertThat(half).isGreaterThan(205);
        assertThat(one).isGreaterThan(half);
        assertThat(tip(comparison("4.98(1)", "5.00"))).isCloseTo(400 - one, within(0.5));
        assertThat(tip(comparison("9.00(1)", "5.00"))).isLessThan(400);
    }

    @Test
    void budgetsAndFormulasArePicturesWithinTheirBoxes() throws Exception {
        Budget b = Budget.of(reduction().quantity("g").orElseThrow());
        SvgSurface s = new SvgSurface(600, BudgetPicture.height(b, 5), false, "b");
        BudgetPicture.paint(s, b, 0, 0, 600, 5);
        NodeList bars = xml(s.document("budget")).getElementsByTagName("rect");
        assertThat(bars.getLength()).isEqualTo(5);
        assertThat(bars.item(0).getAttributes().getNamedItem("fill").getNodeValue())
                .isEqualTo(Ink.NEEDLE.web(false));
        for (String f : List.of(
                "a = b / c",
                "g = sqrt(x^2 + y^2) * sin(theta)",
                "y = -a_0 * exp(-t / tau)",
                "f(x, n: 3) = 2.5(1) m/s^2 * (a + b)^2",
                "p = a - (b - c)")) {
            FormulaPicture.Size size = FormulaPicture.measure(s, f, 16);
            assertThat(size.width()).isBetween(20.0, 420.0);
            assertThat(size.ascent() + size.descent()).isBetween(14.0, 80.0);
            SvgSurface page = new SvgSurface(size.width(), size.ascent() + size.descent(), true, "f");
            FormulaPicture.paint(page, f, 0, size.ascent(), 16, Ink.INK);
            assertThat(xml(page.document(f)).getElementsByTagName("text").getLength())
                    .isGreaterThan(2);
        }
        assertThat(BudgetPicture.fitting(s, "a very long label that does not fit at all", 90))
                .as("names differ at their ends, so that both ends stay")
                .matches("a very .*….*all")
                .hasSizeLessThan(20);
    }

    /** A legend goes where the fewest points are, and stays inside a narrow frame. */
    @Test
    void legendsKeepOffTheDataAndInsideTheFrame() throws Exception {
        double[] x = {0, 1, 2, 3, 4, 5};
        Plot rising = new Plot(
                "r",
                new Plot.Axis("t", "s"),
                new Plot.Axis("v", "V"),
                List.of(new Layer.Points("p", x, new double[] {0, 1, 2, 3, 4, 5}, null, false, 0)));
        Plot falling = new Plot(
                "f",
                new Plot.Axis("t", "s"),
                new Plot.Axis("v", "V"),
                List.of(new Layer.Points("p", x, new double[] {5, 4, 3, 2, 1, 0}, null, false, 0)));
        assertThat(corner(rising.withLegend(List.of("slope 1"))))
                .isIn(Layer.Corner.TOP_LEFT, Layer.Corner.BOTTOM_RIGHT);
        assertThat(corner(falling.withLegend(List.of("slope -1"))))
                .isIn(Layer.Corner.TOP_RIGHT, Layer.Corner.BOTTOM_LEFT);
        SvgSurface s = new SvgSurface(150, 120, false, "l");
        Plot narrow = falling.withLegend(List.of("a legend that is far too long for a frame as narrow as this one is"));
        PlotPainter.paint(s, narrow, narrow.whole(), 0, 0, 150, 120, true);
        NodeList texts = xml(s.document("narrow")).getElementsByTagName("text");
        boolean cut = false;
        for (int i = 0; i < texts.getLength(); i++) {
            assertThat(Double.parseDouble(
                            texts.item(i).getAttributes().getNamedItem("x").getNodeValue()))
                    .isBetween(0.0, 150.0);
            cut |= texts.item(i).getTextContent().endsWith("…");
        }
        assertThat(cut).isTrue();
    }

    private static Layer.Corner corner(Plot p) {
        return ((Layer.Legend) p.layers().get(p.layers().size() - 1)).corner();
    }

    @Test
    void valuesOfOneKindStandUnderEachOtherOnOneScale() throws Exception {
        SvgSurface s = new SvgSurface(400, 140, false, "v");
        eagerneedle.picture.ValueRows.paint(
                s,
                400,
                140,
                "Routes",
                "foot",
                List.of(
                        new eagerneedle.picture.ValueRows.Row(
                                "first", Reading.parse("2.00(5) m").toQuantity("a", "a", "a")),
                        new eagerneedle.picture.ValueRows.Row(
                                "in other units", Reading.parse("210(5) cm").toQuantity("b", "b", "b"))));
        NodeList circles = xml(s.document("rows")).getElementsByTagName("circle");
        assertThat(circles.getLength()).isEqualTo(2);
        double a = Double.parseDouble(
                circles.item(0).getAttributes().getNamedItem("cx").getNodeValue());
        double b = Double.parseDouble(
                circles.item(1).getAttributes().getNamedItem("cx").getNodeValue());
        assertThat(b).as("210 cm lies to the right of 2 m").isGreaterThan(a + 50);
        double half = 0;
        NodeList lines = xml(s.document("rows")).getElementsByTagName("line");
        for (int i = 0; i < lines.getLength(); i++) {
            var at = lines.item(i).getAttributes();
            if (at.getNamedItem("y1")
                    .getNodeValue()
                    .equals(at.getNamedItem("y2").getNodeValue())) {
                half = Math.max(
                        half,
                        (Double.parseDouble(at.getNamedItem("x2").getNodeValue())
                                        - Double.parseDouble(
                                                at.getNamedItem("x1").getNodeValue()))
                                / 2);
            }
        }
        assertThat(b - a).as("a tenth of a metre is two standard uncertainties").isCloseTo(2 * half, within(0.5));
    }

    /** Text on paper and surface reaches the contrast of 4.5 to 1 in both themes (WCAG 2.1). */
    @Test
    void inksAreReadableInBothThemes() {
        for (boolean dark : new boolean[] {false, true}) {
            for (Ink ink : List.of(Ink.INK, Ink.QUIET, Ink.GOOD)) {
                for (Ink ground : List.of(Ink.PAPER, Ink.SURFACE)) {
                    assertThat(contrast(ink.web(dark), ground.web(dark)))
                            .as(ink + " on " + ground + (dark ? " in the dark" : ""))
                            .isGreaterThanOrEqualTo(4.5);
                }
            }
            assertThat(contrast(Ink.NEEDLE.web(dark), Ink.SURFACE.web(dark))).isGreaterThan(4);
        }
    }

    private static double contrast(String a, String b) {
        double la = luminance(a);
        double lb = luminance(b);
        return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
    }

    private static double luminance(String web) {
        double[] c = new double[3];
        for (int i = 0; i < 3; i++) {
            double v = Integer.parseInt(web.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
            c[i] = v <= 0.03928 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
        }
        return 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
    }

    /**
     * A picture may show any curve: it is painted, its parameters stand in the legend, and the check knows what is no
     * fit.
     */
    @Test
    void aPictureWhoseFitIsNoLineIsPainted() {
        String text = SheetReader.shippedText("baggage-chute")
                .replace(
                        "  fall_line: {",
                        "  fall_bend: {formula: \"polynomial(slopes.a_line, slopes.sin_theta, degree: 2)\"}\n  "
                                + "fall_line: {")
                .replace("fit: fall_line", "fit: fall_bend");
        SheetReader.Located bent = SheetTrial.read(text, "bent");
        Reduction r = new Reducer(
                        bent,
                        (run, channel) ->
                                rehearsal.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(rehearsal.session().withSheetText(text));
        Plot plot = ColumnPlots.columns(r, bent.sheet().pictures().get(0)).orElseThrow();
        assertThat(plot.layers()).anyMatch(l -> l instanceof Layer.Curve c && c.x().length > 10);
        assertThat(ResidualPlots.of(r, bent.sheet().pictures().get(0))).isPresent();
        assertThat(SessionReport.html(r, List.of(), List.of(), Instant.EPOCH, n -> java.util.Optional.empty()))
                .isNotBlank();
        SheetReader.Located noFit = SheetTrial.read(text.replace("fit: fall_bend", "fit: g_eff"), "bent");
        assertThat(RehearsalTrial.of(noFit, 1))
                .anySatisfy(p -> assertThat(p.getMessage()).contains("g_eff"));
    }

    /** Whatever a series is called, its rows stay rows, and no cell of words is taken for a formula. */
    @Test
    void numbersOfAPictureAreQuotedAndGuarded() throws Exception {
        Plot p = new Plot(
                "p",
                new Plot.Axis("=t", "s"),
                new Plot.Axis("v \"x\"", "V"),
                List.of(new Layer.Points(
                        "@run, \"one\"\nline", new double[] {-1, 2}, new double[] {-3, 4}, null, false, 0)));
        List<org.apache.commons.csv.CSVRecord> rows = org.apache.commons.csv.CSVFormat.DEFAULT
                .parse(new StringReader(PlotTable.csv(p)))
                .getRecords();
        assertThat(rows).hasSize(3).allMatch(r -> r.size() == 4);
        assertThat(rows.get(0).get(1)).isEqualTo("'=t / s");
        assertThat(rows.get(0).get(2)).isEqualTo("v \"x\" / V");
        assertThat(rows.get(1).get(0)).isEqualTo("'@run, \"one\"\nline");
        assertThat(Double.parseDouble(rows.get(1).get(1))).isEqualTo(-1);
        assertThat(Double.parseDouble(rows.get(2).get(2))).isEqualTo(4);
    }
}
