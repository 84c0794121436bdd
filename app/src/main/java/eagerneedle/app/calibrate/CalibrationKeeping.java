package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.report.Certificate;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.StockroomException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.stage.FileChooser;

/**
 * What becomes of a calibration: it is kept in the session, entered in the history of every instrument of its chain,
 * put on paper; and one of another session is taken over.
 */
final class CalibrationKeeping {
    static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm")
            .withLocale(Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final String name;
    private final Node owner;

    /** @param owner a node of the window that is told */
    CalibrationKeeping(Desk desk, String name, Node owner) {
        this.desk = desk;
        this.name = name;
        this.owner = owner;
    }

    private Channel channel() {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    /** Keeps it and says what followed; false when it cannot be kept. */
    boolean keep(Calibration c, String says) {
        if (!Notices.attempt(owner, () -> desk.bench().apply(new CalibrationCommand.Calibrate(c)))) {
            return false;
        }
        Notices.tell(
                owner,
                says
                        + c.failure()
                                .map(f -> ", but it failed its verification: " + f)
                                .orElse(".")
                        + moved()
                        + history(c));
        return true;
    }

    /** What the results of stored runs did when the calibration was kept. */
    private String moved() {
        List<String> parts = new ArrayList<>();
        for (Ledger.Entry e : desk.bench().reduction().ledger().entries()) {
            if (!e.key().isOfRun() && e.source().equals("derived") && parts.size() < 2) {
                Quantity was = desk.bench().before(e.key()).orElse(null);
                if (was != null
                        && e.quantity().isPresent()
                        && was.unit().fits(e.quantity().get().unit())) {
                    parts.add(e.label() + " moved from " + was + " to "
                            + e.quantity().get());
                }
            }
        }
        return parts.isEmpty() ? "" : " Stored runs follow: " + String.join("; ", parts) + ".";
    }

    /** Enters it in the history of every instrument of the chain that the stockroom has. */
    private String history(Calibration c) {
        List<String> entered = new ArrayList<>();
        try {
            for (String serial : channel().chain().stream()
                    .map(Link::instrument)
                    .filter(java.util.Objects::nonNull)
                    .distinct()
                    .toList()) {
                Instrument i = desk.stockroom().find(serial).orElse(null);
                if (i != null) {
                    desk.stockroom()
                            .put(i.withEvent(new Instrument.Event(
                                    c.taken(),
                                    "calibrated by " + c.kind() + " in the chain of "
                                            + channel().label() + ", "
                                            + desk.bench().session().title(),
                                    c.by(),
                                    null,
                                    c.due(),
                                    c.failure().isPresent() ? "failed" : "passed")));
                    entered.add(serial);
                }
            }
        } catch (StockroomException e) {
            return " " + e.getMessage();
        }
        return entered.isEmpty() ? "" : " Entered in the history of " + String.join(", ", entered) + ".";
    }

    void askForSession() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Calibration from another session");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Bench files", "*.needle"));
        java.io.File f = chooser.showOpenDialog(owner.getScene().getWindow());
        if (f != null) {
            reuse(f.toPath());
        }
    }

    /** Takes over the latest calibration of this channel from another bench file, with its dates and its points. */
    void reuse(Path file) {
        Notices.attempt(owner, () -> {
            Calibration found;
            try (BenchFile other = BenchFile.open(file)) {
                found = other.session()
                        .latestCalibrationOf(name)
                        .orElseThrow(() -> new IllegalArgumentException(
                                FileName.of(file) + " holds no calibration of the channel " + name + "."));
            }
            List<String> here = Link.serials(
                    desk.bench().session().channel(desk.bench().sheet(), name).chain());
            if (!found.speaksOf(here)) {
                throw new IllegalArgumentException("That calibration is one of " + String.join(", ", found.chain())
                        + ", and " + channel().label() + " has " + String.join(", ", here)
                        + " here; calibrate it, or set that instrument at Rig.");
            }
            if (!LabUnit.parse(found.unit()).equals(channel().labUnit())
                    || found.relation() != channel().calibrationPlan().toRelation()) {
                throw new IllegalArgumentException("The channel " + name + " of " + FileName.of(file)
                        + " was calibrated in another way or unit; it does not fit here.");
            }
            desk.bench().apply(new CalibrationCommand.Calibrate(found));
            Notices.tell(
                    owner,
                    "Taken over: calibrated " + DAY.format(found.taken()) + ", due " + DAY.format(found.due()) + "."
                            + moved());
        });
    }

    /** Asks where to and saves the certificate of the kept calibration, as pdf or html. */
    void certificate(String kind) {
        Calibration c =
                desk.bench().session().calibrationOf(name, desk.bench().sheet()).orElse(null);
        if (c == null) {
            Notices.warn(owner, "There is no kept calibration yet to certify.");
            return;
        }
        Path to = Files.askFor(owner, channel().label() + " certificate." + kind, "*." + kind);
        if (to != null) {
            Notices.attempt(owner, () -> {
                Instant now = desk.bench().clock().instant();
                String place = desk.bench().sheet().place();
                Files.write(
                        to,
                        kind.equals("pdf")
                                ? Certificate.pdf(c, channel(), place, now)
                                : Certificate.html(c, channel(), place, now).getBytes(StandardCharsets.UTF_8));
                Notices.tell(owner, "Saved " + FileName.of(to) + ".");
            });
        }
    }
}
