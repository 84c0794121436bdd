package eagerneedle.core.sheet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Where the entries of a sheet stand, and what was found wrong there while it was being written out. */
final class Places {
    private final Map<String, int[]> at;
    private final Map<String, int[]> origins = new HashMap<>();
    private final String file;
    private final List<SheetException> problems = new ArrayList<>();

    /** @param at line and column by JSON pointer; entries that are written out are added to it */
    Places(Map<String, int[]> at, String file) {
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
        Map<String, int[]> more = new HashMap<>();
        at.forEach((p, place) -> {
            if (p.equals(from) || p.startsWith(from + "/")) {
                more.put(to + p.substring(from.length()), place);
            }
        });
        more.forEach(at::putIfAbsent);
        Map<String, int[]> columns = new HashMap<>();
        origins.forEach((p, o) -> {
            if (p.startsWith(from + "/")) {
                columns.put(to + p.substring(from.length()), o);
            }
        });
        columns.forEach(origins::putIfAbsent);
    }

    /** What stands at a place and below it was written at another, whatever stood there before. */
    void copyOver(String from, String to) {
        at.keySet().removeIf(p -> p.equals(to) || p.startsWith(to + "/"));
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
        at.keySet().removeIf(p -> p.startsWith(to + "/"));
        origins.keySet().removeIf(p -> p.startsWith(to + "/"));
        copy(from, to);
        at.keySet().removeIf(p -> p.startsWith(from + "/"));
        origins.keySet().removeIf(p -> p.startsWith(from + "/"));
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
