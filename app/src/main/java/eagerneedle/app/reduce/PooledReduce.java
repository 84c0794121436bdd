package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * Reduce for a method that captures nothing of its own: the pictures of what sessions give together, and the ways in
 * which it can be reckoned.
 */
public final class PooledReduce implements StationView {
    private final VBox all = new VBox(8);
    private final ColumnsPanel columns;
    private final WaysPanel ways;

    public PooledReduce(Desk desk) {
        columns = new ColumnsPanel(new ReduceModel(desk), () -> {});
        ways = new WaysPanel(desk);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        all.getStyleClass().add("surface");
        VBox.setVgrow(columns, Priority.ALWAYS);
        all.getChildren()
                .addAll(
                        new HBox(8, Labels.heading("What the sessions give together"), gap, columns.choice()),
                        ways,
                        columns);
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(columns.choice()).filter(Node::isVisible).map(n -> n);
    }

    @Override
    public void refresh() {
        boolean there = ways.model().hasWays();
        Labels.shown(ways, there);
        if (there) {
            ways.refresh();
        }
        columns.refresh();
    }
}
