package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Names with a dot that could mean two things: a column of a capture, and a member of a family or a part of a fit that
 * is called like the capture. One of them would be taken without a word, so that it is refused.
 */
final class TwoMeanings {
    private TwoMeanings() {}

    /** All of them, each where the second thing is named. */
    static List<SheetException> of(SheetReader.Located located, Reduction plan) {
        Sheet sheet = located.sheet();
        List<SheetException> found = new ArrayList<>();
        sheet.captures().forEach((name, capture) -> {
            Set<String> columns = columns(capture);
            boolean family = sheet.inputs().keySet().stream().anyMatch(i -> i.startsWith(name + "."));
            if (sheet.results().containsKey(name) && !family) {
                Value v = plan.outcome(name).value();
                Set<String> both = new LinkedHashSet<>(columns);
                if (v instanceof Value.Fitted f) {
                    both.retainAll(f.fit().names());
                } else if (v != null) {
                    both.clear();
                }
                both.stream()
                        .findFirst()
                        .ifPresent(c -> found.add(said(located, "/results/" + name, name, c, "a part of " + name)));
            }
            for (String c : columns) {
                String member = name + "." + c;
                if (sheet.inputs().containsKey(member) || sheet.results().containsKey(member)) {
                    String at = (sheet.inputs().containsKey(member) ? "/inputs/" : "/results/") + name;
                    found.add(said(located, at, name, c, "a member of the family " + name));
                    break;
                }
            }
        });
        return found;
    }

    private static SheetException said(
            SheetReader.Located located, String at, String capture, String column, String other) {
        return located.problem(
                at,
                1,
                capture + "." + column + " could be the column " + column + " of the capture " + capture + ", or "
                        + other + "; call one of the two otherwise.");
    }

    private static Set<String> columns(Capture capture) {
        Set<String> out = new LinkedHashSet<>(capture.quantities().keySet());
        out.addAll(capture.byEye().keySet());
        capture.levels().values().forEach(l -> out.addAll(l.set().keySet()));
        return out;
    }
}
