package eagerneedle.app.calibrate;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.CalibrationPlots;
import eagerneedle.picture.TwoRails;
import java.nio.file.Path;
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
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * Any calibration by points: what to set next, the steadied reading, the points with their residuals, verification,
 * keeping, the certificate, and the check after use. An adjustment comes first where the sheet wants one.
 */
final class PointProcedure implements CalibrateStation.Procedure {
    private static final double NARROW = 640;
    private final Desk desk;
    private final String name;
    private final Channel channel;
    private final Channel.CalibrationPlan plan;
    private final CalibrationDraft draft;
    private final CalibrationKeeping keeping;
    private final PictureView rails = new PictureView("Reference values above, what was indicated below", null);
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
    private final PointTable table;
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
        this.keeping = new CalibrationKeeping(desk, name, all);
        this.table = new PointTable(channel.labUnit());
        this.reading = new SteadyReading(desk, name, plan.seconds(), plan.typed());
        this.adjust =
                plan.toRelation() == Relation.ADJUSTED ? new AdjustPanel(desk, name, reading, this::adjusted) : null;
        reference.setId("reference");
        reference.setPrefWidth(150);
        reference.setAccessibleText("Reference value with its uncertainty");
        Labels.explained(
                reference,
                "The reference value with its own uncertainty, for instance 0.500(1) m; or a formula over the "
                        + "inputs of the sheet");
        reference.setOnAction(e -> place());
        Button place = new Button("Set there");
        place.setId("place");
        place.setOnAction(e -> place());
        Labels.explained(place, "It stands at the reference now (a simulated rig does it); the reading starts anew");
        take.setId("take-point");
        take.setOnAction(e -> takePoint());
        Labels.explained(
                take,
                plan.typed()
                        ? "Takes the typed reading as the indication"
                        : "Takes the mean of the last " + Notation.plain(plan.seconds(), 2)
                                + " s as the indication, once it is steady");
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
        item(certificate, "as PDF...", () -> keeping.certificate("pdf"));
        item(certificate, "as HTML...", () -> keeping.certificate("html"));
        reuse.setId("reuse-calibration");
        reuse.getStyleClass().add("quiet-button");
        reuse.setOnAction(e -> {
            keeping.askForSession();
            refresh();
        });
        Labels.explained(reuse, "Take the calibration of this channel over from the bench file of another session");
        after.setId("after-use");
        after.getStyleClass().add("quiet-button");
        Labels.explained(
                after,
                "Repeat the zero or one point after use: what drifted is taken out in proportion to time, kept "
                        + "as an influence, or only told");
        item(after, "take the drift out in proportion to time", () -> check(AfterUse.Use.CORRECT));
        item(after, "keep the drift as an influence", () -> check(AfterUse.Use.INFLUENCE));
        item(after, "only tell the drift", () -> check(AfterUse.Use.TELL));
        build();
        refresh();
    }

    private static void item(MenuButton menu, String words, Runnable act) {
        MenuItem i = new MenuItem(words);
        i.setOnAction(e -> act.run());
        menu.getItems().add(i);
    }

    private void build() {
        javafx.scene.layout.FlowPane acts =
                new javafx.scene.layout.FlowPane(8, 6, keep, discard, certificate, after, reuse);
        VBox left = new VBox(
                9,
                Labels.heading(capital(plan.kind()) + ": " + channel.label()),
                Labels.wrapped(plan.prepare() == null ? "" : plan.prepare()),
                Labels.quiet("against " + (plan.reference() == null ? "reference values" : plan.reference())
                        + (channel.labUnit().pretty().isEmpty()
                                ? ""
                                : "; all in " + channel.labUnit().pretty())));
        if (adjust != null) {
            left.getChildren().addAll(adjust);
        }
        left.getChildren().addAll(setting, table, result, acts);
        ScrollPane scroll = new ScrollPane(left);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setPrefWidth(420);
        scroll.setMinWidth(385);
        line.emptySays("The picture appears with the first point.");
        residuals.setPrefHeight(170);
        residuals.setMinHeight(140);
        javafx.scene.layout.Region upper = few() ? rails : line;
        rails.setMinHeight(200);
        VBox.setVgrow(upper, Priority.ALWAYS);
        VBox right = new VBox(4, upper, residuals);
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
            upper.setPrefHeight(narrow ? 220 : javafx.scene.layout.Region.USE_COMPUTED_SIZE);
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
    private Channel.PointPlan at(int i) {
        return checking != null
                ? i < plan.after().size() ? plan.after().get(i) : null
                : i < plan.points().size()
                        ? plan.points().get(i)
                        : i < planned() ? plan.verify().get(i - plan.points().size()) : null;
    }

    private String part(int i) {
        return checking != null ? "after" : i < plan.points().size() ? "points" : "verify";
    }

    private void place() {
        Notices.attempt(all, () -> {
            draft.settable(reference.getText());
            if (desk.rig().isEmpty() && !plan.typed()) {
                throw new IllegalArgumentException("No instrument is connected: connect it at Rig first.");
            }
            Channel.PointPlan p = at(current);
            boolean asPlanned =
                    p != null && p.reference().equals(reference.getText().strip());
            int index = checking != null
                    ? current
                    : current < plan.points().size()
                            ? current
                            : current - plan.points().size();
            reading.arrange(
                    asPlanned
                            ? Map.of(
                                    "channel",
                                    name,
                                    "part",
                                    part(current),
                                    "point",
                                    Integer.toString(index),
                                    "reference",
                                    reference.getText().strip())
                            : Map.of(
                                    "channel",
                                    name,
                                    "reference",
                                    reference.getText().strip()));
        });
    }

    private void takePoint() {
        Notices.attempt(all, () -> {
            Channel.PointPlan p = at(current);
            draft.settable(reference.getText());
            SteadyReading.Taken t = reading.take();
            boolean asPlanned =
                    p != null && p.reference().equals(reference.getText().strip());
            CalibrationPoint point = draft.point(
                    asPlanned ? p.words() : reference.getText().strip(),
                    reference.getText().strip(),
                    t,
                    p == null ? null : p.way());
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
        Channel.PointPlan p = at(to);
        if (p != null) {
            reference.setText(p.reference());
            place();
        }
    }

    private void adjusted(SteadyReading.Taken zero, SteadyReading.Taken full) {
        taken.put(
                0,
                draft.point(plan.points().get(0).words(), plan.points().get(0).reference(), zero, null));
        taken.put(
                1,
                draft.point(plan.points().get(1).words(), plan.points().get(1).reference(), full, null));
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
        desk.bench().apply(new CalibrationCommand.CheckAfterUse(name, check));
        checked.clear();
        current = 0;
        Notices.tell(
                all,
                desk.bench()
                        .session()
                        .calibrationOf(name)
                        .flatMap(Calibration::driftFound)
                        .map(d -> "It has drifted by " + d + " since it was calibrated.")
                        .orElse("Checked."));
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
        if (keeping.keep(made(), "The calibration is kept")) {
            startOver();
        }
    }

    /** Takes over the latest calibration of this channel from another bench file. */
    void reuse(Path file) {
        keeping.reuse(file);
        refresh();
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
        Channel.PointPlan p = at(current);
        next.setText(
                adjusting
                        ? ""
                        : checking != null
                                ? "Check after use: " + (p == null ? "" : p.words())
                                : p == null
                                        ? "All points of the plan are taken; more may be added."
                                        : (current < plan.points().size()
                                                        ? "Point " + (current + 1) + " of "
                                                                + plan.points().size()
                                                        : "Verification "
                                                                + (current
                                                                        - plan.points()
                                                                                .size()
                                                                        + 1) + " of "
                                                                + plan.verify().size())
                                                + ": " + p.words());
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
        keep.setDisable(!(fresh
                && complete
                && taken(false).size()
                        >= Math.max(
                                plan.toRelation().fewest(),
                                Math.min(plan.points().size(), plan.toRelation().fewest() + 2))));
        discard.setDisable(!fresh && checking == null);
        certificate.setDisable(stored == null);
        after.setDisable(stored == null || fresh);
        List<PointTable.Row> rows = rows(shown, fresh);
        table.show(shown, rows);
        String missing = CalibrationWords.missing(shown, plan.toRelation().fewest(), adjust != null);
        result.setText(
                !missing.isEmpty()
                        ? missing
                        : CalibrationWords.of(shown, channel.labUnit())
                                + (fresh
                                        ? ""
                                        : CalibrationWords.dates(
                                                stored, desk.bench().clock().instant())));
        if (few()) {
            List<TwoRails.Strand> strands = strands(shown, rows);
            rails.show((surface, w, h) -> TwoRails.paint(
                    surface,
                    strands,
                    plan.reference() == null ? "reference" : plan.reference(),
                    channel.labUnit().pretty(),
                    CalibrationWords.difference(channel.labUnit()),
                    w,
                    h));
        } else {
            line.plot(
                    shown == null
                            ? null
                            : CalibrationPlots.relation(shown, channel.label()).orElse(null),
                    false);
        }
        residuals.plot(
                shown == null
                        ? null
                        : CalibrationPlots.departures(shown, channel.label()).orElse(null),
                false);
    }

    /** With few points the two rails say more than a line through them. */
    private boolean few() {
        return plan.points().size() <= 3;
    }

    /** Rows for all points of the plan, taken or not, and for any more; or for the points of the kept calibration. */
    private List<PointTable.Row> rows(Calibration c, boolean fresh) {
        List<PointTable.Row> rows = new ArrayList<>();
        boolean adjusting = plan.toRelation() == Relation.ADJUSTED && taken.size() < 2;
        if (checking == null && !fresh && c != null) {
            c.points().forEach(p -> rows.add(row(planned(p), p, false, false)));
            c.verification().forEach(p -> rows.add(row(planned(p), p, true, false)));
            return rows;
        }
        if (checking != null || adjusting) {
            return rows;
        }
        for (int i = 0; i < planned(); i++) {
            Channel.PointPlan p = i < plan.points().size()
                    ? plan.points().get(i)
                    : plan.verify().get(i - plan.points().size());
            rows.add(row(p, taken.get(i), i >= plan.points().size(), i == current));
        }
        taken.keySet().stream()
                .filter(i -> i >= planned())
                .sorted()
                .forEach(i -> rows.add(row(planned(taken.get(i)), taken.get(i), false, false)));
        return rows;
    }

    /** The plan's entry for a point that was taken; one of its own where the plan has none. */
    private Channel.PointPlan planned(CalibrationPoint p) {
        return java.util.stream.Stream.concat(plan.points().stream(), plan.verify().stream())
                .filter(x -> (x.reference().equals(p.reference()) || x.words().equals(p.reference()))
                        && java.util.Objects.equals(x.way(), p.way()))
                .findFirst()
                .orElse(Channel.PointPlan.of(p.reference()));
    }

    private PointTable.Row row(Channel.PointPlan p, CalibrationPoint point, boolean check, boolean now) {
        String value = "";
        if (p.say() != null) {
            try {
                Quantity q = draft.reference(p.reference());
                value = Notation.bracketed(q.value(), q.u());
            } catch (IllegalArgumentException e) {
                value = "not known yet";
            }
        }
        return new PointTable.Row(p.words(), value, point, check, now);
    }

    /** Reference values with what was indicated at each: the two rails. */
    private List<TwoRails.Strand> strands(Calibration c, List<PointTable.Row> rows) {
        List<TwoRails.Strand> strands = new ArrayList<>();
        for (PointTable.Row r : rows) {
            try {
                double reference = r.point() != null && c != null
                        ? c.references(List.of(r.point()))[0]
                        : draft.reference(planned(r).reference()).value();
                strands.add(new TwoRails.Strand(
                        r.words(),
                        reference,
                        r.point() == null ? Double.NaN : r.point().indication(),
                        r.check(),
                        r.current()));
            } catch (IllegalArgumentException e) {
                continue;
            }
        }
        return strands;
    }

    private Channel.PointPlan planned(PointTable.Row r) {
        return java.util.stream.Stream.concat(plan.points().stream(), plan.verify().stream())
                .filter(x -> x.words().equals(r.words()))
                .findFirst()
                .orElse(Channel.PointPlan.of(r.words()));
    }
}
