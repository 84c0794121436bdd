package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The inputs of a session: what is planned for them, what was read, and what they are read with. */
final class InputsModel {
    /** One of the two values of an input. */
    enum Column {
        PLANNED,
        MEASURED
    }

    /** An instrument that an input may be read with, and what the result would be then. */
    record Choice(String serial, String words) {}

    private final Desk desk;

    InputsModel(Desk desk) {
        this.desk = desk;
    }

    /** Inputs that are measured, in the order of the sheet. */
    Map<String, Sheet.Input> inputs() {
        return desk.bench().sheet().inputs();
    }

    /** Values that are only planned with. */
    Map<String, Sheet.Input> onlyPlanned() {
        return desk.bench().sheet().planned();
    }

    private Sheet.Input input(String key) {
        Sheet.Input input = inputs().get(key);
        return input == null ? Objects.requireNonNull(onlyPlanned().get(key)) : input;
    }

    /** True while the value of an input must not be seen: a reference in blind work. */
    boolean isHidden(String key) {
        return desk.bench().reduction().isHidden(key);
    }

    /** What stands in a cell; empty when nothing was read yet. */
    String cell(String key, Column column) {
        return isHidden(key)
                ? "hidden"
                : column == Column.PLANNED
                        ? desk.bench()
                                .session()
                                .planned()
                                .getOrDefault(key, input(key).value())
                        : desk.bench().session().measured().getOrDefault(key, "");
    }

    /**
     * Writes a cell; an empty text takes what stands there away.
     *
     * @throws IllegalArgumentException with one sentence when it is not a reading that fits
     */
    void write(String key, Column column, String text) {
        desk.bench().apply(act(key, column, text.isBlank() ? null : text.strip()));
    }

    private Command act(String key, Column column, @Nullable String text) {
        String label = input(key).label();
        if (text != null) {
            fits(label, input(key).value(), text);
        }
        return column == Column.PLANNED
                ? new PlanningCommand.SetPlanned(key, label, text)
                : new PlanningCommand.SetMeasured(key, label, text);
    }

    /** A reading of another kind would be found out by every formula that uses it, and told by each in its own way. */
    private static void fits(String label, String planned, String text) {
        LabUnit wanted;
        LabUnit given;
        try {
            wanted = Written.quantity(planned, label, label, "").unit();
            given = Written.quantity(text, label, label, "").unit();
        } catch (IllegalArgumentException e) {
            // What cannot be read at all is told where it is kept.
            return;
        }
        if (!given.fits(wanted)) {
            throw new IllegalArgumentException(
                    text + " does not fit: " + label + " is read in " + wanted.named() + ".");
        }
    }

    /**
     * Takes pasted cells into the inputs from one on, as one act. A bare number has the unit and the uncertainty that
     * were planned for its input; an empty cell leaves its input as it is.
     *
     * @return what was done, in one sentence
     * @throws IllegalArgumentException with one sentence when they do not fit; then none is taken
     */
    String paste(String from, Column column, List<String> cells) {
        List<String> keys =
                inputs().keySet().stream().dropWhile(k -> !k.equals(from)).toList();
        if (keys.size() < cells.size()) {
            throw new IllegalArgumentException(cells.size() + " cells were pasted, but there are only " + keys.size()
                    + " inputs from here on; nothing was taken.");
        }
        List<Command> acts = new ArrayList<>();
        for (int i = 0; i < cells.size(); i++) {
            if (!cells.get(i).isEmpty()) {
                acts.add(act(keys.get(i), column, asPlanned(keys.get(i), cells.get(i))));
            }
        }
        desk.bench()
                .apply(new Command.Together(
                        "Pasted " + acts.size() + " readings from "
                                + input(from).label() + " on.",
                        acts));
        return acts.size() + " readings were pasted; bare numbers have the unit and uncertainty that were planned.";
    }

