package eagerneedle.app.calibrate;

import eagerneedle.app.eye.ReadingField;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.CellGrid;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.LivePage;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Channel;
import eagerneedle.picture.CalibrationPlots;
import eagerneedle.picture.TwoRails;
import java.nio.file.Path;
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
import org.jspecify.annotations.Nullable;

/**
 * Shows a {@link PointsModel}: what to set next, the steadied reading, the points with their residuals, verification,
 * keeping, the certificate, and the check after use. An adjustment comes first where the sheet wants one.
 */
final class PointProcedure implements CalibrateStation.Procedure {
    private static final double NARROW = 640;
    private final Desk desk;
    private final Channel channel;
    private final Channel.CalibrationPlan plan;
    private final PointsModel model;
    private final CalibrationKeeping keeping;
    private final PictureView rails = new PictureView("Reference values above, what was indicated below", null);
    private final SteadyReading reading;
    private final @Nullable AdjustPanel adjust;
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
    private final CellGrid table = new CellGrid((label, column) -> {
        if (column == 0) {
            label.setMinWidth(0);
            label.setMaxWidth(Theme.px(150));
        }
    });
    private final Label result = Labels.wrapped("");
    private final PlotView line = new PlotView("Reference against indication");
    private final PlotView residuals = new PlotView("Residuals of the calibration");

    PointProcedure(Desk desk, String name) {
        this.desk = desk;
        this.model = new PointsModel(desk.bench(), name);
        this.channel = model.channel();
        this.plan = model.plan();
        this.keeping = new CalibrationKeeping(desk, name, all);
        table.getStyleClass().add("table-cells");
        table.setStyle("-fx-hgap: 10;");
        table.setId("point-table");
        this.reading = new SteadyReading(desk, name, plan.seconds(), plan.typed());
        this.adjust = model.adjusts() ? new AdjustPanel(desk, name, reading, this::adjusted) : null;
        reference.setId("reference");
        reference.setPrefWidth(Theme.px(150));
        reference.setAccessibleText("Reference value with its uncertainty");
        Labels.explained(
                reference,
                Typing.as(
                        "The reference value with its own uncertainty, for instance 0.500(1) m; or a formula over the "
                                + "inputs of the sheet"));
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
        String like = ("1 " + channel.labUnit().symbol()).strip();
        ReadingField built = new ReadingField(reference, channel.label() + ": reference", like, () -> {});
        HBox where = new HBox(8, Labels.quiet("reference"), built, place);
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
        ScrollPane scroll = new LivePage(left);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setPrefWidth(Theme.px(420));
        scroll.setMinWidth(Theme.px(385));
        line.emptySays("The picture appears with the first point.");
        residuals.setPrefHeight(Theme.px(170));
        residuals.setMinHeight(Theme.px(140));
        javafx.scene.layout.Region upper = model.few() ? rails : line;
        rails.setMinHeight(Theme.px(200));
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

    private void place() {
        Notices.attempt(all, this::arrange);
    }

    private void arrange() {
        model.reference(Typing.in(reference));
        Map<String, String> bench = model.placing();
        if (desk.rig().isEmpty() && !plan.typed()) {
            throw new IllegalArgumentException("No instrument is connected: connect it at Rig first.");
        }
        reading.arrange(bench);
    }

    private void takePoint() {
        Notices.attempt(all, () -> {
            model.reference(Typing.in(reference));
            boolean more = model.take(reading.take());
            if (model.isCheckComplete()) {
                Notices.tell(all, model.finishCheck());
            }
            goOn(more);
        });
    }

    /** Shows what changed, and sets the next point of the plan where there is one. */
    private void goOn(boolean more) {
        Typing.show(reference, model.reference());
        if (more) {
            place();
        }
        refresh();
    }

    private void adjusted(SteadyModel.Taken zero, SteadyModel.Taken full) {
        goOn(model.adjusted(zero, full));
        take.requestFocus();
    }

    private void startOver() {
        model.startOver();
        if (adjust != null) {
            adjust.restart();
        }
        goOn(false);
    }

    private void check(AfterUse.Use use) {
        goOn(model.check(use));
    }

    private void keep() {
        if (keeping.keep(model.made(), "The calibration is kept")) {
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
        return adjust != null && model.isAdjusting() ? adjust.focus() : reference;
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
        boolean adjusting = model.isAdjusting();
        if (adjust != null) {
            shown(adjust, adjusting);
            shown(setting.getChildren().get(1), !adjusting);
            take.setVisible(!adjusting);
        }
        if (Typing.in(reference).isEmpty()) {
            Typing.show(reference, model.reference());
        }
        model.reference(Typing.in(reference));
        Labels.says(next, adjusting ? "" : model.says());
        Labels.says(computed, model.computed());
        keep.setDisable(!model.canKeep());
        discard.setDisable(!model.canStartOver());
        certificate.setDisable(!model.canCertify());
        after.setDisable(!model.canCheckAfterUse());
        Calibration shown = model.shown().orElse(null);
        table.show(PointCells.of(shown, model.rows(), model.channel().labUnit()));
        result.setText(model.result());
        if (model.few()) {
            List<TwoRails.Strand> strands = model.strands();
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
                    model.shown()
                            .flatMap(c -> CalibrationPlots.relation(c, channel.label()))
                            .orElse(null),
                    false);
        }
        residuals.plot(
                model.shown()
                        .flatMap(c -> CalibrationPlots.departures(c, channel.label()))
                        .orElse(null),
                false);
    }

    private static void shown(Node node, boolean shown) {
        Labels.shown(node, shown);
    }
}
