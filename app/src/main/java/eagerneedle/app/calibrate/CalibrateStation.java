package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.AddRow;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.ChainPicture;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Calibrate: everything the sheet wants calibrated, with its state, and the procedure of the one in hand. */
public final class CalibrateStation implements StationView {
    private final Desk desk;
    private final VBox whole = new VBox(12);
    private final HBox all = new HBox(20);
    private final InUse inUse;
    private final TargetsModel model;
    private final VBox targets = new VBox(2);
    private final Rows<TargetsModel.Target> rows =
            Rows.changing(targets, TargetsModel.Target::key, this::button, this::show);
    private final HBox hand = new HBox();
    private final ToggleGroup choice = new ToggleGroup();
    private final Map<String, Procedure> procedures = new LinkedHashMap<>();
    private @Nullable String chosen;

    /** How one thing is calibrated. */
    interface Procedure {
        Node node();

        void refresh();

        void tick();

        /** What takes the keyboard first. */
        Node focus();
    }

    public CalibrateStation(Desk desk) {
        this.desk = desk;
        model = new TargetsModel(desk.bench());
        whole.getStyleClass().add("surface");
        VBox.setVgrow(all, Priority.ALWAYS);
        inUse = new InUse(desk);
        whole.getChildren().addAll(all, inUse);
        offer();
        Sheet sheet = desk.bench().sheet();
        sheet.channels().forEach((name, c) -> {
            if (c.calibration() != null) {
                procedures.put(
                        name,
                        c.calibration().toRelation() == Relation.CLOSURE
                                ? new ClosureProcedure(desk, name)
                                : new PointProcedure(desk, name));
            }
        });
        sheet.inputs().forEach((name, input) -> {
            if (input.actual() != null) {
                procedures.put("input " + name, new ActualProcedure(desk, name));
            }
        });
        if (procedures.isEmpty()) {
            all.getChildren().add(nothing(sheet));
            return;
        }
        chosen = procedures.keySet().iterator().next();
        ScrollPane list = new ScrollPane(targets);
        list.setFitToWidth(true);
        list.getStyleClass().add("bare");
        VBox.setVgrow(list, Priority.ALWAYS);
        VBox left = new VBox(8, Labels.heading("To calibrate"), list);
        left.setPrefWidth(Theme.px(176));
        left.setMinWidth(Theme.px(150));
        HBox.setHgrow(hand, Priority.ALWAYS);
        if (procedures.size() > 1) {
            all.getChildren().add(left);
        }
        all.getChildren().add(hand);
    }

    /** A channel that the sheet does not calibrate can be calibrated all the same. */
    private void offer() {
        OfferModel offer = new OfferModel(desk);
        if (offer.channels().isEmpty()) {
            return;
        }
        AddRow row = new AddRow(
                        "offer",
                        "Calibrate this too",
                        "Adds a calibration of this channel to the session's sheet: what is set, in order, and which "
                                + "relation follows from it",
                        v -> offer.add(v.get(0), v.get(1), v.get(2), v.get(3), v.get(4)))
                .offer("channel", "channel", 130, offer::channels)
                .text("unit", "in, such as degC", 128)
                .offer("relation", "line", 86, OfferModel::relations)
                .text("points", "set: 0 degC, 50 degC", 170)
                .text("reference", "against what", 120);
        whole.getChildren().add(new VBox(4, Labels.section("Another channel"), row));
    }

    /** Nothing is calibrated at this bench: then each channel is worth what its chain is. */
    private VBox nothing(Sheet sheet) {
        VBox box = new VBox(
                10,
                Labels.heading("Nothing is calibrated at this bench"),
                Labels.wrapped("The sheet takes every channel as the specifications of its chain describe it. What "
                        + "the instruments below owe is settled in the stockroom."));
        sheet.channels().forEach((name, c) -> {
            Chain chain = desk.bench().session().channel(sheet, name).toChain();
            double[] reach = chain.reach();
            if (chain.stepAt((reach[0] + reach[1]) / 2) >= reach[1] - reach[0]) {
                box.getChildren().add(Labels.wrapped(c.label() + ": a gate; what counts is when its edges come."));
                return;
            }
            box.getChildren()
                    .add(Labels.wrapped(c.label() + ": u of the chain "
                            + Printed.plain(
                                    ChainPicture.uncertainty(chain, (reach[0] + reach[1]) / 2),
                                    2,
                                    c.labUnit().difference())
                            + " in the middle of its reach."));
        });
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    /** Takes the calibration of a channel over from another bench file. */
    public void reuse(String channel, java.nio.file.Path file) {
        if (procedures.get(channel) instanceof PointProcedure p) {
            p.reuse(file);
        }
    }

    @Override
    public Node node() {
        return whole;
    }

    @Override
    public Optional<Node> focus() {
        return procedures.isEmpty()
                ? Optional.empty()
                : Optional.of(Objects.requireNonNull(procedures.get(chosen)).focus());
    }

    @Override
    public void refresh() {
        inUse.refresh();
        if (procedures.isEmpty()) {
            return;
        }
        rows.show(model.targets());
        Node shown = Objects.requireNonNull(procedures.get(chosen)).node();
        HBox.setHgrow(shown, Priority.ALWAYS);
        if (hand.getChildren().size() != 1 || hand.getChildren().get(0) != shown) {
            hand.getChildren().setAll(shown);
        }
        procedures.get(chosen).refresh();
    }

    private TargetButton button(TargetsModel.Target target) {
        TargetButton b = new TargetButton(target.key());
        b.setToggleGroup(choice);
        b.setOnAction(e -> {
            chosen = target.key();
            refresh();
            Platform.runLater(() ->
                    Objects.requireNonNull(procedures.get(target.key())).focus().requestFocus());
        });
        return b;
    }

    private void show(TargetButton b, TargetsModel.Target target) {
        b.show(target);
        b.setSelected(target.key().equals(chosen));
    }

    @Override
    public void tick() {
        if (!procedures.isEmpty()) {
            Objects.requireNonNull(procedures.get(chosen)).tick();
        }
    }
}
