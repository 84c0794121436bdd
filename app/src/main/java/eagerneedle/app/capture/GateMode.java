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
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * Light gates: of each the last block, the last period and the count, large; below them the mean of the newest ones.
 */
final class GateMode extends StreamMode {
    private static final double LOOK_BACK = 30;
    private final FlowPane cards = new FlowPane(10, 8);
    private final Map<String, Label[]> figures = new LinkedHashMap<>();

    GateMode(Desk desk, Capture plan) {
        super(desk, plan);
        plan.channels()
                .forEach(c -> cards.getChildren()
                        .add(card(c, desk.bench().sheet().channel(c).label())));
    }

    private VBox card(String channel, String label) {
        Label[] cells = new Label[4];
        List<String> names = List.of("edges", "block", "period", "mean");
        for (int i = 0; i < cells.length; i++) {
            cells[i] = i < 3 ? Labels.styled("—", "figure-big") : Labels.wrapped("—");
            cells[i].setId("gate-" + channel + "-" + names.get(i));
            if (i < 3) {
                cells[i].setMinWidth(Region.USE_PREF_SIZE);
            }
        }
        figures.put(channel, cells);
        HBox large =
                new HBox(24, under("last block", cells[1]), under("last period", cells[2]), under("edges", cells[0]));
        return Labels.card(Labels.section(label), large, new HBox(8, Labels.quiet("newest periods"), cells[3]));
    }

    private static VBox under(String caption, Label figure) {
        return new VBox(0, Labels.quiet(caption), figure);
    }

    @Override
    void look(LiveRig rig) {
        figures.forEach((channel, cells) -> {
            GateFigures f = GateFigures.of(rig.last(channel, LOOK_BACK));
            cells[0].setText(f.edges());
            cells[1].setText(f.block());
            cells[2].setText(f.period());
            cells[3].setText(f.mean());
        });
    }

    @Override
    Node panel() {
        return cards;
    }
}
