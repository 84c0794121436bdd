package eagerneedle.core.sheet;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a method is called and what it asks, without reading the rest of its sheet: a page that offers two dozen methods
 * is there before two dozen sheets are read.
 */
public record SheetHead(String id, String title, String subject, String question) {
    private static final Pattern ENTRY = Pattern.compile("(?m)^([a-z_]+):");
    private static final Set<String> HEAD = Set.of("sheet", "id", "title", "subject", "place", "question");
    private static final YAMLMapper YAML = new YAMLMapper();

    /** The head of a method that ships. */
    public static SheetHead shipped(String id) {
        return of(SheetReader.shippedText(id), id);
    }

    /**
     * The head of a text.
     *
     * @throws SheetException where it cannot be read
     */
    static SheetHead of(String text, String where) {
        Matcher m = ENTRY.matcher(text);
        int end = text.length();
        while (m.find()) {
            if (!HEAD.contains(m.group(1))) {
                end = m.start();
                break;
            }
        }
        try {
            JsonNode head = YAML.readTree(text.substring(0, end));
            return new SheetHead(
                    head.path("id").asText(where),
                    head.path("title").asText(""),
                    head.path("subject").asText(""),
                    head.path("question").asText("").strip());
        } catch (JsonProcessingException e) {
            throw new SheetException(where, 1, 1, "the head of this sheet cannot be read.", e);
        }
    }
}
