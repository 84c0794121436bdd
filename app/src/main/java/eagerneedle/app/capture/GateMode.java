package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Capture;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;

/** Edges of light gates: how many, how long the last block was, the last period and the mean of the newest ones. */
final class GateMode extends StreamMode {
    private static final double LOOK_BACK = 30;
    private final GridPane table = new GridPane();
    private final Map<String, Label[]> rows = new LinkedHashMap<>();

    GateMode(Desk desk, Capture plan) {
        super(desk, plan);
        table.getStyleClass().add("table-cells");
        table.addRow(
                0,
                Labels.quiet("gate"),
                Labels.quiet("edges"),
                Labels.quiet("last block"),
                Labels.quiet("last period"),
                Labels.quiet("mean of the newest periods"));
        plan.channels().forEach(c -> {
            Label[] cells = new Label[4];
            for (int i = 0; i < cells.length; i++) {
                cells[i] = Labels.figure("—");
                cells[i].setId("gate-" + c + "-"
                        + List.of("edges", "block", "period", "mean").get(i));
            }
            rows.put(c, cells);
            table.addRow(
                    rows.size(),
                    new Label(desk.bench().sheet().channels().get(c).label()),
                    cells[0],
                    cells[1],
                    cells[2],
                    cells[3]);
        });
    }

    @Override
    void look(LiveRig rig) {
        rows.forEach((channel, cells) -> {
            GateFigures f = GateFigures.of(rig.last(channel, LOOK_BACK));
            cells[0].setText(f.edges());
            cells[1].setText(f.block());
            cells[2].setText(f.period());
            cells[3].setText(f.mean());
        });
    }

    @Override
    Node panel() {
        return table;
    }
}
