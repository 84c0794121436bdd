package eagerneedle.app.calibrate;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.CalibrationPlots;
import java.util.List;
import java.util.Objects;
import javafx.geometry.HPos;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import org.jspecify.annotations.Nullable;

/** The panel of points: what the plan wants set, with its reference value, and what was indicated there. */
final class PointTable extends GridPane {
    private final LabUnit unit;

    PointTable(LabUnit unit) {
        this.unit = unit;
        getStyleClass().add("table-cells");
        setStyle("-fx-hgap: 10;");
        setId("point-table");
    }

    /** @param c the calibration that the points make, null for none */
    void show(@Nullable Calibration c, List<PointsModel.Row> rows) {
        getChildren().clear();
        if (rows.isEmpty()) {
            return;
        }
        String d = CalibrationWords.difference(unit);
        addRow(
                0,
                Labels.quiet("set"),
                Labels.quiet(rows.stream().allMatch(r -> r.reference().isEmpty()) ? "" : "reference"),
                Labels.quiet("indication"),
                Labels.quiet("residual" + (d.isEmpty() || d.length() > 4 ? "" : ", " + d)));
        boolean complete = c != null && CalibrationPlots.fitted(c).isPresent();
        double u = rows.stream()
                .map(PointsModel.Row::point)
                .filter(Objects::nonNull)
                .mapToDouble(CalibrationPoint::uIndication)
                .max()
                .orElse(0);
        int digits = u > 0 ? (int) Math.max(0, Math.min(6, 1 - Math.floor(Math.log10(u)))) : 3;
        for (PointsModel.Row r : rows) {
            int at = getRowCount();
            Label set = new Label((r.point() != null ? r.check() ? "✓ " : "● " : r.current() ? "▸ " : "○ ")
                    + Notation.asWritten(r.words()));
            set.setMinWidth(0);
            set.setMaxWidth(Theme.px(150));
            Labels.explained(set, (r.check() ? "Verification: " : "") + Notation.asWritten(r.words()));
            set.getStyleClass().add(r.point() != null ? "plain" : r.current() ? "strong" : "quiet");
            addRow(at, set, Labels.quiet(r.reference()));
            if (r.point() != null) {
                taken(at, c, r.point(), complete, digits);
            }
        }
        Labels.onPoints(this);
    }

    private void taken(int at, @Nullable Calibration c, CalibrationPoint p, boolean complete, int digits) {
        double residual = complete && c != null
                ? c.references(List.of(p))[0] - c.at(p.indication()).value()
                : Double.NaN;
        Label read = Labels.figure(Notation.bracketed(p.indication(), p.uIndication()));
        Labels.explained(
                read,
                p.samples() == 0
                        ? "typed"
                        : "mean of " + p.samples() + " samples" + (p.steady() ? ", steady" : ", not steady"));
        Label e = Labels.figure(Double.isNaN(residual) ? "" : Notation.sentence("%+." + digits + "f", residual));
        add(read, 2, at);
        add(e, 3, at);
        GridPane.setHalignment(e, HPos.RIGHT);
    }
}
