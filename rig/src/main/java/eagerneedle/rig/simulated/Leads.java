package eagerneedle.rig.simulated;

import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.Objects;

/**
 * Which sensor is on which input. With leads exchanged, the first two channels of one instrument in one unit change
 * places.
 */
final class Leads {
    private final int one;
    private final int other;

    private Leads(int one, int other) {
        this.one = one;
        this.other = other;
    }

    /** @param exchanged whether somebody took one lead for the other */
    static Leads of(Sheet sheet, boolean exchanged) {
        List<Channel> channels = List.copyOf(sheet.channels().values());
        for (int i = 0; exchanged && i < channels.size(); i++) {
            for (int k = i + 1; k < channels.size(); k++) {
                if (alike(channels.get(i), channels.get(k))) {
                    return new Leads(i, k);
                }
            }
        }
        return new Leads(0, 0);
    }

    /** Two leads of one instrument, in one unit. */
    private static boolean alike(Channel a, Channel b) {
        return a.unit().equals(b.unit()) && Objects.equals(a.device(), b.device());
    }

    /** The channel, by its place in the sheet, whose sensor is on an input. */
    int on(int input) {
        return input == one ? other : input == other ? one : input;
    }

    /** True when two channels of one instrument are in one unit, so that their leads can be exchanged. */
    static boolean canBeExchanged(Sheet sheet) {
        Leads exchanged = of(sheet, true);
        return exchanged.one != exchanged.other;
    }
}
