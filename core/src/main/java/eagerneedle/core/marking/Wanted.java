package eagerneedle.core.marking;

import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Which quantities a class is asked for. */
public final class Wanted {
    private static final int MOST = 6;

    private Wanted() {}

    /**
     * The results of a sheet that are compared with something, and then the others that are shown, six at most; in the
     * order in which the sheet finds them.
     */
    public static List<String> of(Sheet sheet) {
        Set<String> chosen = new LinkedHashSet<>();
        sheet.comparisons().forEach(c -> {
            if (sheet.results().containsKey(c.result())) {
                chosen.add(c.result());
            }
        });
        sheet.results().forEach((n, d) -> {
            if (d.shown()) {
                chosen.add(n);
            }
        });
        List<String> most = new ArrayList<>(chosen).subList(0, Math.min(MOST, chosen.size()));
        return sheet.results().keySet().stream().filter(most::contains).toList();
    }
}
