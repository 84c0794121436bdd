package eagerneedle.core.sheet;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Library;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Names of a sheet that hide a constant of nature or are those of a function. Nothing is wrong with them; whoever
 * writes {@code e} for a restitution should know that Euler's number is out of reach.
 */
public final class HiddenNames {
    private final SheetReader.Located located;
    private final List<SheetException> notes = new ArrayList<>();
    private final Set<String> told = new LinkedHashSet<>();

    private HiddenNames(SheetReader.Located located) {
        this.located = located;
    }

    /** One note for each such name, at its first place. */
    public static List<SheetException> of(SheetReader.Located located) {
        HiddenNames h = new HiddenNames(located);
        Sheet s = located.sheet();
        h.all("/inputs", s.inputs().keySet());
        h.all("/planned", s.planned().keySet());
        h.all("/channels", s.channels().keySet());
        h.all("/results", s.results().keySet());
        s.captures().forEach((c, capture) -> {
            String p = "/captures/" + c;
            h.all(p + "/quantities", capture.quantities().keySet());
            h.all(p + "/by_eye", capture.byEye().keySet());
            capture.levels()
                    .forEach((l, level) ->
                            h.all(p + "/levels/" + l + "/set", level.set().keySet()));
        });
        return SheetReader.Looked.sorted(h.notes);
    }

    private void all(String pointer, Set<String> names) {
        for (String name : names) {
            String head = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
            String of = Constants.has(head)
                    ? "hides the constant " + head + ", which formulas of this sheet can then not name."
                    : Library.shipped().functions().containsKey(head)
                            ? "is also the name of a function; in formulas '" + head + "(...)' stays that."
                            : "";
            if (!of.isEmpty() && told.add(head)) {
                notes.add(located.problem(pointer + "/" + name, 1, "note: " + head + " " + of));
            }
        }
    }
}
