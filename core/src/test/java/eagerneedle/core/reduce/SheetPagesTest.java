package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import com.networknt.schema.ValidationMessage;
import eagerneedle.core.sheet.EditorSchema;
import eagerneedle.core.sheet.HiddenNames;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.sheet.SheetReference;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.yaml.snakeyaml.Yaml;

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

    private static java.util.Set<ValidationMessage> refused(String sheet) throws IOException {
        JsonNode tree = new ObjectMapper().valueToTree(new Yaml().load(sheet.replaceAll("\\bon: ", "\"on\": ")));
        return JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                .getSchema(EditorSchema.json())
                .validate(tree);
    }

    @Test
    void theSchemaForEditorsTakesWhatTheCheckTakes() throws IOException {
        List<String> sheets = new ArrayList<>();
        SheetReader.shipped().forEach(id -> sheets.add(SheetReader.shippedText(id)));
        sheets.add(SheetReader.skeleton("a-method"));
        try (Stream<Path> examples = Files.list(Path.of("..", "docs", "examples"))) {
            for (Path p : examples.filter(x -> x.toString().endsWith(".yaml")).toList()) {
                sheets.add(Files.readString(p));
            }
        }
        for (String sheet : sheets) {
            assertThat(refused(sheet))
                    .as(sheet.lines().skip(1).findFirst().orElse(""))
                    .isEmpty();
        }
        assertThat(sheets).hasSizeGreaterThan(12);
        String wagons = Files.readString(Path.of("..", "docs", "examples", "buffer-wagons.yaml"));
        assertThat(refused(wagons.replace("comparisons:", "comparison:")))
                .extracting(ValidationMessage::getMessage)
                .anyMatch(m -> m.contains("comparison"));
        assertThat(refused(wagons.replace("y_unit: g*m/s", "yunit: g*m/s"))).isNotEmpty();
        assertThat(EditorSchema.json()).contains("one for each member of a set").doesNotContain("made from 'links'");
    }

    @Test
    void aNameThatHidesAConstantOrAFunctionIsNoted() {
        SheetReader.Located sheet = SheetReader.read("""
                sheet: 2
                id: hiding
                title: Hiding
                subject: Load
                inputs:
                  e: {label: restitution, value: "0.80(1)"}
                  mean: {label: a mean, value: "2.0(1) m"}
                  h: {label: height, value: "1.00(1) m"}
                results:
                  back: {label: back, unit: m, formula: e^2 * h + 0 * mean}
                """, "hiding.yaml");
        assertThat(HiddenNames.of(sheet))
                .extracting(SheetException::getMessage)
                .containsExactly(
                        "hiding.yaml, line 6, column 6: note: e hides the constant e, which formulas of this sheet can "
                                + "then not name.",
                        "hiding.yaml, line 7, column 9: note: mean is also the name of a function; in formulas "
                                + "'mean(...)' stays that.");
    }
}
