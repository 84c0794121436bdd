package eagerneedle.core.sheet;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * Which quantities of a sheet follow from which, each after all that it follows from. Only what something follows from,
 * or what follows from something, is in it.
 */
public final class Descent {
    /** What a quantity is. */
    public enum Kind {
        /** An input, a channel, a reading: nothing of the sheet computes it. */
        GIVEN,
        /** Computed for every run of a capture. */
        OF_RUN,
        RESULT
    }

    /**
     * A quantity.
     *
     * @param name as formulas write it outside its capture
     * @param pointer where the sheet gives it, as a JSON pointer; empty where it does so in several places
     * @param from the names that its formula, or any of its ways, uses
     */
    public record Item(String name, String label, Kind kind, String pointer, Set<String> from) {}

    private final Sheet sheet;
    private final Map<String, Item> found = new LinkedHashMap<>();
    private final Map<String, Item> ordered = new LinkedHashMap<>();

    private Descent(Sheet sheet) {
        this.sheet = sheet;
        sheet.captures()
                .forEach((c, capture) -> capture.quantities()
                        .forEach((n, d) -> add(c + "." + n, d, Kind.OF_RUN, "/captures/" + c + "/quantities/" + n, c)));
        sheet.results().forEach((n, d) -> add(n, d, Kind.RESULT, "/results/" + n, ""));
        List.copyOf(found.keySet()).forEach(n -> place(n, new LinkedHashSet<>()));
    }

    /** The quantities of a sheet, each after all that it follows from, otherwise as the sheet has them. */
    public static List<Item> of(Sheet sheet) {
        return List.copyOf(new Descent(sheet).ordered.values());
    }

    private void add(String name, Derived d, Kind kind, String pointer, String capture) {
        Collection<String> formulas = d.ways().isEmpty()
                ? List.of(d.formula() == null ? "" : d.formula())
                : d.ways().values();
        Set<String> from = new LinkedHashSet<>();
        for (String f : formulas) {
            for (String n : names(f)) {
                from.add(outside(n, capture));
            }
        }
        from.remove(name);
        found.put(name, new Item(name, d.label() == null ? "" : d.label(), kind, pointer, from));
    }

    private static Set<String> names(String formula) {
        try {
            return formula.isEmpty() || formula.equals("choice")
                    ? Set.of()
                    : Formula.parse(formula).names();
        } catch (FormulaException e) {
            return Set.of();
        }
    }

    /** A name as it is written outside its capture; a part of a fit or of an answer is that fit or answer. */
    private String outside(String name, String capture) {
        for (String whole = name; !whole.isEmpty(); whole = whole.substring(0, Math.max(0, whole.lastIndexOf('.')))) {
            if (!capture.isEmpty()
                    && Objects.requireNonNull(sheet.captures().get(capture))
                            .quantities()
                            .containsKey(whole)) {
                return capture + "." + whole;
            }
            if (isOfSheet(whole)) {
                return whole;
            }
        }
        return capture.isEmpty() || name.indexOf('.') > 0 ? name : capture + "." + name;
    }

    private boolean isOfSheet(String name) {
        int dot = name.indexOf('.');
        return sheet.inputs().containsKey(name)
                || sheet.channels().containsKey(name)
                || sheet.results().containsKey(name)
                || dot > 0
                        && sheet.captures().containsKey(name.substring(0, dot))
                        && Objects.requireNonNull(sheet.captures().get(name.substring(0, dot)))
                                .quantities()
                                .containsKey(name.substring(dot + 1));
    }

    /** Depth first; a circle, which the check of the sheet tells, is cut where it closes. */
    private void place(String name, Set<String> above) {
        if (ordered.containsKey(name) || !above.add(name)) {
            return;
        }
        Item item = found.getOrDefault(name, given(name));
        List<String> from = new ArrayList<>(item.from());
        from.removeIf(above::contains);
        from.forEach(f -> place(f, above));
        above.remove(name);
        ordered.put(
                name,
                new Item(
                        name,
                        item.label(),
                        item.kind(),
                        item.pointer(),
                        Collections.unmodifiableSet(new LinkedHashSet<>(from))));
    }

    private Item given(String name) {
        if (sheet.inputs().containsKey(name)) {
            return new Item(name, said(sheet.inputs().get(name).label()), Kind.GIVEN, "/inputs/" + name, Set.of());
        }
        if (sheet.channels().containsKey(name)) {
            return new Item(name, said(sheet.channel(name).label()), Kind.GIVEN, "/channels/" + name, Set.of());
        }
        return new Item(name, "", Kind.GIVEN, "", Set.of());
    }

    private static String said(String label) {
        return label == null ? "" : label;
    }
}
