package eagerneedle.app.station;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.PlainWords;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What a result still lacks, in words that say what to do next. */
public final class Lacking {
    private Lacking() {}

    /** What is to be done before a result can be told; a single sentence that nothing is missing where that is so. */
    public static String of(Workbench bench, String result) {
        List<String> out = new ArrayList<>();
        for (String capture : captures(bench.sheet(), result)) {
            Capture c = Objects.requireNonNull(bench.sheet().captures().get(capture));
            long taken = bench.session().keptRuns().stream()
                    .filter(r -> r.capture().equals(capture) && r.takesPart())
                    .count();
            long wanted = (long) c.levels().size() * bench.session().repeats(bench.sheet(), capture);
            if (taken < wanted || taken == 0) {
                out.add(c.label() + ", " + (taken == 0 ? "no run yet" : taken + (taken == 1 ? " run" : " runs"))
                        + " of " + Math.max(1, wanted));
            }
        }
        if (!out.isEmpty()) {
            return "Still to take at Capture (key 4): " + String.join("; ", out) + ".";
        }
        String problem = bench.reduction().outcome(result).problem();
        return problem == null ? "" : PlainWords.of(bench.sheet()).say(problem);
    }

    /** The captures that a result rests on, by its formula and those of what that names, of every run or of all. */
    static Set<String> captures(Sheet sheet, String result) {
        Set<String> out = new LinkedHashSet<>();
        Set<String> seen = new LinkedHashSet<>();
        List<String> open = new ArrayList<>(List.of(result));
        while (!open.isEmpty()) {
            String name = open.remove(open.size() - 1);
            if (!seen.add(name)) {
                continue;
            }
            int dot = name.indexOf('.');
            Capture capture = dot > 0 ? sheet.captures().get(name.substring(0, dot)) : null;
            if (capture == null) {
                Derived d = sheet.results().get(dot > 0 ? name.substring(0, dot) : name);
                open.addAll(d == null ? List.of() : names(d.formula()));
            } else {
                String of = name.substring(0, dot);
                out.add(of);
                Derived d = capture.quantities().get(name.substring(dot + 1));
                for (String n : d == null ? List.<String>of() : names(d.formula())) {
                    open.add(capture.quantities().containsKey(n) ? of + "." + n : n);
                }
            }
        }
        return out;
    }

    /** What a formula names; nothing where it is none. */
    private static List<String> names(@Nullable String formula) {
        try {
            return formula == null
                    ? List.of()
                    : List.copyOf(Formula.parse(formula).names());
        } catch (IllegalArgumentException e) {
            return List.of();
        }
    }
}
