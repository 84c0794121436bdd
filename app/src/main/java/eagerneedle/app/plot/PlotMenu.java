package eagerneedle.app.plot;

import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Files;
import eagerneedle.picture.Plot;
import eagerneedle.report.PlotTable;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;

/** What may be done with a plot: seen whole, copied, saved as a picture or as numbers. */
final class PlotMenu extends ContextMenu {
    PlotMenu(PlotView view, Plot plot) {
        item("Show all", view::all);
        item("One step back", view::back);
        item("Copy numbers", () -> {
            Copied.table(PlotTable.tabbed(plot));
        });
        item("Save as PNG...", () -> Files.savePng(view, plot.title()));
        item("Save as SVG...", () -> Files.saveText(view, plot.title() + ".svg", view.svg()));
        item("Save as CSV...", () -> Files.saveText(view, plot.title() + ".csv", PlotTable.csv(plot)));
    }

    private void item(String words, Runnable act) {
        MenuItem item = new MenuItem(words);
        item.setOnAction(e -> act.run());
        getItems().add(item);
    }
}
