package eagerneedle.core.edit;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Pattern;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.comments.CommentType;
import org.yaml.snakeyaml.events.CommentEvent;
import org.yaml.snakeyaml.events.Event;
import org.yaml.snakeyaml.parser.ParserImpl;
import org.yaml.snakeyaml.reader.StreamReader;

/**
 * A sheet as a student may have it: without its rig and what is hidden there, its mistakes, its comparisons and what
 * they compare with, what is expected to be read, and its remarks, which may say any of it.
 */
public final class StudentSheet {
    private static final List<String> KEPT_BACK = List.of("/rig", "/mistakes", "/comparisons", "/pool/rig");
    private static final Pattern EXPECTED = Pattern.compile("(/captures/[^/]+/levels(?:/[^/]+)?/expected)/.*");
    private static final Pattern PLANNED = Pattern.compile("/(?:captures/[^/]+/quantities|results)/[^/]+/planned");

    private StudentSheet() {}

    /**
     * The text without what is not for students; it can be read as the sheet of a session. What is expected to be read
     * stays where nothing could be planned without it: it is the method's, not that of anybody's data.
     */
    public static String of(String text) {
        SheetText sheet = SheetText.of(text);
        for (String pointer : KEPT_BACK) {
            sheet = sheet.has(pointer) ? sheet.without(pointer) : sheet;
        }
        String expecting = withoutIdle(withoutRemarks(sheet.text()), text);
        String plain = withoutExpected(expecting);
        try {
            SheetTrial.readOfSession(plain, "the sheet for students");
            return plain;
        } catch (SheetException e) {
            return expecting;
        }
    }

    private static String withoutExpected(String text) {
        SheetText sheet = SheetText.of(text);
        List<String> gone = sheet.leaves().stream()
                .map(SheetText.Leaf::pointer)
                .filter(p -> EXPECTED.matcher(p).matches() || PLANNED.matcher(p).matches())
                .map(p -> EXPECTED.matcher(p).replaceFirst("$1"))
                .distinct()
                .toList();
        for (String pointer : gone) {
            sheet = sheet.without(pointer);
        }
        return sheet.text();
    }

    /** Inputs that were only compared with are answers; what the sheet never used but its comparisons did is one. */
    private static String withoutIdle(String text, String whole) {
        SheetText sheet = SheetText.of(text);
        for (String input : SheetText.of(text).names("/inputs")) {
            if (uses(text, input) <= 1 && uses(whole, input) > uses(text, input)) {
                sheet = sheet.without("/inputs/" + input);
            }
        }
        return sheet.text();
    }

    private static long uses(String text, String name) {
        return Pattern.compile("(?<![\\p{L}\\p{N}_])" + Pattern.quote(name) + "(?![\\p{L}\\p{N}_])")
                .matcher(text)
                .results()
                .count();
    }

    private record Span(int from, int to) {}

    private static String withoutRemarks(String text) {
        LoaderOptions options = new LoaderOptions();
        options.setProcessComments(true);
        ParserImpl parser = new ParserImpl(new StreamReader(text), options);
        List<Span> remarks = new ArrayList<>();
        while (!parser.checkEvent(Event.ID.StreamEnd)) {
            if (parser.getEvent() instanceof CommentEvent c && c.getCommentType() != CommentType.BLANK_LINE) {
                remarks.add(new Span(
                        offset(text, c.getStartMark().getIndex()),
                        offset(text, c.getEndMark().getIndex())));
            }
        }
        remarks.sort(Comparator.comparingInt(Span::from).reversed());
        StringBuilder out = new StringBuilder(text);
        remarks.forEach(r -> out.delete(r.from(), r.to()));
        return out.toString();
    }

    /** Marks count code points. */
    private static int offset(String text, int codePoints) {
        return text.offsetByCodePoints(0, codePoints);
    }
}
