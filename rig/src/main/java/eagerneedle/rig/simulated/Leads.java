package eagerneedle.rig.simulated;

import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.List;

/** Which sensor is on which input. With leads exchanged, the first two channels of one unit change places. */
final class Leads {
    private final int one;
    private final int other;

    private Leads(int one, int other) {
        this.one = one;
        this.other = other;
    }

    /** @param exchanged whether somebody took one lead for the other */
    static Leads of(Sheet sheet, boolean exchanged) {
        List<String> units =
                sheet.channels().values().stream().map(Channel::unit).toList();
        for (int i = 0; exchanged && i < units.size(); i++) {
            int next = units.subList(i + 1, units.size()).indexOf(units.get(i));
            if (next >= 0) {
                return new Leads(i, i + 1 + next);
            }
        }
        return new Leads(0, 0);
    }

    /** The channel, by its place in the sheet, whose sensor is on an input. */
    int on(int input) {
        return input == one ? other : input == other ? one : input;
    }

    /** True when two channels of a sheet are in one unit, so that their leads can be exchanged. */
    static boolean canBeExchanged(Sheet sheet) {
        return sheet.channels().values().stream().map(Channel::unit).distinct().count()
                < sheet.channels().size();
    }
}
