package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.event.Edges;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.RawSamples;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;

/** Edges of light gates: how many, how long the last block was, the last period and the mean of the newest ones. */
final class GateMode extends StreamMode {
    private static final double LOOK_BACK = 30;
    private static final int NEWEST = 12;
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

    /**
     * Moments at which a gate changed, from samples of its state: every edge, blocked first when it was clear at the
     * start.
     *
     * @return moments in s; [0] those of blocking, [1] those of clearing
     */
    static List<List<Double>> edges(RawSamples states) {
        List<List<Double>> out = List.of(new ArrayList<>(), new ArrayList<>());
        for (int i = 0; i < states.size(); i++) {
            boolean now = states.values()[i] > 0.5;
            boolean before = i == 0 ? !now : states.values()[i - 1] > 0.5;
            if (i > 0 && now != before) {
                out.get(now ? 0 : 1).add(states.time()[i]);
            } else if (i == 0 && now) {
                out.get(0).add(states.time()[0]);
            }
        }
        return out;
    }

    @Override
    void look(LiveRig rig) {
        rows.forEach((channel, cells) -> {
            RawSamples states = rig.last(channel, LOOK_BACK);
            List<List<Double>> e = edges(states);
            List<Double> blocks = e.get(0);
            List<Double> clears = e.get(1);
            cells[0].setText(Long.toString(blocks.size() + clears.size()));
            if (!clears.isEmpty()) {
                double end = clears.get(clears.size() - 1);
                blocks.stream()
                        .filter(b -> b < end)
                        .reduce((a, b) -> b)
                        .ifPresent(b -> cells[1].setText(Notation.plain(1e3 * (end - b), 5) + " ms"));
            }
            int n = blocks.size();
            if (n > 1) {
                cells[2].setText(Notation.plain(1e3 * (blocks.get(n - 1) - blocks.get(n - 2)), 6) + " ms");
            }
            if (n > 3) {
                double[] newest = blocks.subList(Math.max(0, n - NEWEST - 1), n).stream()
                        .mapToDouble(d -> d)
                        .toArray();
                Edges train = Edges.of(newest);
                double[] gaps = new double[newest.length - 1];
                double mean = (newest[newest.length - 1] - newest[0]) / gaps.length;
                double sum = 0;
                for (int i = 0; i < gaps.length; i++) {
                    sum += Math.pow(newest[i + 1] - newest[i] - mean, 2);
                }
                double u = Math.sqrt(sum / (gaps.length - 1) / gaps.length);
                cells[3].setText(Notation.bracketed(1e3 * mean, 1e3 * u) + " ms of " + gaps.length
                        + (train.suspects().isEmpty()
                                ? ""
                                : "  ▲ " + train.suspects().get(0).sentence()));
            }
        });
    }

    @Override
    Node panel() {
        return table;
    }
}
