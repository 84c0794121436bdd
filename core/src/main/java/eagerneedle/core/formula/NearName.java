package eagerneedle.core.formula;

import java.util.Collection;
import java.util.Locale;

/**
 * Finds the known name nearest to one that is not known, by edit distance; of two as near, the one with the same first
 * letter.
 */
public final class NearName {
    private NearName() {}

    /** The end of a sentence: {@code "; did you mean spacing?"}, or a full stop when no name is near. */
    public static String hint(String unknown, Collection<String> known) {
        String best = null;
        int bestDistance = 2 * Math.max(1, unknown.length() / 3) + 2;
        for (String name : known) {
            int d = 2 * distance(unknown.toLowerCase(Locale.ROOT), name.toLowerCase(Locale.ROOT))
                    + (unknown.regionMatches(true, 0, name, 0, 1) ? 0 : 1);
            if (d < bestDistance) {
                bestDistance = d;
                best = name;
            }
        }
        return best == null ? "." : "; did you mean " + best + "?";
    }

    /** Letters left out, put in, changed or exchanged with their neighbour. */
    private static int distance(String a, String b) {
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                if (i == 0 || j == 0) {
                    d[i][j] = i + j;
                    continue;
                }
                int same = a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1;
                d[i][j] = Math.min(Math.min(d[i - 1][j], d[i][j - 1]) + 1, d[i - 1][j - 1] + same);
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
                }
            }
        }
        return d[a.length()][b.length()];
    }
}
