package eagerneedle.app.station;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.window.Files;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Departure;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.session.Command;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.report.CalibrationPlots;
import eagerneedle.report.Certificate;
import eagerneedle.store.bench.BenchFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/**
 * Any calibration by points: what to set next, the steadied reading, the points with their residuals, verification, keeping,
 * the certificate, and the check after use. An adjustment comes first where the sheet wants one.
 */
final class PointProcedure implements CalibrateStation.Procedure {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm").withLocale(java.util.Locale.UK).withZone(ZoneId.systemDefault());
    private static final double NARROW = 640;
    private final Desk desk;
    private final String name;
    private final Sheet.Channel channel;
    private final Sheet.CalibrationPlan plan;
    private final CalibrationDraft draft;
    private final SteadyReading reading;
    private final AdjustPanel adjust;
    private final HBox all = new HBox(22);
    private final Label next = Labels.wrapped("");
    private final TextField reference = new TextField();
    private final Label computed = Labels.quiet("");
    private final Button take = new Button("Take point");
    private final Button keep = new Button("Keep calibration");
    private final Button discard = new Button("Start over");
    private final MenuButton after = new MenuButton("Check after use");
    private final MenuButton certificate = new MenuButton("Certificate");
    private final Button reuse = new Button("From another session...");
    private final VBox setting = new VBox(6);
    private final GridPane table = new GridPane();
    private final Label result = Labels.wrapped("");
    private final PlotView line = new PlotView("Reference against indication");
    private final PlotView residuals = new PlotView("Residuals of the calibration");
    /** What was taken, by its place in the plan: points first, then verification, then any more. */
    private final Map<Integer, CalibrationPoint> taken = new LinkedHashMap<>();
    private int current;
    private AfterUse.Use checking;
    private final List<CalibrationPoint> checked = new ArrayList<>();

    PointProcedure(Desk desk, String name) {
        this.desk = desk;
        this.name = name;
        this.channel = desk.bench().sheet().channels().get(name);
        this.plan = channel.calibration();
        this.draft = new CalibrationDraft(desk, name);
        this.reading = new SteadyReading(desk, name, plan.seconds(), plan.typed());
        this.adjust = plan.toRelation() == Relation.ADJUSTED ? new AdjustPanel(desk, name, reading, this::adjusted) : null;
        reference.setId("reference");
        reference.setPrefWidth(150);
        reference.setAccessibleText("Reference value with its uncertainty");
        Labels.explained(reference, "The reference value with its own uncertainty, for instance 0.500(1) m; or a formula over the inputs of the sheet");
        reference.setOnAction(e -> place());
        Button place = new Button("Set there");
        place.setId("place");
        place.setOnAction(e -> place());
        Labels.explained(place, "It stands at the reference now (a simulated rig does it); the reading starts anew");
        take.setId("take-point");
        take.setOnAction(e -> takePoint());
        Labels.explained(take, plan.typed() ? "Takes the typed reading as the indication" : "Takes the mean of the last " + Notation.plain(plan.seconds(), 2) + " s as the indication, once it is steady");
        reading.field().setOnAction(e -> takePoint());
        HBox where = new HBox(8, Labels.quiet("reference"), reference, place);
        where.setAlignment(Pos.CENTER_LEFT);
        HBox read = new HBox(12, reading, take);
        read.setAlignment(Pos.CENTER_LEFT);
        setting.getChildren().addAll(next, where, computed, read);
        take.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        keep.setId("keep-calibration");
        keep.setOnAction(e -> keep());
        Labels.explained(keep, "Stores the calibration with date and due date; stored runs follow it at once");
        discard.getStyleClass().add("quiet-button");
        discard.setId("start-over");
        discard.setOnAction(e -> startOver());
        certificate.setId("certificate");
        certificate.getStyleClass().add("quiet-button");
        item(certificate, "as PDF...", () -> saveCertificate("pdf"));
        item(certificate, "as HTML...", () -> saveCertificate("html"));
        reuse.setId("reuse-calibration");
        reuse.getStyleClass().add("quiet-button");
        reuse.setOnAction(e -> askForSession());
        Labels.explained(reuse, "Take the calibration of this channel over from the bench file of another session");
        after.setId("after-use");
        after.getStyleClass().add("quiet-button");
        Labels.explained(after, "Repeat the zero or one point after use: what drifted is taken out in proportion to time, kept as an influence, or only told");
        item(after, "take the drift out in proportion to time", () -> check(AfterUse.Use.CORRECT));
        item(after, "keep the drift as an influence", () -> check(AfterUse.Use.INFLUENCE));
        item(after, "only tell the drift", () -> check(AfterUse.Use.TELL));
        table.getStyleClass().add("table-cells");
        table.setStyle("-fx-hgap: 10;");
        build();
        refresh();
    }

