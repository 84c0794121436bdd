package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * Touch to identify: say which place is touched, warm or press it, and the input that answers is tagged. The one that
 * moves furthest against its own scatter answers, if it stands out from all others.
 */
final class TouchPanel extends VBox {
    private static final double QUIET_SECONDS = 2;
    private static final double STANDS_OUT = 3;
    private static final double ENOUGH = 12;
    private static final long LONGEST = 20_000_000_000L;
    private final Desk desk;
    private final ChoiceBox<String> place = new ChoiceBox<>();
    private final Button touch = new Button("I touch it now");
    private final Button exchange = new Button();
    private final Label says = Labels.wrapped("");
    private final Map<String, double[]> before = new LinkedHashMap<>();
    private String touched;
    private String answered;
    private long since;

    TouchPanel(Desk desk) {
        this.desk = desk;
        setSpacing(6);
        getStyleClass().add("card");
        setId("touch-panel");
        desk.bench().sheet().channels().forEach((name, c) -> place.getItems().add(name));
        place.setConverter(new javafx.util.StringConverter<>() {
            @Override
            public String toString(String name) {
                return name == null ? "" : label(name);
            }

            @Override
            public String fromString(String text) {
                return text;
            }
        });
        place.setId("touch-place");
        place.getSelectionModel().selectFirst();
        place.setAccessibleText("Place that is touched");
        touch.setId("touch-now");
        touch.setOnAction(e -> begin());
        Labels.explained(touch, "Warm the probe or press the gauge at that place: the input that answers is found");
        exchange.setId("touch-accept");
        exchange.setVisible(false);
        exchange.setOnAction(e -> accept());
        says.setId("touch-says");
        HBox row = new HBox(10, Labels.quiet("place"), place, touch, exchange);
        row.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(Labels.section("Touch to identify"), row, says);
        says.setText("Choose a place, then warm its probe or press its gauge: the input that answers is compared with "
                + "its tag.");
    }

    private Channel channel(String name) {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    private String label(String name) {
        Channel c = channel(name);
        return c.position() == null ? c.label() : c.position();
    }

    private void begin() {
        LiveRig rig = desk.rig().orElse(null);
        if (rig == null) {
            Notices.warn(this, "Connect the instrument first; then touch.");
            return;
        }
        before.clear();
        for (String input : rig.channels()) {
            RawSamples raw = rig.lastOfInput(input, QUIET_SECONDS);
            if (raw.size() < 5) {
                Notices.warn(this, "There are too few samples yet; wait two seconds, then touch.");
                return;
            }
            before.put(input, meanAndScatter(raw));
        }
        touched = place.getValue();
        answered = null;
        since = System.nanoTime();
        exchange.setVisible(false);
        says.setText("Waiting for an answer to the touch at " + label(touched) + " ...");
        try {
            rig.arrange(Map.of("touch", label(touched)));
        } catch (IOException e) {
            Notices.warn(this, e.getMessage());
        }
    }

    private static double[] meanAndScatter(RawSamples raw) {
        double mean = java.util.Arrays.stream(raw.values()).average().orElse(0);
        double ss = java.util.Arrays.stream(raw.values())
                .map(v -> (v - mean) * (v - mean))
                .sum();
        return new double[] {mean, Math.max(0.5, Math.sqrt(ss / Math.max(1, raw.size() - 1)))};
    }

    /** Looks whether an input has answered. */
    void tick(LiveRig rig) {
        if (touched == null) {
            return;
        }
        String furthest = null;
        double most = 0;
        double second = 0;
        for (String input : rig.channels()) {
            RawSamples raw = rig.lastOfInput(input, 0.5);
            if (raw.size() == 0 || !before.containsKey(input)) {
                continue;
            }
            double moved = Math.abs(meanAndScatter(raw)[0] - before.get(input)[0]) / before.get(input)[1];
            if (moved > most) {
                second = most;
                most = moved;
                furthest = input;
            } else {
                second = Math.max(second, moved);
            }
        }
        if (furthest != null && most > ENOUGH && most > STANDS_OUT * second) {
            found(furthest);
        } else if (System.nanoTime() - since > LONGEST) {
            says.setText(
                    "No input stood out within 20 s. Touch longer, or look whether the probe is plugged in at all.");
            touched = null;
        }
    }

    private void found(String input) {
        String expected = channel(touched).inputOr(touched);
        if (input.equals(expected)) {
            says.setText("● Input " + input + " answered: the tag at " + label(touched) + " is right.");
            says.getStyleClass().setAll("label", "good");
        } else {
            answered = input;
            String holder = holder(input);
            says.setText("▲ Input " + input + " answered to the touch at " + label(touched) + ", but the tag says "
                    + expected + "."
                    + (holder == null
                            ? ""
                            : " The leads of " + label(touched) + " and " + label(holder) + " are exchanged."));
            says.getStyleClass().setAll("label", "attention");
            exchange.setText(holder == null ? "Tag it so" : "Exchange the tags");
            exchange.setVisible(true);
        }
        since = System.nanoTime();
        if (answered == null) {
            touched = null;
        } else {
            before.clear();
        }
    }

    /** The channel that an input belongs to by its tag; null for none. */
    private String holder(String input) {
        return desk.bench().sheet().channels().keySet().stream()
                .filter(n -> channel(n).inputOr(n).equals(input))
                .findFirst()
                .orElse(null);
    }

    private void accept() {
        String place1 = touched;
        String holder = holder(answered);
        String old = channel(place1).inputOr(place1);
        List<Command> acts = new java.util.ArrayList<>();
        if (holder != null) {
            acts.add(new RigCommand.SetUp(
                    holder,
                    desk.bench().session().setup(holder).wiredTo(old),
                    "Tagged " + channel(holder).label() + " as input " + old + "."));
        }
        acts.add(new RigCommand.SetUp(
                place1,
                desk.bench().session().setup(place1).wiredTo(answered),
                "Tagged " + channel(place1).label() + " as input " + answered + "."));
        if (Notices.attempt(this, () -> acts.forEach(desk.bench()::apply))) {
            says.setText("● Tagged: " + label(place1) + " is input " + answered
                    + (holder == null ? "." : ", " + label(holder) + " is input " + old + "."));
            says.getStyleClass().setAll("label", "good");
            exchange.setVisible(false);
            touched = null;
            answered = null;
        }
    }
}
