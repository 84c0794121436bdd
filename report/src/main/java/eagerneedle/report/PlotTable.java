package eagerneedle.report;

import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.store.export.SpreadsheetCell;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** The numbers of a plot as rows of series, abscissa, ordinate and standard uncertainty, under a header. */
public final class PlotTable {
    private PlotTable() {}

    /** The data of all layers of points and stems as CSV. */
    public static String csv(Plot plot) {
        return printed(plot, CSVFormat.DEFAULT);
    }

    /** The same for the clipboard, from which a spreadsheet takes cells apart at tabs. */
    public static String tabbed(Plot plot) {
        return printed(plot, CSVFormat.TDF);
    }

    private static String printed(Plot plot, CSVFormat format) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv =
                new CSVPrinter(out, format.builder().setRecordSeparator("\n").get())) {
            csv.printRecord("series", axis(plot.x()), axis(plot.y()), "u");
            for (Layer l : plot.layers()) {
                if (l instanceof Layer.Points p) {
                    for (int i = 0; i < p.x().length; i++) {
                        csv.printRecord(
                                SpreadsheetCell.words(p.name()), p.x()[i], p.y()[i], p.u() == null ? "" : p.u()[i]);
                    }
                } else if (l instanceof Layer.Stems s) {
                    for (int i = 0; i < s.x().length; i++) {
                        csv.printRecord("residual", s.x()[i], s.y()[i], "");
                    }
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }

    private static String axis(Plot.Axis axis) {
        return SpreadsheetCell.words(axis.label().replace(", ", " / "));
    }
}