    private static void item(MenuButton menu, String words, Runnable act) {
        MenuItem i = new MenuItem(words);
        i.setOnAction(e -> act.run());
        menu.getItems().add(i);
    }

    private void build() {
        javafx.scene.layout.FlowPane keeping = new javafx.scene.layout.FlowPane(8, 6, keep, discard, certificate, after, reuse);
        VBox left = new VBox(9, Labels.heading(capital(plan.kind()) + ": " + channel.label()), Labels.wrapped(plan.prepare() == null ? "" : plan.prepare()),
                Labels.quiet("against " + (plan.reference() == null ? "reference values" : plan.reference()) + (channel.labUnit().pretty().isEmpty() ? "" : "; all in " + channel.labUnit().pretty())));
        if (adjust != null) {
            left.getChildren().addAll(adjust);
        }
        left.getChildren().addAll(setting, table, result, keeping);
        ScrollPane scroll = new ScrollPane(left);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setPrefWidth(420);
        scroll.setMinWidth(385);
        line.emptySays("The picture appears with the first point.");
        residuals.setPrefHeight(170);
        residuals.setMinHeight(140);
        VBox.setVgrow(line, Priority.ALWAYS);
        VBox right = new VBox(4, line, residuals);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().setAll(scroll, right);
        // In a narrow window the pictures stand under the points.
        all.widthProperty().addListener((o, was, is) -> {
            boolean narrow = is.doubleValue() < NARROW;
            if (narrow == left.getChildren().contains(right)) {
                return;
            }
            all.getChildren().remove(right);
            left.getChildren().remove(right);
            line.setPrefHeight(narrow ? 220 : javafx.scene.layout.Region.USE_COMPUTED_SIZE);
            HBox.setHgrow(scroll, narrow ? Priority.ALWAYS : Priority.NEVER);
            (narrow ? left : all).getChildren().add(right);
        });
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    private int planned() {
        return plan.points().size() + plan.verify().size();
    }

    /** The plan's entry at a place; null beyond it. */
    private Sheet.PointPlan at(int i) {
        return checking != null ? i < plan.after().size() ? plan.after().get(i) : null
                : i < plan.points().size() ? plan.points().get(i) : i < planned() ? plan.verify().get(i - plan.points().size()) : null;
    }

    private String part(int i) {
        return checking != null ? "after" : i < plan.points().size() ? "points" : "verify";
    }

    private void place() {
        Notices.attempt(all, () -> {
            draft.reference(reference.getText());
            if (desk.rig().isEmpty() && !plan.typed()) {
                throw new IllegalArgumentException("No instrument is connected: connect it at Rig first.");
            }
            Sheet.PointPlan p = at(current);
            boolean asPlanned = p != null && p.reference().equals(reference.getText().strip());
            int index = checking != null ? current : current < plan.points().size() ? current : current - plan.points().size();
            reading.arrange(asPlanned ? Map.of("channel", name, "part", part(current), "point", Integer.toString(index), "reference", reference.getText().strip())
                    : Map.of("channel", name, "reference", reference.getText().strip()));
        });
    }

    private void takePoint() {
        Notices.attempt(all, () -> {
            Sheet.PointPlan p = at(current);
            draft.reference(reference.getText());
            SteadyReading.Taken t = reading.take();
            boolean asPlanned = p != null && p.reference().equals(reference.getText().strip());
            CalibrationPoint point = draft.point(asPlanned ? p.words() : reference.getText().strip(), reference.getText().strip(), t, p == null ? null : p.way());
            if (checking != null) {
                checked.add(point);
                if (checked.size() < plan.after().size()) {
                    advance(checked.size());
                } else {
                    finishCheck();
                }
            } else {
                taken.put(current, point);
                advance(nextOpen());
            }
            refresh();
        });
    }

    /** The first place of the plan that is not taken yet; the one after all others when the plan is done. */
    private int nextOpen() {
        int i = 0;
        while (taken.containsKey(i)) {
            i++;
        }
        return i;
    }

    private void advance(int to) {
        current = to;
        Sheet.PointPlan p = at(to);
        if (p != null) {
            reference.setText(p.reference());
            place();
        }
    }

    private void adjusted(SteadyReading.Taken zero, SteadyReading.Taken full) {
        taken.put(0, draft.point(plan.points().get(0).words(), plan.points().get(0).reference(), zero, null));
        taken.put(1, draft.point(plan.points().get(1).words(), plan.points().get(1).reference(), full, null));
        advance(nextOpen());
        refresh();
        take.requestFocus();
    }

    private void startOver() {
        taken.clear();
        checking = null;
        checked.clear();
        current = 0;
        if (adjust != null) {
            adjust.restart();
        }
        reference.setText(plan.points().get(0).reference());
        refresh();
    }

    private void check(AfterUse.Use use) {
        checking = use;
        checked.clear();
        advance(0);
        refresh();
    }

    private void finishCheck() {
        AfterUse check = new AfterUse(desk.bench().clock().instant(), checked, checking);
        checking = null;
        desk.bench().apply(new Command.CheckAfterUse(name, check));
        checked.clear();
        current = 0;
        Notices.tell(all, desk.bench().session().calibrationOf(name).flatMap(Calibration::driftFound).map(d -> "It has drifted by " + d + " since it was calibrated.").orElse("Checked."));
    }

    private List<CalibrationPoint> taken(boolean verification) {
        List<CalibrationPoint> out = new ArrayList<>();
        taken.keySet().stream().sorted().forEach(i -> {
            boolean verify = i >= plan.points().size() && i < planned();
            if (verify == verification) {
                out.add(taken.get(i));
            }
        });
        return out;
    }

    private Calibration made() {
        return draft.of(taken(false), taken(true), null);
    }

    private void keep() {
        Calibration c = made();
        if (Notices.attempt(all, () -> desk.bench().apply(new Command.Calibrate(c)))) {
            startOver();
            Notices.tell(all, "The calibration is kept" + c.failure().map(f -> ", but it failed its verification: " + f).orElse(".") + moved());
            refresh();
        }
    }

    /** What the results of stored runs did when the calibration was kept. */
    private String moved() {
        List<String> parts = new ArrayList<>();
        for (Ledger.Entry e : desk.bench().reduction().ledger().entries()) {
            if (!e.key().startsWith("run ") && e.source().equals("derived") && parts.size() < 2) {
                Quantity was = desk.bench().before(e.key()).orElse(null);
                if (was != null && e.quantity().isPresent() && was.unit().fits(e.quantity().get().unit())) {
                    parts.add(e.label() + " moved from " + was + " to " + e.quantity().get());
                }
            }
        }
        return parts.isEmpty() ? "" : " Stored runs follow: " + String.join("; ", parts) + ".";
    }

    private void askForSession() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Calibration from another session");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Bench files", "*.needle"));
        java.io.File f = chooser.showOpenDialog(all.getScene().getWindow());
        if (f != null) {
            reuse(f.toPath());
        }
    }

    /** Takes over the latest calibration of this channel from another bench file, with its dates and its points. */
    void reuse(Path file) {
        Notices.attempt(all, () -> {
            Calibration found;
            try (BenchFile other = BenchFile.open(file)) {
                found = other.session().calibrationOf(name).orElseThrow(() -> new IllegalArgumentException(file.getFileName() + " holds no calibration of the channel " + name + "."));
            }
            if (!LabUnit.parse(found.unit()).equals(channel.labUnit()) || found.relation() != plan.toRelation()) {
                throw new IllegalArgumentException("The channel " + name + " of " + file.getFileName() + " was calibrated in another way or unit; it does not fit here.");
            }
            desk.bench().apply(new Command.Calibrate(found));
            Notices.tell(all, "Taken over: calibrated " + DAY.format(found.taken()) + ", due " + DAY.format(found.due()) + "." + moved());
        });
        refresh();
    }

    private void saveCertificate(String kind) {
        Calibration c = desk.bench().session().calibrationOf(name).orElse(null);
        if (c == null) {
            Notices.warn(all, "There is no kept calibration yet to certify.");
            return;
        }
        Path to = Files.askFor(all, channel.label() + " certificate." + kind, "*." + kind);
        if (to != null) {
            Notices.attempt(all, () -> {
                var now = desk.bench().clock().instant();
                Files.write(to, kind.equals("pdf") ? Certificate.pdf(c, channel, desk.bench().sheet().place(), now) : Certificate.html(c, channel, desk.bench().sheet().place(), now).getBytes(StandardCharsets.UTF_8));
                Notices.tell(all, "Saved " + to.getFileName() + ".");
            });
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Node focus() {
        return adjust != null && taken.size() < 2 ? adjust.focus() : reference;
    }

    @Override
    public void tick() {
        if (reading.tick()) {
            take.setDisable(desk.rig().isEmpty());
        }
        if (adjust != null && adjust.isVisible()) {
            adjust.tick();
        }
    }

    @Override
    public void refresh() {
        Calibration stored = desk.bench().session().calibrationOf(name).orElse(null);
        boolean fresh = !taken.isEmpty();
        boolean adjusting = adjust != null && taken.size() < 2 && checking == null;
        if (adjust != null) {
            adjust.setVisible(adjusting);
            adjust.setManaged(adjusting);
            setting.getChildren().get(1).setVisible(!adjusting);
            setting.getChildren().get(1).setManaged(!adjusting);
            take.setVisible(!adjusting);
        }
        if (reference.getText().isEmpty()) {
            reference.setText(plan.points().get(0).reference());
        }
        Sheet.PointPlan p = at(current);
        next.setText(adjusting ? "" : checking != null ? "Check after use: " + (p == null ? "" : p.words()) : p == null ? "All points of the plan are taken; more may be added."
                : (current < plan.points().size() ? "Point " + (current + 1) + " of " + plan.points().size() : "Verification " + (current - plan.points().size() + 1) + " of " + plan.verify().size()) + ": " + p.words());
        next.setManaged(!adjusting);
        String formula = "";
        try {
            Quantity q = draft.reference(reference.getText());
            formula = p != null && p.say() != null && !adjusting ? "reference value " + q : "";
        } catch (IllegalArgumentException e) {
            formula = e.getMessage();
        }
        computed.setText(formula);
        computed.setManaged(!formula.isEmpty());
        Calibration shown = fresh ? made() : stored;
        boolean complete = shown != null && CalibrationPlots.fitted(shown).isPresent();
        keep.setDisable(!(fresh && complete && taken(false).size() >= Math.max(plan.toRelation().fewest(), Math.min(plan.points().size(), plan.toRelation().fewest() + 2))));
        discard.setDisable(!fresh && checking == null);
        certificate.setDisable(stored == null);
        after.setDisable(stored == null || fresh);
        rows(shown, complete);
        result.setText(words(shown, stored, fresh, complete));
        line.plot(shown == null ? null : CalibrationPlots.relation(shown, channel.label()).orElse(null), false);
        residuals.plot(shown == null ? null : CalibrationPlots.departures(shown, channel.label()).orElse(null), false);
    }

    private String words(Calibration c, Calibration stored, boolean fresh, boolean complete) {
        int fewest = plan.toRelation().fewest();
        if (c == null) {
            return "No calibration yet." + (adjust != null ? "" : fewest == 1 ? " One point is enough, more are better." : " Take at least " + fewest + " points.");
        }
        if (!complete) {
            int more = fewest - c.points().size();
            return more > 0 ? more + " more to go before there is a " + plan.toRelation().label() + "." : "These points do not determine the relation.";
        }
        StringBuilder b = new StringBuilder();
        List<Quantity> k = c.coefficients();
        b.append(switch (c.relation()) {
            case OFFSET -> "x = indication + " + k.get(0);
            case FACTOR -> "x = " + k.get(1) + " × indication";
            case ADJUSTED -> "The indicator reads x itself; " + CalibrationPlots.words(c);
            case LINE -> "x = " + k.get(0) + " + " + k.get(1) + " × indication\ncorrelation of the two " + Notation.figures(k.get(0).correlation(k.get(1)), 2);
            default -> "x = " + k.get(0) + " + " + k.get(1) + " × indication + " + k.get(2) + " × indication²" + (k.size() > 3 ? " + ..." : "");
        }).append(".");
        if (c.relation() != Relation.ADJUSTED) {
            b.append("\n").append(String.join(" ", c.fit().remarks()));
        }
        Departure d = c.departure();
        if (!c.verification().isEmpty()) {
            b.append("\n").append(c.failure().map(f -> "▲ Verification failed. " + f).orElse("● Verification holds: largest error " + Notation.plain(d.largest(), 2) + " " + span() + "."));
            double range = c.validRange()[1] - c.validRange()[0];
            if (!Double.isNaN(d.linearity()) && c.relation() == Relation.ADJUSTED) {
                b.append(" Linearity ").append(Notation.plain(100 * d.linearity() / range, 2)).append(" % of span");
                b.append(Double.isNaN(d.hysteresis()) ? "." : ", hysteresis " + Notation.plain(100 * d.hysteresis() / range, 2) + " %.");
            }
        }
        if (!fresh) {
            b.append("\nTaken ").append(DAY.format(stored.taken())).append(", due ").append(DAY.format(stored.due())).append(stored.overdue(desk.bench().clock().instant()) ? ": ▲ overdue." : ".");
            stored.driftFound().ifPresent(x -> b.append("\nAfter use it had drifted by ").append(x).append("."));
        }
        return b.toString();
    }

    private String span() {
        LabUnit u = channel.labUnit();
        return (u.isAffine() ? LabUnit.KELVIN : u).pretty();
    }

    private void rows(Calibration c, boolean complete) {
        table.getChildren().clear();
        if (c == null || c.points().isEmpty()) {
            return;
        }
        table.addRow(0, Labels.quiet("set"), Labels.quiet("indication"), Labels.quiet("residual" + (span().isEmpty() || span().length() > 4 ? "" : ", " + span())), Labels.quiet("n"));
        double[] refs = c.references(c.points());
        double u = java.util.stream.Stream.concat(c.points().stream(), c.verification().stream()).mapToDouble(CalibrationPoint::uIndication).max().orElse(0);
        int digits = u > 0 ? (int) Math.max(0, Math.min(6, 1 - Math.floor(Math.log10(u)))) : 3;
        int row = 1;
        for (int i = 0; i < c.points().size(); i++) {
            row(row++, c.points().get(i), complete ? refs[i] - c.at(c.points().get(i).indication()).value() : Double.NaN, "", digits);
        }
        Departure d = complete ? c.departure() : null;
        for (int i = 0; i < c.verification().size(); i++) {
            row(row++, c.verification().get(i), d == null ? Double.NaN : -d.errors()[i], "✓ ", digits);
        }
    }

    private void row(int row, CalibrationPoint p, double residual, String mark, int digits) {
        Label set = new Label(mark + p.reference());
        set.setMinWidth(0);
        set.setMaxWidth(170);
        Label e = Labels.figure(Double.isNaN(residual) ? "—" : signed(residual, digits));
        table.addRow(row, set, Labels.figure(Notation.bracketed(p.indication(), p.uIndication())), e, Labels.figure(p.samples() == 0 ? "typed" : Integer.toString(p.samples())));
        GridPane.setHalignment(e, javafx.geometry.HPos.RIGHT);
    }

    private static String signed(double v, int digits) {
        return String.format(java.util.Locale.ROOT, "%+." + digits + "f", v).replace('-', '−');
    }
}
