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

    private static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            row[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int above = row[j];
                row[j] = Math.min(
                        Math.min(row[j], row[j - 1]) + 1, diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1));
                diagonal = above;
            }
        }
        return row[b.length()];
    }
}
