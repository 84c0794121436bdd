package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReference;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/**
 * The pages from which sheets are learned: the reference is that of the schema, and the example on the page is good.
 */
class SheetPagesTest {
    private static String page(String name) throws IOException {
        return Files.readString(Path.of("..", "docs", name));
    }

    @Test
    void theReferenceIsMadeFromTheSchema() throws IOException {
        assertThat(page("sheet-reference.md"))
                .as("make it anew with ./needle functions --entries")
                .isEqualTo(SheetReference.markdown());
    }

    @Test
    void theSheetOnThePageIsGood() throws IOException {
        Matcher yaml = Pattern.compile("```yaml\n(.*?)```", Pattern.DOTALL).matcher(page("method-sheet.md"));
        assertThat(yaml.find()).isTrue();
        assertThat(SheetTrial.look(yaml.group(1), "page.yaml").problems())
                .extracting(SheetException::getMessage)
                .isEmpty();
        assertThat(yaml.group(1).lines().count()).isLessThan(120);
    }
}