    private String asPlanned(String key, String cell) {
        Reading r = Reading.parse(cell);
        if (r.u() != 0 || !r.unit().isDimensionless()) {
            return cell;
        }
        return Reading.parse(desk.bench()
                        .session()
                        .planned()
                        .getOrDefault(key, input(key).value()))
                .again(r.value())
                .text();
    }

    /**
     * Shares of the variance of the predicted main result, by input; none while there is no prediction. What a
     * rehearsal foretells knows its influences by what they are called only, so they are found by that: the input
     * alone, by what it is read with, or a part of its reading.
     */
    Map<String, Double> shares() {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        Map<String, Double> out = new HashMap<>();
        if (main != null) {
            desk.bench()
                    .plan()
                    .quantity(main.result())
                    .map(Budget::of)
                    .ifPresent(budget -> inputs().forEach((key, input) -> {
                        for (Budget.Line line : budget.lines()) {
                            if (isOf(line.label(), input.label())) {
                                out.merge(key, line.share(), Double::sum);
                            }
                        }
                    }));
        }
        return out;
    }

    private static boolean isOf(String influence, String input) {
        return influence.equals(input) || influence.startsWith(input + " by ") || influence.startsWith(input + ": ");
    }

    /** What an input is read with, in words. */
    String readWith(String key) {
        Instrument i = desk.bench().session().tied().get(key);
        String sheets = input(key).by();
        return i == null ? sheets == null ? "by ..." : sheets : i.name() + " " + i.id();
    }

    boolean isTied(String key) {
        return desk.bench().session().tied().containsKey(key);
    }

    /** The instruments of the stockroom that read an input, that which serves the result best first. */
    List<Choice> choices(String key) {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        return desk
                .bench()
                .improvements(desk.stockroom().all(), main == null ? key : main.result())
                .instrumentsFor(key)
                .stream()
                .map(c -> new Choice(c.instrument().id(), words(c, main != null)))
                .toList();
    }

    private String words(Improvements.Choice c, boolean withResult) {
        Instrument i = c.instrument();
        return i.name() + " " + i.id() + ":  u = "
                + Notation.figures(c.reading().u(), 2) + " "
                + (c.reading().unit().isAffine() ? "K" : c.reading().unit().pretty())
                + (c.result() == null || !withResult
                        ? ""
                        : ",  result u = " + Notation.figures(c.result().u(), 2) + " "
                                + c.result().unit().pretty())
                + i.objection(desk.bench().clock().instant())
                        .map(o -> "  ▲ " + o)
                        .orElse("");
    }

    /**
     * Reads an input with an instrument of the stockroom from now on.
     *
     * @throws IllegalArgumentException with one sentence when it cannot read it
     */
    void tie(String key, String serial) {
        Instrument i = desk.stockroom()
                .find(serial)
                .orElseThrow(
                        () -> new IllegalArgumentException("There is no instrument " + serial + " in the stockroom."));
        Quantity nominal = desk.bench()
                .plan()
                .quantity(key)
                .orElseThrow(() -> new IllegalArgumentException(input(key).label() + " has no planned value yet."));
        if (!i.reads(nominal)) {
            throw new IllegalArgumentException(i.name() + " " + i.id() + " does not read "
                    + nominal.unit().pretty() + " at " + Notation.plain(nominal.value(), 4) + ": its range is "
                    + String.join(" to ", i.range()) + ".");
        }
        desk.bench().apply(new PlanningCommand.TieInput(key, input(key).label(), i));
    }

    /** Reads an input with what the sheet says again. */
    void untie(String key) {
        desk.bench().apply(new PlanningCommand.TieInput(key, input(key).label(), null));
    }

    /** Hand instruments of the stockroom that read at least one input. */
    List<Instrument> atHand() {
        List<Quantity> nominal = inputs().keySet().stream()
                .flatMap(k -> desk.bench().plan().quantity(k).stream())
                .toList();
        return desk.stockroom().all().stream()
                .filter(i -> nominal.stream().anyMatch(i::reads))
                .toList();
    }
}
