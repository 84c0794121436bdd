package eagerneedle.core.sheet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;

/**
 * Where the entries of a sheet stand, and what was found wrong there while it was being written out. The pointers are
 * kept in order, so that all that stands below one is a range of them: a sheet of 1 500 lines is copied from thousands
 * of times.
 */
final class Places {
    private final NavigableMap<String, int[]> at;
    private final NavigableMap<String, int[]> origins = new TreeMap<>();
    private final String file;
    private final List<SheetException> problems = new ArrayList<>();

    /** @param at line and column by JSON pointer; entries that are written out are added to it */
    Places(NavigableMap<String, int[]> at, String file) {
        this.at = at;
        this.file = file;
    }

    void problem(String pointer, String message) {
        String p = pointer;
        while (!at.containsKey(p) && !p.isEmpty()) {
            p = p.substring(0, p.lastIndexOf('/'));
        }
        int[] place = at.getOrDefault(p, new int[] {1, 1});
        problems.add(new SheetException(file, place[0], place[1], message));
    }

    /**
     * What stands at a new place was written at another, and so what is below it; of a place within that other only
     * itself, since what is written out there would double with each.
     */
    void copy(String from, String to) {
        if (to.startsWith(from + "/")) {
            if (at.containsKey(from)) {
                at.putIfAbsent(to, at.get(from));
            }
            return;
        }
        if (at.containsKey(from)) {
            at.putIfAbsent(to, at.get(from));
        }
        copyBelow(at, from, to);
        copyBelow(origins, from, to);
    }

    private static void copyBelow(NavigableMap<String, int[]> places, String from, String to) {
        Map<String, int[]> more = new HashMap<>();
        below(places, from).forEach((p, place) -> more.put(to + p.substring(from.length()), place));
        more.forEach(places::putIfAbsent);
    }

    /** What stands below a place; '0' is the character after the stroke. */
    private static NavigableMap<String, int[]> below(NavigableMap<String, int[]> places, String pointer) {
        return places.subMap(pointer + "/", true, pointer + "0", false);
    }

    /** What stands at a place and below it was written at another, whatever stood there before. */
    void copyOver(String from, String to) {
        at.remove(to);
        below(at, to).clear();
        copy(from, to);
    }

    /** What stands at a place is what was written at another. */
    void replace(String from, String to) {
        int[] place = at.get(from);
        if (place != null) {
            at.put(to, place);
        }
    }

    /** What stood at one place, and below it, stands at another, and what stood there no longer does. */
    void move(String from, String to) {
        below(at, to).clear();
        below(origins, to).clear();
        copy(from, to);
        below(at, from).clear();
        below(origins, from).clear();
    }

    /** Which character of what was written each character of a formula stands for. */
    void origin(String pointer, int[] columns) {
        origins.put(pointer, columns);
    }

    Map<String, int[]> origins() {
        return origins;
    }

    List<SheetException> problems() {
        return problems;
    }
}
