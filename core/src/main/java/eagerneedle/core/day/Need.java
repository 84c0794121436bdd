package eagerneedle.core.day;

import java.util.List;

/**
 * What one bench of a method needs.
 *
 * @param method its id
 * @param title what it is called
 * @param kinds kinds of instruments, one each
 * @param warmUp minutes before its beginning at which it is switched on
 */
public record Need(String method, String title, List<String> kinds, double warmUp) {
    public Need {
        kinds = List.copyOf(kinds);
    }
}
