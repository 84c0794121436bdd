package eagerneedle.store.delimited;

import java.util.AbstractList;
import java.util.Arrays;
import java.util.RandomAccess;

/**
 * The lines of a text, ended by LF, CR or both. Only their places are kept; a line becomes a string when somebody wants
 * it as one, which in a long file is hardly ever.
 */
final class Lines extends AbstractList<String> implements RandomAccess {
    private final String text;
    private int[] starts = new int[1024];
    private int[] ends = new int[1024];
    private int size;

    Lines(String text) {
        this.text = text;
        if (text.indexOf('\r') < 0) {
            atLineFeeds();
        } else {
            atAnyEnd();
        }
    }

    private void atLineFeeds() {
        int from = 0;
        for (int end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n', from)) {
            add(from, end);
            from = end + 1;
        }
        if (from < text.length()) {
            add(from, text.length());
        }
    }

    private void atAnyEnd() {
        int from = 0;
        int n = text.length();
        for (int i = 0; i < n; i++) {
            char c = text.charAt(i);
            if (c == '\n' || c == '\r') {
                add(from, i);
                i += c == '\r' && i + 1 < n && text.charAt(i + 1) == '\n' ? 1 : 0;
                from = i + 1;
            }
        }
        if (from < n) {
            add(from, n);
        }
    }

    private void add(int start, int end) {
        if (size == starts.length) {
            starts = Arrays.copyOf(starts, 2 * size);
            ends = Arrays.copyOf(ends, 2 * size);
        }
        starts[size] = start;
        ends[size++] = end;
    }

    @Override
    public String get(int line) {
        java.util.Objects.checkIndex(line, size);
        return text.substring(starts[line], ends[line]);
    }

    @Override
    public int size() {
        return size;
    }

    /** How many characters a line has. */
    int length(int line) {
        return ends[line] - starts[line];
    }

    /** Copies a line to the beginning of an array that has room for it. */
    void copy(int line, char[] to) {
        text.getChars(starts[line], ends[line], to, 0);
    }
}
