package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.io.IOException;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * A live reading that says whether it is steady, judged from its samples. What was steady a moment ago is what a person
 * who presses the key now means. An instrument without an output has a field to type into instead.
 */
final class SteadyReading extends VBox {
    private static final long STILL_MEANT = 1_500_000_000L;
    private final Desk desk;
    private final String name;
    private final double seconds;
    private final boolean typed;
    private final Label live = Labels.styled("—", "figure-big");
    private final Label steady = Labels.quiet("");
    private final TextField field = new TextField();
    private WindowStatistics now;
    private WindowStatistics settled;
    private long settledAt;
    private double since;
    private boolean disturbed;
    private long lastTick;

    SteadyReading(Desk desk, String name, double seconds, boolean typed) {
        super(2);
        this.desk = desk;
        this.name = name;
        this.seconds = seconds;
        this.typed = typed;
        live.setId("live-reading");
        steady.setId("steadiness");
        steady.setWrapText(true);
        field.setId("typed-reading");
        field.setPrefWidth(150);
        field.setPromptText("for instance 12.5(2)");
        field.setAccessibleText("Indication as read from the display");
        Labels.explained(
                field,
                "The display's reading with what can be told of it: 182.5(3), in "
                        + channel().labUnit().pretty());
        if (typed) {
            HBox row = new HBox(8, field, Labels.quiet(channel().labUnit().pretty()));
            row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
            getChildren().addAll(row, Labels.quiet("typed: this instrument has no output"));
        } else {
            getChildren().addAll(live, steady);
        }
    }

    private Channel channel() {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    TextField field() {
        return field;
    }

    /** Tells the bench what the hands do and starts the reading anew. */
    void arrange(Map<String, String> bench) {
        settled = null;
        now = null;
        field.clear();
        if (desk.rig().isEmpty()) {
            return;
        }
        try {
            desk.rig().get().arrange(bench);
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        RawSamples last = desk.rig().get().last(name, 0.01);
        since = last.size() == 0 ? 0 : last.time()[last.size() - 1] + 0.3;
        live.setText("—");
        steady.setText("collecting · it has just been set");
        steady.getStyleClass().remove("good");
    }

    /** Starts the reading anew, as after a trim was turned. */
    void again() {
        RawSamples last = desk.rig().map(r -> r.last(name, 0.01)).orElse(RawSamples.NONE);
        since = last.size() == 0 ? since : last.time()[last.size() - 1] + 0.05;
        settled = null;
        now = null;
    }

    private int wanted() {
        return (int) (0.8 * seconds * channel().rate());
    }

    /** The newest mean, steady or not; NaN without one. */
    double value() {
        return now == null ? Double.NaN : now.mean();
    }

    boolean isSteady() {
        return now != null && now.n() >= wanted() && !disturbed && now.steady(3);
    }

    /** A reading taken: its mean, standard uncertainty and how many samples it rests on (0 for a typed one). */
    record Taken(double mean, double u, int n) {}

    /** @throws IllegalArgumentException with one sentence when there is nothing steady to take */
    Taken take() {
        if (typed) {
            if (field.getText().isBlank()) {
                throw new IllegalArgumentException("Type what the display reads first.");
            }
            Reading r = Reading.parse(field.getText());
            boolean bare = r.unit().isDimensionless();
            double v = bare ? r.value() : r.unit().convert(r.value(), channel().labUnit());
            double u = bare ? r.u() : r.u() * r.unit().scaleTo(channel().labUnit());
            return new Taken(v, u > 0 ? u : channel().toChain().stepAt(v) / Math.sqrt(12), 0);
        }
        if (desk.rig().isEmpty()) {
            throw new IllegalArgumentException("No instrument is connected: connect it at Rig first.");
        }
        boolean justSettled = settled != null && System.nanoTime() - settledAt < STILL_MEANT;
        if (!justSettled && (now == null || now.n() < wanted())) {
            throw new IllegalArgumentException("The reading is not long enough yet; wait until it is steady for "
                    + Notation.plain(seconds, 2) + " s.");
        }
        if (!justSettled && disturbed) {
            throw new IllegalArgumentException(
                    "Something moved within the last " + Notation.plain(seconds, 2) + " s; wait until it is steady.");
        }
        if (!justSettled && !now.steady(3)) {
            throw new IllegalArgumentException("The reading still drifts by " + Notation.plain(now.slope(), 2) + " "
                    + channel().labUnit().pretty() + "/s; wait until it is steady.");
        }
        WindowStatistics meant = justSettled ? settled : now;
        return new Taken(meant.mean(), meant.uMean(), meant.n());
    }

    /** Takes the newest samples in; true when something changed. */
    boolean tick() {
        long t = System.nanoTime();
        if (typed || t - lastTick < 100_000_000L) {
            return false;
        }
        lastTick = t;
        if (desk.rig().isEmpty()) {
            now = null;
            live.setText("—");
            steady.setText("Connect the instrument at Rig (key 2) to take readings.");
            return true;
        }
        Trace trace = LiveReadings.trace(
                channel(), LiveReadings.since(desk.rig().get().last(name, seconds), since));
        now = trace.size() < 4 ? null : WindowStatistics.of(trace);
        disturbed = now != null && LiveReadings.disturbed(trace);
        if (now == null) {
            live.setText("—");
            steady.setText("No reading: too few samples within reach yet.");
            return true;
        }
        String unit = channel().labUnit().pretty();
        live.setText(Notation.bracketed(now.mean(), now.uMean()) + " " + unit);
        boolean ready = isSteady();
        steady.setText(
                (ready ? "steady" : now.n() < wanted() ? "collecting" : disturbed ? "something moved" : "drifting")
                        + " · " + now.n() + " samples, scatter " + Notation.plain(now.sd(), 2) + " " + unit);
        steady.getStyleClass().remove("good");
        if (ready) {
            settled = now;
            settledAt = t;
            steady.getStyleClass().add("good");
        }
        return true;
    }

    /** Standard uncertainty of the newest mean; NaN without one. */
    Optional<WindowStatistics> statistics() {
        return Optional.ofNullable(now);
    }
}
