package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * What the rules of a sheet make of rows. A row that a rule leaves out stays in the file and counts nowhere; taking it
 * in undoes that, and the rule then only says so.
 */
final class RowRules {
    private RowRules() {}

    /** The runs, those left out that a rule leaves out. */
    static List<Run> applied(Sheet sheet, List<Run> runs, Map<Key, Outcome> outcomes) {
        return runs.stream().map(r -> applied(sheet, r, outcomes)).toList();
    }

    private static Run applied(Sheet sheet, Run run, Map<Key, Outcome> outcomes) {
        Capture capture = sheet.captures().get(run.capture());
        if (capture == null || !run.takesPart() || run.entries().insisted()) {
            return run;
        }
        for (Map.Entry<String, Capture.RowRule> e : capture.rules().entrySet()) {
            Outcome o = outcomes.get(Key.rule(run, e.getKey()));
            if (e.getValue().leavesOut() && isBroken(o)) {
                return run.leftOut(e.getValue().says());
            }
        }
        return run;
    }

    private static boolean isBroken(@Nullable Outcome o) {
        return o != null && o.value() instanceof Value.Truth t && !t.holds();
    }

    /** What some rules of a run's capture are about. */
    static List<Key> keys(Sheet sheet, Run run, Predicate<Capture.RowRule> which) {
        List<Key> out = new ArrayList<>();
        Optional.ofNullable(sheet.captures().get(run.capture()))
                .ifPresent(c -> c.rules().forEach((name, rule) -> {
                    if (which.test(rule)) {
                        out.add(Key.rule(run, name));
                    }
                }));
        return out;
    }

    /** The rules that do not hold of a run, in the order of the sheet. */
    static List<Capture.RowRule> broken(Sheet sheet, Run run, Map<Key, Outcome> outcomes) {
        List<Capture.RowRule> out = new ArrayList<>();
        Optional.ofNullable(sheet.captures().get(run.capture()))
                .ifPresent(c -> c.rules().forEach((name, rule) -> {
                    if (isBroken(outcomes.get(Key.rule(run, name)))) {
                        out.add(rule);
                    }
                }));
        return out;
    }
}
