package eagerneedle.core.edit;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Where in a sheet somebody writes, told from indentation and brackets alone, so that it is known while the text is no
 * YAML yet.
 *
 * @param path names of the entries around, from the outermost; {@code #} for an item of a list
 * @param inValue true behind the colon of the last of them
 * @param word the letters before the place that belong to the word being written
 */
public record Place(List<String> path, boolean inValue, String word) {
    private static final Pattern KEY =
            Pattern.compile("^(\\s*(?:- +)*)([\\p{L}_][\\p{L}\\p{N}_.-]*|\"[^\"]*\"):(\\s|$)");
    private static final Pattern DASHES = Pattern.compile("^\\s*(?:- +)+");

    private static final int FAR = 20_000;

    public Place {
        path = List.copyOf(path);
    }

    /** The place before a character of the text. */
    public static Place at(String text, int offset) {
        int from = begun(text, text.lastIndexOf('\n', offset - 1) + 1);
        String line = text.substring(from, offset).replace('\n', ' ');
        List<String> path = new ArrayList<>(around(text, from, indent(line)));
        Matcher m = KEY.matcher(line);
        String rest = line;
        boolean value = false;
        Matcher dashes = DASHES.matcher(line);
        if (dashes.find()) {
            path.add("#");
            rest = line.substring(dashes.end());
        }
        if (m.find()) {
            path.add(unquoted(m.group(2)));
            rest = line.substring(m.end());
            value = true;
        }
        return within(path, rest, value);
    }

    /** The beginning of the line in which the brackets were opened that are open at the beginning of a line. */
    private static int begun(String text, int lineStart) {
        int from = lineStart;
        while (from > 0) {
            String above = text.substring(from, lineStart);
            if (from < lineStart
                    && (KEY.matcher(above).find() || DASHES.matcher(above).find())) {
                return open(above) > 0 ? from : lineStart;
            }
            from = text.lastIndexOf('\n', from - 2) + 1;
            if (lineStart - from > FAR) {
                return lineStart;
            }
        }
        return from < lineStart && open(text.substring(from, lineStart)) > 0 ? from : lineStart;
    }

    /** How many brackets are open at the end. */
    private static int open(String s) {
        int depth = 0;
        char quote = 0;
        for (int i = 0; i < s.length(); i++) {
            char c = s.charAt(i);
            if (quote != 0) {
                if (c == '\\' && quote == '"') {
                    i++;
                } else if (c == quote) {
                    quote = 0;
                }
            } else if (c == '"') {
                quote = c;
            } else if (c == '#' && i > 0 && s.charAt(i - 1) == ' ') {
                i = s.indexOf('\n', i) < 0 ? s.length() : s.indexOf('\n', i);
            } else if (c == '{' || c == '[') {
                depth++;
            } else if (c == '}' || c == ']') {
                depth--;
            }
        }
        return depth;
    }

    /** The names of the blocks that a line of such an indentation stands in. */
    private static List<String> around(String text, int lineStart, int indent) {
        Deque<String> out = new ArrayDeque<>();
        int below = indent;
        int end = lineStart - 1;
        while (end > 0 && below > 0) {
            int from = text.lastIndexOf('\n', end - 1) + 1;
            String line = text.substring(from, end);
            Matcher m = KEY.matcher(line);
            if (m.find() && m.start(2) < below) {
                out.push(unquoted(m.group(2)));
                if (m.group(1).contains("-")) {
                    out.push("#");
                }
                below = indent(line);
            } else if (!line.isBlank()
                    && indent(line) < below
                    && DASHES.matcher(line).find()) {
                out.push("#");
                below = indent(line);
            }
            end = from - 1;
        }
        return List.copyOf(out);
    }

    /** Goes into the brackets of one line. */
    private static Place within(List<String> outer, String rest, boolean value) {
        Deque<List<String>> open = new ArrayDeque<>();
        List<String> path = new ArrayList<>(outer);
        boolean inValue = value;
        int word = 0;
        char quote = 0;
        for (int i = 0; i < rest.length(); i++) {
            char c = rest.charAt(i);
            if (quote != 0) {
                if (c == '\\' && quote == '"') {
                    i++;
                } else if (c == quote) {
                    quote = 0;
                }
            } else if ((c == '"' || c == '\'') && rest.substring(word, i).isBlank()) {
                quote = c;
            } else if (c == '#' && (i == 0 || rest.charAt(i - 1) == ' ')) {
                return new Place(path, true, "");
            } else if (c == '{' || c == '[') {
                open.push(new ArrayList<>(path));
                if (c == '[') {
                    path.add("#");
                }
                inValue = c == '[';
                word = i + 1;
            } else if ((c == '}' || c == ']') && !open.isEmpty()) {
                path = open.pop();
                inValue = true;
                word = i + 1;
            } else if (c == ',' && !open.isEmpty()) {
                boolean list = !path.isEmpty() && path.get(path.size() - 1).equals("#") && inValue;
                path = new ArrayList<>(open.peek());
                if (list) {
                    path.add("#");
                }
                inValue = list;
                word = i + 1;
            } else if (c == ':' && !inValue && (i + 1 == rest.length() || rest.charAt(i + 1) == ' ')) {
                path.add(unquoted(rest.substring(word, i).strip()));
                inValue = true;
                word = i + 1;
            }
        }
        int start = rest.length();
        while (start > 0 && isOfWord(rest.charAt(start - 1))) {
            start--;
        }
        return new Place(path, inValue, rest.substring(start));
    }

    static boolean isOfWord(char c) {
        return Character.isLetterOrDigit(c) || c == '_' || c == '.';
    }

    private static int indent(String line) {
        int i = 0;
        while (i < line.length() && line.charAt(i) == ' ') {
            i++;
        }
        return i;
    }

    private static String unquoted(String key) {
        return key.replaceAll("^[\"']|[\"']$", "");
    }
}
