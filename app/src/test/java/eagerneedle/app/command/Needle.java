package eagerneedle.app.command;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** The command line as a person at a terminal meets it: words in; a status, answers and complaints out. */
public final class Needle {
    /** What a command left behind. */
    public record Said(int status, String out, String err) {
        public JsonNode json() throws IOException {
            return new ObjectMapper().readTree(out);
        }
    }

    private Needle() {}

    public static Said needle(Object... arguments) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        int status = NeedleCommand.run(
                Arrays.stream(arguments).map(Object::toString).toArray(String[]::new),
                new PrintStream(out, true, StandardCharsets.UTF_8),
                new PrintStream(err, true, StandardCharsets.UTF_8));
        return new Said(status, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
    }
}
