package eagerneedle.core.edit;

/** The lines of a text, by the places of their characters. */
record TextLines(String text) {
    int lineStart(int i) {
        return text.lastIndexOf('\n', i - 1) + 1;
    }

    int lineIndent(int i) {
        int from = lineStart(i);
        while (from < text.length() && text.charAt(from) == ' ') {
            from++;
        }
        return from;
    }

    int column(int i) {
        return i - lineStart(i);
    }

    int lineEnd(int i) {
        int end = text.indexOf('\n', i);
        if (end < 0) {
            return text.length();
        }
        return end > 0 && text.charAt(end - 1) == '\r' ? end - 1 : end;
    }

    String newline() {
        return text.contains("\r\n") ? "\r\n" : "\n";
    }
}
