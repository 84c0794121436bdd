package eagerneedle.app.calibrate;

import eagerneedle.app.widget.Cell;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.CalibrationPlots;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The panel of points: what the plan wants set, with its reference value, and what was indicated there. */
final class PointCells {
    private PointCells() {}

    /**
     * A row of headings and one a point.
     *
     * @param c the calibration that the points make, null for none
     * @param unit of the channel
     */
    static List<List<Cell>> of(@Nullable Calibration c, List<PointsModel.Row> rows, LabUnit unit) {
        if (rows.isEmpty()) {
            return List.of();
        }
        String d = CalibrationWords.difference(unit);
        List<List<Cell>> cells = new ArrayList<>();
        cells.add(List.of(
                Cell.quiet("set"),
                Cell.quiet(rows.stream().allMatch(r -> r.reference().isEmpty()) ? "" : "reference"),
                Cell.quiet("indication"),
                Cell.quiet("residual" + (d.isEmpty() || d.length() > 4 ? "" : ", " + d))));
        Calibration fitted = c != null && CalibrationPlots.fitted(c).isPresent() ? c : null;
        int digits = digits(rows);
        for (PointsModel.Row r : rows) {
            List<Cell> row = new ArrayList<>(List.of(set(r), Cell.quiet(r.reference())));
            if (r.point() != null) {
                row.add(indicated(r.point()));
                row.add(Cell.right(fitted == null ? "" : residual(fitted, r.point(), digits)));
            }
            cells.add(row);
        }
        return cells;
    }

    private static int digits(List<PointsModel.Row> rows) {
        double u = rows.stream()
                .map(PointsModel.Row::point)
                .filter(Objects::nonNull)
                .mapToDouble(CalibrationPoint::uIndication)
                .max()
                .orElse(0);
        return u > 0 ? (int) Math.max(0, Math.min(6, 1 - Math.floor(Math.log10(u)))) : 3;
    }

    private static Cell set(PointsModel.Row r) {
        String words = Notation.asWritten(r.words());
        boolean taken = r.point() != null;
        String mark = taken ? r.check() ? "✓ " : "● " : r.current() ? "▸ " : "○ ";
        return new Cell(
                mark + words,
                taken ? Cell.Look.PLAIN : r.current() ? Cell.Look.STRONG : Cell.Look.QUIET,
                (r.check() ? "Verification: " : "") + words);
    }

    private static Cell indicated(CalibrationPoint p) {
        return Cell.figure(Notation.bracketed(p.indication(), p.uIndication()))
                .saying(
                        p.samples() == 0
                                ? "typed"
                                : "mean of " + p.samples() + " samples" + (p.steady() ? ", steady" : ", not steady"));
    }

    private static String residual(Calibration c, CalibrationPoint p, int digits) {
        double residual = c.references(List.of(p))[0] - c.at(p.indication()).value();
        return Double.isNaN(residual) ? "" : Notation.sentence("%+." + digits + "f", residual);
    }
}
