package eagerneedle.app.station;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Command;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Plot;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Calibrate: reference values against steadied live indications, a line through them, kept with its date. */
public final class CalibrateStation implements StationView {
    private static final double SECONDS = 2.0;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm").withLocale(java.util.Locale.UK).withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final HBox all = new HBox(26);
    private final TextField reference = new TextField();
    private final Label live = Labels.styled("—", "figure-big");
    private final Label steady = Labels.quiet("");
    private final Button take = new Button("Take point");
    private final Button keep = new Button("Keep calibration");
    private final Button discard = new Button("Start over");
    private final GridPane table = new GridPane();
    private final Label result = Labels.wrapped("");
    private final PlotView line = new PlotView("Reference against indication");
    private final PlotView residuals = new PlotView("Residuals of the calibration");
    private final List<CalibrationPoint> taken = new ArrayList<>();
    private final String channelName;
    private final Sheet.Channel channel;
    private static final long STILL_MEANT = 1_500_000_000L;
    private WindowStatistics now;
    /** The last reading that was steady, and when (System.nanoTime): a point taken a moment later means that one. */
    private WindowStatistics settled;
    private long settledAt;
    private double since;
    private long lastTick;

    public CalibrateStation(Desk desk) {
        this.desk = desk;
        Optional<Map.Entry<String, Sheet.Channel>> first = desk.bench().sheet().channels().entrySet().stream().filter(e -> e.getValue().calibration() != null).findFirst();
        this.channelName = first.map(Map.Entry::getKey).orElse(null);
        this.channel = first.map(Map.Entry::getValue).orElse(null);
        all.getStyleClass().add("surface");
        if (channel == null) {
            all.getChildren().add(Labels.wrapped("This sheet calibrates nothing."));
            return;
        }
        Sheet.CalibrationPlan plan = channel.calibration();
        reference.setId("reference");
        reference.setPrefWidth(130);
        reference.setText(plan.points().get(0));
        reference.setAccessibleText("Reference value with its uncertainty");
        Labels.explained(reference, "The reference value with its own uncertainty, for instance 0.500(1) m");
        reference.setOnAction(e -> place());
        Button place = new Button("Set there");
        place.setId("place");
        place.setOnAction(e -> place());
        Labels.explained(place, "The target stands at the reference now (a simulated rig moves it there); the reading starts anew");
        take.setId("take-point");
        take.setOnAction(e -> takePoint());
        Labels.explained(take, "Take the mean of the last " + Notation.plain(SECONDS, 2) + " s as the indication, once it is steady");
        live.setId("live-reading");
        steady.setId("steadiness");
        HBox setting = new HBox(8, Labels.quiet("reference"), reference, place);
        setting.setAlignment(Pos.CENTER_LEFT);
        HBox reading = new HBox(12, live, take);
        reading.setAlignment(Pos.CENTER_LEFT);
        keep.setId("keep-calibration");
        keep.setOnAction(e -> keep());
        Labels.explained(keep, "Store the calibration with date and due date; stored runs follow it at once");
        discard.getStyleClass().add("quiet-button");
        discard.setOnAction(e -> {
            taken.clear();
            reference.setText(plan.points().get(0));
            refresh();
        });
        table.getStyleClass().add("table-cells");
        VBox left = new VBox(11, Labels.heading(capital(plan.kind()) + ": " + channel.label()), Labels.wrapped(plan.prepare() == null ? "" : plan.prepare()),
                Labels.quiet("against " + (plan.reference() == null ? "reference values" : plan.reference())), setting, reading, steady, table, result, new HBox(10, keep, discard));
        left.setPrefWidth(410);
        left.setMinWidth(390);
        line.emptySays("The line appears with the second point.");
        residuals.setPrefHeight(170);
        residuals.setMinHeight(140);
        VBox.setVgrow(line, Priority.ALWAYS);
        VBox right = new VBox(4, line, residuals);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(left, right);
        refresh();
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    private void place() {
        Notices.attempt(all, () -> {
            Reading.parse(reference.getText()).unit().convert(0, channel.labUnit());
            try {
                if (desk.rig().isPresent()) {
                    desk.rig().get().arrange(Map.of("reference", reference.getText().strip()));
                    RawSamples last = desk.rig().get().last(channelName, 0.01);
                    since = last.size() == 0 ? 0 : last.time()[last.size() - 1] + 0.1;
                    settled = null;
                    now = null;
                    live.setText("—");
                    steady.setText("collecting · the target has just been moved");
                    steady.getStyleClass().remove("good");
                } else {
                    Notices.warn(all, "No instrument is connected: connect it at Rig first.");
                }
            } catch (IOException e) {
                throw new IllegalArgumentException(e.getMessage());
            }
        });
    }

    private void takePoint() {
        if (desk.rig().isEmpty()) {
            Notices.warn(all, "No instrument is connected: connect it at Rig first.");
            return;
        }
        Notices.attempt(all, () -> {
            Reading.parse(reference.getText()).unit().convert(0, channel.labUnit());
            boolean justSettled = settled != null && System.nanoTime() - settledAt < STILL_MEANT;
            if (!justSettled && (now == null || now.n() < wanted())) {
                throw new IllegalArgumentException("The reading is not long enough yet; wait until it is steady for " + Notation.plain(SECONDS, 2) + " s.");
            }
            if (!justSettled && !now.steady(3)) {
                throw new IllegalArgumentException("The reading still drifts by " + Notation.plain(now.slope(), 2) + " " + channel.labUnit().pretty() + "/s; wait until it is steady.");
            }
            WindowStatistics meant = justSettled ? settled : now;
            taken.add(new CalibrationPoint(reference.getText().strip(), meant.mean(), meant.uMean(), meant.n(), true));
            List<String> plan = channel.calibration().points();
            if (taken.size() < plan.size()) {
                reference.setText(plan.get(taken.size()));
                place();
            }
            refresh();
        });
    }

    private int wanted() {
        return (int) (0.8 * SECONDS * channel.rate());
    }

    private Calibration made(List<CalibrationPoint> points) {
        Instant at = desk.bench().clock().instant();
        int days = channel.calibration().days() == 0 ? 365 : channel.calibration().days();
        return new Calibration(channelName + "-" + at.toEpochMilli(), channelName, channel.calibration().kind(), channel.unit(), points, at, at.plus(Duration.ofDays(days)),
                "instructor on duty", channel.calibration().reference() == null ? "" : "reference: " + channel.calibration().reference());
    }

    private void keep() {
        if (Notices.attempt(all, () -> desk.bench().apply(new Command.Calibrate(made(taken))))) {
            taken.clear();
            reference.setText(channel.calibration().points().get(0));
            Notices.tell(all, "The calibration is kept; stored runs follow it.");
            refresh();
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public void tick() {
        long t = System.nanoTime();
        if (channel == null || t - lastTick < 100_000_000L) {
            return;
        }
        lastTick = t;
        if (desk.rig().isEmpty()) {
            now = null;
            live.setText("—");
            steady.setText("Connect the instrument at Rig to take points.");
            take.setDisable(true);
            return;
        }
        take.setDisable(false);
        RawSamples raw = desk.rig().get().last(channelName, SECONDS);
        int from = 0;
        while (from < raw.size() && raw.time()[from] < since) {
            from++;
        }
        RawSamples fresh = new RawSamples(java.util.Arrays.copyOfRange(raw.time(), from, raw.size()), java.util.Arrays.copyOfRange(raw.values(), from, raw.size()));
        now = RigStation.reading(channel, fresh).orElse(null);
        if (now == null) {
            live.setText("—");
            steady.setText("No reading: the target is out of reach.");
        } else {
            live.setText(Notation.bracketed(now.mean(), now.uMean()) + " " + channel.labUnit().pretty());
            boolean ready = now.n() >= wanted() && now.steady(3);
            steady.setText((ready ? "steady" : now.n() < wanted() ? "collecting" : "drifting") + " · " + now.n() + " samples, scatter " + Notation.plain(now.sd(), 2) + " " + channel.labUnit().pretty());
            steady.getStyleClass().remove("good");
            if (ready) {
                settled = now;
                settledAt = t;
                steady.getStyleClass().add("good");
            }
        }
    }

    @Override
    public void refresh() {
        if (channel == null) {
            return;
        }
        Calibration stored = desk.bench().session().calibrationOf(channelName).orElse(null);
        boolean fresh = !taken.isEmpty();
        List<CalibrationPoint> points = fresh ? taken : stored == null ? List.of() : stored.points();
        keep.setDisable(taken.size() < Calibration.FEWEST);
        discard.setDisable(!fresh);
        Fit fit = points.size() >= Calibration.FEWEST ? made(points).fit() : null;
        rows(points, fit);
        if (points.isEmpty()) {
            result.setText("No calibration yet. Take at least " + Calibration.FEWEST + " points.");
        } else if (fit == null) {
            result.setText(Calibration.FEWEST - points.size() + " more to go before a line can be kept.");
        } else {
            result.setText("x = " + fit.parameter(0) + " + " + fit.parameter(1) + " × indication\ncorrelation of the two " + Notation.figures(fit.parameter(0).correlation(fit.parameter(1)), 2)
                    + ".\n" + String.join(" ", fit.remarks())
                    + (fresh ? "" : "\nTaken " + DAY.format(stored.taken()) + ", due " + DAY.format(stored.due()) + "."));
        }
        plots(points, fit);
    }

    private void rows(List<CalibrationPoint> points, Fit fit) {
        table.getChildren().clear();
        if (points.isEmpty()) {
            return;
        }
        String unit = channel.labUnit().pretty();
        table.addRow(0, Labels.quiet("reference"), Labels.quiet("indication, " + unit), Labels.quiet("residual, " + milli()), Labels.quiet("n"));
        for (int i = 0; i < points.size(); i++) {
            CalibrationPoint p = points.get(i);
            Label residual = Labels.figure(fit == null ? "—" : String.format(java.util.Locale.ROOT, "%+7.2f", 1000 * fit.residuals()[i]).replace('-', '−'));
            table.addRow(i + 1, Labels.figure(p.reference()), Labels.figure(Notation.bracketed(p.indication(), p.uIndication())), residual, Labels.figure(Integer.toString(p.samples())));
        }
    }

    private String milli() {
        return channel.unit().equals("m") ? "mm" : "10⁻³ " + channel.labUnit().pretty();
    }

    private void plots(List<CalibrationPoint> points, Fit fit) {
        if (points.size() < 2) {
            line.plot(null, false);
            residuals.plot(null, false);
            return;
        }
        String unit = channel.labUnit().pretty();
        double[] x = points.stream().mapToDouble(CalibrationPoint::indication).toArray();
        double[] y = points.stream().mapToDouble(p -> Reading.parse(p.reference()).toQuantity("r", "r", "r").in(channel.labUnit())).toArray();
        List<Plot.Layer> layers = new ArrayList<>();
        if (fit != null) {
            double[] ends = {java.util.Arrays.stream(x).min().orElse(0), java.util.Arrays.stream(x).max().orElse(1)};
            layers.add(new Plot.Curve("line", ends, new double[] {fit.at(ends[0]).value(), fit.at(ends[1]).value()}, Ink.INK, 1.4, false));
            layers.add(new Plot.Legend(List.of("slope " + fit.parameter(1)), false));
        }
        layers.add(new Plot.Points("points", x, y, null, false, 0));
        line.plot(new Plot("Calibration of " + channel.label(), new Plot.Axis("indication", unit), new Plot.Axis("reference value", unit), layers), false);
        if (fit == null) {
            residuals.plot(null, false);
            return;
        }
        double[] r = fit.residuals();
        double[] u = new double[r.length];
        for (int i = 0; i < r.length; i++) {
            double ur = Reading.parse(points.get(i).reference()).toQuantity("r", "r", "r").to(channel.labUnit()).u();
            u[i] = 1000 * Math.hypot(ur, points.get(i).uIndication());
            r[i] *= 1000;
        }
        residuals.plot(new Plot("Residuals", new Plot.Axis("indication", unit), new Plot.Axis("residual", milli()), List.of(new Plot.Level(0, Ink.QUIET), new Plot.Points("residual", x, r, u, false, 0))), false);
    }
}
