package eagerneedle.report;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CertificateTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final SheetReader.Located SHEET =
            SheetTrial.read(SheetReader.shippedText("calibration-day"), "calibration-day.yaml");
    private static final Session SESSION =
            Rehearsal.of(SHEET, Rigs.chains(SHEET.sheet(), 7, Set.of()), DAY).session();
    private final Sheet sheet = SHEET.sheet();

    /** Leaves the paper in the build folder, to be looked at. */
    private static void keep(String name, byte[] pdf) throws IOException {
        Files.createDirectories(Path.of("target", "papers"));
        Files.write(Path.of("target", "papers", name), pdf);
    }

    private static String text(byte[] pdf) throws IOException {
        try (PDDocument d = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(d);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"strain", "scale", "thermometer", "light", "gate", "balance", "charge", "tables"})
    void everyKindHasACertificateOnPaperWithTheFiguresOfThePage(String channel) throws IOException {
        Calibration c = SESSION.latestCalibrationOf(channel).orElseThrow();
        String html = Certificate.html(c, sheet.channels().get(channel), sheet.place(), DAY);
        String pdf = text(Certificate.pdf(c, sheet.channels().get(channel), sheet.place(), DAY));
        keep(channel + ".pdf", Certificate.pdf(c, sheet.channels().get(channel), sheet.place(), DAY));
        assertThat(html)
                .contains(sheet.channels().get(channel).label())
                .contains(c.kind())
                .contains("Due")
                .doesNotContain("NaN");
        assertThat(pdf)
                .contains("Calibration of " + sheet.channels().get(channel).label())
                .contains(c.id())
                .contains("After use")
                .doesNotContain("#");
        c.points()
                .forEach(p -> assertThat(pdf.replaceAll("[\\s\u2009]+", " "))
                        .contains(Notation.bracketed(p.indication(), p.uIndication())
                                .replace('\u2009', ' ')));
        if (!channel.equals("tables") && !channel.equals("scale")) {
            assertThat(pdf)
                    .contains(
                            c.coefficients().get(channel.equals("gate") ? 0 : 1).toString());
        }
    }

    @Test
    void overdueFailedAndDriftedAreSaid() {
        Calibration c = SESSION.latestCalibrationOf("balance").orElseThrow();
        Calibration strict = new Calibration(
                c.id(),
                c.channel(),
                c.kind(),
                c.relation(),
                c.unit(),
                c.points(),
                c.verification(),
                1e-6,
                null,
                c.taken(),
                c.due(),
                c.by(),
                c.reference(),
                c.conditions(),
                new AfterUse(DAY.plusSeconds(3600), List.of(c.points().get(0)), AfterUse.Use.INFLUENCE),
                null);
        String html = Certificate.html(
                strict, sheet.channels().get("balance"), sheet.place(), c.due().plus(Duration.ofDays(2)));
        assertThat(html)
                .contains("Failed. At 150.000(6) g")
                .contains("must be repeated before use")
                .contains("Checked after use")
                .contains("kept as an influence");
        String fresh = Certificate.html(c, sheet.channels().get("balance"), sheet.place(), DAY);
        assertThat(fresh).contains("Passed").doesNotContain("must be repeated").contains("Not checked after use");
    }

    @Test
    void theScaleSaysThatItsSpanWasSetAndWhatThatDoesNotTest() {
        String html = Certificate.html(
                SESSION.latestCalibrationOf("scale").orElseThrow(),
                sheet.channels().get("scale"),
                sheet.place(),
                DAY);
        assertThat(html)
                .contains("tests linearity, hysteresis and repeatability, not the references")
                .containsPattern("Linearity [0-9.e-]+ % of span, hysteresis [0-9.e-]+ % of span");
    }

    @Test
    void theWiringCardNamesEveryTerminalTagAndSetting() throws IOException {
        Sheet cabinet =
                SheetReader.read(SheetReader.shippedText("drying-cabinet"), "x").sheet();
        Session s = Session.start("", "", DAY);
        String html = WiringCard.html(cabinet, s);
        byte[] pdf = WiringCard.pdf(cabinet, s);
        keep("wiring.pdf", pdf);
        for (String words : List.of(
                "green +, white -", "A+ A-", "TH-AM-01", "gain 0.2000(4)", "20 min", "· ice bath", "−0.8 to 0.8 V")) {
            assertThat(html).contains(words);
        }
        assertThat(text(pdf))
                .contains("Wiring card")
                .contains("type K pair, ice reference")
                .contains("Ice still floats");
    }
}
