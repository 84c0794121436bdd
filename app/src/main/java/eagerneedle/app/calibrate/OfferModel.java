package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.Channel;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/** Calibrations that a sheet does not ask for and that can be made all the same. */
record OfferModel(Desk desk) {
    /** Channels without a calibration, gates left out: what counts of them is when their edges come. */
    List<String> channels() {
        return desk.bench().sheet().channels().entrySet().stream()
                .filter(e -> e.getValue().calibration() == null && !isGate(e.getValue()))
                .map(Map.Entry::getKey)
                .toList();
    }

    private static boolean isGate(Channel c) {
        double[] reach = c.toChain().reach();
        return c.toChain().stepAt((reach[0] + reach[1]) / 2) >= reach[1] - reach[0];
    }

    static List<String> relations() {
        return List.of("line", "offset", "factor", "parabola");
    }

    /**
     * Adds a calibration to the session's sheet.
     *
     * @param unit of what the channel measures; empty for the unit it has
     * @param points what is set, with commas between
     * @throws IllegalArgumentException with one sentence where it makes no sense; nothing changes then
     */
    void add(String channel, String unit, String relation, String points, String reference) {
        if (!channels().contains(channel)) {
            throw new IllegalArgumentException(
                    "Choose the channel that is calibrated: " + String.join(", ", channels()) + ".");
        }
        List<String> set = Arrays.stream(points.split(","))
                .map(String::strip)
                .filter(p -> !p.isEmpty())
                .toList();
        if (set.isEmpty()) {
            throw new IllegalArgumentException("Write what is set, in order, with commas between: 0 degC, 50 degC.");
        }
        String of = relation.isBlank() ? "line" : relation;
        if (!relations().contains(of)) {
            throw new IllegalArgumentException("The relation is one of " + String.join(", ", relations()) + ".");
        }
        Additions.Added a = Additions.calibration(
                desk.bench().session().sheetText(),
                channel,
                unit.isBlank() ? desk.bench().sheet().channel(channel).unit() : unit,
                of,
                reference,
                set);
        desk.bench()
                .apply(new SheetCommand.Write(
                        a.text(),
                        "Will calibrate "
                                + desk.bench().sheet().channel(channel).label() + " at " + points + "."));
    }
}
