package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * A few values huge, for a class to read from the back row: the main result, or while an instrument is in use what it
 * reads. It can be frozen.
 */
final class Projector extends VBox {
    private static final int MOST = 4;
    private static final long EVERY = 300_000_000L;
    private boolean frozen;
    private long shown;

    Projector() {
        super(20);
        setId("projector");
        setAlignment(Pos.CENTER);
        setVisible(false);
        setStyle("-fx-background-color: -paper;");
    }

    void toggle() {
        setVisible(!isVisible());
        frozen = false;
        shown = 0;
    }

    void freeze() {
        frozen = !frozen;
        shown = 0;
        getChildren().stream()
                .filter(n -> n.getStyleClass().contains("quiet"))
                .forEach(n -> ((javafx.scene.control.Label) n).setText(says()));
    }

    /** Shows what is now, unless it is frozen or was shown a moment ago. */
    void tick(Workbench bench, @Nullable LiveRig rig, Station station) {
        long now = System.nanoTime();
        if (!isVisible() || frozen || now - shown < EVERY) {
            return;
        }
        shown = now;
        getChildren().clear();
        if (rig != null
                && station.ordinal() >= Station.RIG.ordinal()
                && station.ordinal() <= Station.CAPTURE.ordinal()) {
            bench.sheet().channels().keySet().stream().limit(MOST).forEach(name -> reading(bench, rig, name));
        } else {
            result(bench);
        }
        getChildren().add(Labels.quiet(says()));
    }

    private String says() {
        return frozen ? "Frozen. F to let it move, P or Escape to go back" : "F freezes, P or Escape goes back";
    }

    private void reading(Workbench bench, LiveRig rig, String name) {
        Channel channel = bench.session().channel(bench.sheet(), name);
        RawSamples raw = rig.last(name, Math.min(1, 2000 / rig.rate()));
        Chain chain = channel.toChain();
        double sum = 0;
        int n = 0;
        for (double count : raw.values()) {
            double v = chain.indication(count);
            if (Double.isFinite(v)) {
                sum += v;
                n++;
            }
        }
        String value = n == 0
                ? "—"
                : Notation.plain(
                        bench.session()
                                .calibrationOf(name, bench.sheet())
                                .filter(c -> c.closure() == null)
                                .map(mean(sum / n))
                                .orElse(sum / n),
                        5);
        getChildren().add(Labels.heading(channel.label()));
        getChildren()
                .add(Labels.styled(
                        value
                                + (channel.labUnit().pretty().isEmpty()
                                        ? ""
                                        : " " + channel.labUnit().pretty()),
                        "big"));
    }

    private static java.util.function.Function<eagerneedle.core.calibration.Calibration, Double> mean(
            double indication) {
        return c -> c.at(indication).value();
    }

    /** The main result and its reference. */
    private void result(Workbench bench) {
        Sheet.Comparison main = bench.sheet().mainComparison();
        List<String> keys = main == null
                ? bench.sheet().results().keySet().stream().limit(2).toList()
                : List.of(main.result(), main.reference());
        for (String name : keys) {
            Key key = new Key.Global(name);
            String label = bench.reduction().ledger().entries().stream()
                    .filter(x -> x.key().equals(key))
                    .map(x -> x.label())
                    .findFirst()
                    .orElse(key.toString());
            getChildren().add(Labels.heading(label));
            getChildren()
                    .add(Labels.styled(
                            bench.reduction()
                                    .quantity(key)
                                    .map(Notation::bracket)
                                    .orElse("—"),
                            "big"));
        }
    }
}
