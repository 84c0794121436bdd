package eagerneedle.app.find;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/**
 * Finds by words: every word that is typed must stand somewhere in the text, its neighbour or its kind. What begins
 * with the words comes first, then what has them at the beginning of a word, then the rest; within these in the order
 * given.
 */
public final class Search {
    private final List<Hit> all;

    public Search(List<Hit> all) {
        this.all = List.copyOf(all);
    }

    /** The best hits, best first; all of them in their order for empty words. */
    public List<Hit> of(String words, int most) {
        String[] wanted = plain(words).strip().split("\\s+");
        record Ranked(Hit hit, int rank) {}
        List<Ranked> found = new ArrayList<>();
        for (Hit h : all) {
            int rank = rank(h, wanted);
            if (rank >= 0) {
                found.add(new Ranked(h, rank));
            }
        }
        found.sort(Comparator.comparingInt(Ranked::rank));
        return found.stream().limit(most).map(Ranked::hit).toList();
    }

    /** 0 is best; negative when a word is missing. */
    private static int rank(Hit h, String[] wanted) {
        String text = plain(h.text());
        String everything = " " + text + " " + plain(h.more()) + " " + plain(h.kind());
        int rank = 0;
        for (String w : wanted) {
            int at = everything.indexOf(w);
            if (at < 0) {
                return -1;
            }
            boolean inText = text.contains(w);
            boolean wordStart = everything.contains(" " + w);
            rank += w.isEmpty() || text.startsWith(w) ? 0 : inText && wordStart ? 1 : inText ? 2 : wordStart ? 3 : 4;
        }
        return rank;
    }

    private static String plain(String s) {
        return Normalizer.normalize(s, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT);
    }
}
