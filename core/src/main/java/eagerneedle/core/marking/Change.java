package eagerneedle.core.marking;

import eagerneedle.core.session.Command;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Something that is reckoned otherwise than the sheet does.
 *
 * @param says why it is wrong, or what was chosen
 * @param formulas what mistakes change, as a sheet's mistakes do; none for nothing
 * @param acts what is done to the session; none for nothing
 */
public record Change(
        Kind kind, String id, String label, String says, List<Sheet.Mistake> formulas, List<Command> acts) {
    /** Where it comes from; how likely that is stands in {@link Chance}. */
    public enum Kind {
        /** A way that the sheet offers: right. */
        WAY,
        /** A mistake of the sheet. */
        MISTAKE,
        /** Two of them. */
        PAIR,
        /** What goes wrong in any reckoning. */
        SLIP,
        /** A row that does not take part. */
        ROW,
        /** What another student's data give. */
        OTHERS
    }

    static Change mistake(Sheet.Mistake m) {
        return new Change(Kind.MISTAKE, m.id(), m.label(), said(m.says()), List.of(m), List.of());
    }

    static Change slip(String id, String label, String says, Map<String, String> change) {
        return new Change(Kind.SLIP, id, label, says, List.of(new Sheet.Mistake(id, label, change, says)), List.of());
    }

    /** Both mistakes at once; absent where they are about the same thing. */
    static List<Change> pairs(List<Sheet.Mistake> mistakes) {
        List<Change> out = new ArrayList<>();
        for (int i = 0; i < mistakes.size(); i++) {
            for (Sheet.Mistake b : mistakes.subList(i + 1, mistakes.size())) {
                Sheet.Mistake a = mistakes.get(i);
                if (a.change().keySet().stream().noneMatch(b.change()::containsKey)) {
                    out.add(new Change(
                            Kind.PAIR,
                            a.id() + "+" + b.id(),
                            a.label() + "; and " + b.label(),
                            (said(a.says()) + " " + said(b.says())).strip(),
                            List.of(a, b),
                            List.of()));
                }
            }
        }
        return out;
    }

    /** All that its formulas change, in one. */
    Sheet.Mistake together() {
        Map<String, String> all = new java.util.LinkedHashMap<>();
        formulas.forEach(m -> all.putAll(m.change()));
        return new Sheet.Mistake(id, label, all, says);
    }

    private static String said(@org.jspecify.annotations.Nullable String says) {
        return says == null ? "" : says;
    }
}
