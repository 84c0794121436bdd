package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import java.util.Map;
import java.util.Objects;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/**
 * The actual value of something that is nominal on paper: measured on a channel, it replaces the nominal one
 * everywhere.
 */
final class ActualProcedure implements CalibrateStation.Procedure {
    private final Desk desk;
    private final String input;
    private final String name;
    private final Sheet.Input plan;
    private final SteadyReading reading;
    private final VBox all;
    private final Label result = Labels.wrapped("");
    private final Button take = new Button("Take as the actual value");

    ActualProcedure(Desk desk, String input) {
        this.desk = desk;
        this.input = input;
        this.plan = desk.bench().sheet().input(input);
        this.name = Objects.requireNonNull(plan.actual(), input);
        this.reading = new SteadyReading(desk, name, 2, false);
        take.setId("take-actual");
        take.setOnAction(e -> take());
        Labels.explained(
                take,
                "The steadied mean, with what the chain is uncertain of, becomes the measured value of this input");
        Button place = new Button("It is connected");
        place.setId("place-actual");
        place.setOnAction(e -> Notices.attempt(
                take,
                () -> reading.arrange(Map.of(
                        "channel",
                        name,
                        "reference",
                        desk.bench()
                                .plan()
                                .quantity(input)
                                .map(q -> Digits.bracketed(q.value(), 0) + " "
                                        + q.unit().symbol())
                                .orElse("0")))));
        HBox read = new HBox(12, reading, take);
        read.setAlignment(Pos.CENTER_LEFT);
        all = new VBox(
                10,
                Labels.heading("Actual value: " + plan.label()),
                Labels.wrapped("On paper it is " + plan.value() + (plan.by() == null ? "" : ", by " + plan.by())
                        + ". Measure it on " + channel().label() + " and use what it is."),
                place,
                read,
                result);
        refresh();
    }

    private Channel channel() {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    private void take() {
        Notices.attempt(all, () -> {
            SteadyModel.Taken t = reading.take();
            Calibration c = desk.bench()
                    .session()
                    .calibrationOf(name, desk.bench().sheet())
                    .orElse(null);
            double value = c == null ? t.mean() : c.at(t.mean()).value();
            double sum =
                    t.u() * t.u() + (c == null ? 0 : Math.pow(c.at(t.mean()).u(), 2));
            if (c == null) {
                for (Trace.Shared s : channel().toChain().shared()) {
                    sum += Math.pow(s.contribution().applyAsDouble(value), 2);
                }
            }
            LabUnit to = desk.bench()
                    .plan()
                    .quantity(input)
                    .map(Quantity::unit)
                    .orElse(channel().labUnit());
            Quantity q = Quantity.exact(value, channel().labUnit()).to(to);
            double u = Math.sqrt(sum) * channel().labUnit().scaleTo(to);
            desk.bench()
                    .apply(new PlanningCommand.SetMeasured(
                            input, plan.label(), (Digits.bracketed(q.value(), u) + " " + to.symbol()).strip()));
            Notices.tell(
                    all,
                    capital(plan.label()) + " is "
                            + desk.bench().session().measured().get(input) + " from now on.");
        });
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Node focus() {
        return take;
    }

    @Override
    public void tick() {
        reading.tick();
        take.setDisable(desk.rig().isEmpty());
    }

    @Override
    public void refresh() {
        String measured = desk.bench().session().measured().get(input);
        result.setText(
                measured == null
                        ? "Still as on paper."
                        : "Measured: " + measured + ". It replaces the nominal value in every result.");
    }
}
