package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.Beginning;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.layout.VBox;

/** A station of a session whose sheet captures nothing yet: what could be captured is asked for. */
final class EmptyBench implements StationView {
    private final VBox all = new VBox(14);

    EmptyBench(Station station, Consumer<Beginning> add) {
        all.getStyleClass().add("surface");
        Beginnings ways = Beginnings.toAdd(add);
        all.getChildren()
                .addAll(
                        Labels.heading(
                                switch (station) {
                                    case RIG -> "No instrument yet";
                                    case CAPTURE -> "Nothing to capture yet";
                                    default -> "No runs yet";
                                }),
                        Labels.wrapped(
                                "Connect an instrument, or bring in files: their channels are written into the sheet of "
                                        + "this session, and everything else follows from there. Inputs and results can be added at Plan."),
                        ways);
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public void refresh() {}
}
