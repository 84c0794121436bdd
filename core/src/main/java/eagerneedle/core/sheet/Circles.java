package eagerneedle.core.sheet;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/** Finds quantities that rest on themselves. */
final class Circles {
    private final SheetReader.Located located;
    private final Map<String, Set<String>> uses;
    private final Map<String, String> places;

    /**
     * @param uses what each quantity needs, by name
     * @param places where each stands in the sheet
     */
    Circles(SheetReader.Located located, Map<String, Set<String>> uses, Map<String, String> places) {
        this.located = located;
        this.uses = uses;
        this.places = places;
    }

    /** @throws SheetException when a quantity goes round in a circle */
    void find() {
        Set<String> clear = new LinkedHashSet<>();
        for (String start : uses.keySet()) {
            walk(start, new ArrayList<>(), clear);
        }
    }

    private void walk(String name, List<String> path, Set<String> clear) {
        if (path.contains(name)) {
            List<String> circle = new ArrayList<>(path.subList(path.indexOf(name), path.size()));
            circle.add(name);
            throw located.problem(
                    Objects.requireNonNull(places.get(name), name),
                    1,
                    "this goes round in a circle: " + String.join(" needs ", circle)
                            + "; define one of them from something else.");
        }
        if (clear.contains(name) || !uses.containsKey(name)) {
            return;
        }
        path.add(name);
        for (String need : uses.get(name)) {
            walk(need, path, clear);
        }
        path.remove(path.size() - 1);
        clear.add(name);
    }
}
