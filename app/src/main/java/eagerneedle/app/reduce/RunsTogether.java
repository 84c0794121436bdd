package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.core.judge.Repeated;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * All runs of a capture over each other, time counted from the beginning of each one's window, and what the runs of one
 * level give together: their mean, and whether they scatter more than they say themselves.
 */
final class RunsTogether extends VBox {
    private final Desk desk;
    private final PlotView overlay = new PlotView("All runs of the capture");
    private final GridPane words = new GridPane();
    private String shown = "";

    RunsTogether(Desk desk) {
        super(6);
        this.desk = desk;
        overlay.setId("overlay");
        overlay.emptySays("There are no traces of this capture yet.");
        overlay.setFocusTraversable(true);
        VBox.setVgrow(overlay, Priority.ALWAYS);
        words.setId("together-says");
        words.getStyleClass().add("table-cells");
        getChildren().addAll(overlay, words);
    }

    void refresh() {
        Reduction r = desk.bench().reduction();
        Optional<Run> run = desk.run().flatMap(x -> desk.bench().session().run(x.id()));
        String capture = run.map(Run::capture).orElse("");
        Capture c = desk.bench().sheet().captures().get(capture);
        if (c == null) {
            overlay.plot(null, false);
            words.getChildren().clear();
            return;
        }
        overlay.plot(SessionPlots.overlay(r, capture, c.channels().get(0)).orElse(null), capture.equals(shown));
        shown = capture;
        words.getChildren().clear();
        together(r, capture).forEach(t -> {
            Label says = Labels.quiet(t.says());
            says.setMinWidth(0);
            Label level = Labels.section(t.level());
            Label mean = Labels.figure(t.mean());
            level.setMinWidth(Region.USE_PREF_SIZE);
            mean.setMinWidth(Region.USE_PREF_SIZE);
            words.addRow(words.getRowCount(), level, mean, says);
        });
    }

    /** What the runs of one level give together. */
    record Together(String level, String mean, String says) {}

    /** One line a level that has several runs. */
    static List<Together> together(Reduction r, String capture) {
        Map<String, List<Run>> byLevel = new LinkedHashMap<>();
        r.runs().stream()
                .filter(x -> x.capture().equals(capture) && x.takesPart())
                .forEach(x -> byLevel.computeIfAbsent(x.level(), k -> new ArrayList<>())
                        .add(x));
        List<Together> out = new ArrayList<>();
        byLevel.forEach((level, runs) -> {
            List<Ledger.Entry> entries = runs.stream()
                    .flatMap(x -> r.headline(x).stream())
                    .filter(e -> e.quantity().filter(q -> q.u() > 0).isPresent())
                    .toList();
            if (entries.size() > 1) {
                out.add(together(SessionPlots.levelLabel(r, runs.get(0)), entries));
            }
        });
        return out;
    }

    private static Together together(String level, List<Ledger.Entry> entries) {
        Repeated all = Repeated.of(
                entries.stream().map(e -> e.quantity().orElseThrow()).toList(), level);
        String runs = entries.size() + " runs";
        if (Double.isNaN(all.birge())) {
            return new Together(
                    level,
                    all.mean().toString(),
                    runs + ", not each with a noise of its own: the plain mean with their scatter");
        }
        return new Together(
                level,
                all.mean().toString(),
                runs
                        + (all.overdispersed()
                                ? ", scattering more than each says of itself ("
                                : ", scattering as their uncertainties say (")
                        + "Birge ratio " + Notation.plain(all.birge(), 2) + ")");
    }
}
