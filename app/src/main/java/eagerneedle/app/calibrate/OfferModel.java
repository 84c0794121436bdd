package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.Channel;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/** Calibrations that a sheet does not ask for and that can be made all the same. */
record OfferModel(Desk desk) {
    /**
     * Channels without a calibration as the sheet names them: one that it has for each of a set is calibrated for each.
     * Gates are left out: what counts of them is when their edges come.
     */
    List<String> channels() {
        return SheetText.of(desk.bench().session().sheetText()).names("/channels").stream()
                .filter(name -> !meant(name).isEmpty()
                        && meant(name).stream().allMatch(c -> c.calibration() == null && !isGate(c)))
                .toList();
    }

    /** The channel of a name, or those of each of its set. */
    private List<Channel> meant(String name) {
        return desk.bench().sheet().channels().entrySet().stream()
                .filter(e -> e.getKey().equals(name) || e.getKey().startsWith(name + "."))
                .map(Map.Entry::getValue)
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
        Channel first = meant(channel).get(0);
        Additions.Added a = Additions.calibration(
                desk.bench().session().sheetText(), channel, unit.isBlank() ? first.unit() : unit, of, reference, set);
        desk.bench()
                .apply(new SheetCommand.Write(
                        a.text(),
                        "Will calibrate " + (meant(channel).size() > 1 ? "each " + channel : first.label()) + " at "
                                + points + "."));
    }
}
