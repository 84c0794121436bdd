package eagerneedle.store.export;

/**
 * Words on their way into a spreadsheet. A cell that begins with = + - @ is taken for a formula there, whoever wrote
 * it; with an apostrophe before it, it stays the words it is. Numbers are written as numbers and need none.
 */
public final class SpreadsheetCell {
    private SpreadsheetCell() {}

    public static String words(String text) {
        if (text == null || text.isEmpty()) {
            return "";
        }
        return "=+-@\t\r".indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
    }
}
