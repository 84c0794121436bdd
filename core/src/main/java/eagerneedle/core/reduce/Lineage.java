package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;

/**
 * The neighbours of a quantity.
 *
 * @param from keys that its formula mentions
 * @param feeds keys of quantities whose formulas mention it
 */
public record Lineage(Set<Key> from, Set<Key> feeds) {
    static Lineage of(Reduction r, Key key) {
        Set<Key> feeds = new LinkedHashSet<>();
        Map<Key, String> formulas = formulas(r);
        formulas.forEach((k, f) -> {
            if (!k.equals(key) && mentions(r, k, f).contains(key)) {
                feeds.add(k);
            }
        });
        return new Lineage(formulas.containsKey(key) ? mentions(r, key, formulas.get(key)) : Set.of(), feeds);
    }

    /** The formulas of all results, and of the quantities of all runs, as the sheet writes them. */
    static Map<Key, String> formulas(Reduction r) {
        Map<Key, String> out = new LinkedHashMap<>();
        r.sheet().results().forEach((n, d) -> out.put(new Key.Global(n), d.formula()));
        for (Run run : r.runs()) {
            Capture capture = r.sheet().captures().get(run.capture());
            if (capture != null && run.discard() == null) {
                capture.quantities().forEach((n, d) -> out.put(Key.of(run, n), d.formula()));
            }
        }
        return out;
    }

    private static Set<Key> mentions(Reduction r, Key key, String formula) {
        Set<Key> out = new LinkedHashSet<>();
        for (String n : Formula.parse(formula).names()) {
            Key own = key instanceof Key.OfRun of ? new Key.OfRun(of.run(), n) : null;
            Key named = Key.named(n, r.sheet());
            if (own != null && r.has(own)) {
                out.add(own);
            } else if (named instanceof Key.Column column) {
                r.runs().stream()
                        .filter(x -> x.takesPart() && x.capture().equals(column.capture()))
                        .forEach(x -> out.add(Key.of(x, column.name())));
            } else {
                out.add(named);
            }
        }
        return out;
    }
}
