package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Benches of a folder are held together by command, one of them with two gauges exchanged. */
class BenchesCommandTest {
    private static final String METHOD = "signpost-arm";

    @TempDir
    private Path folder;

    @BeforeEach
    void simulate() throws IOException {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText(METHOD), METHOD);
        for (int i = 1; i <= 6; i++) {
            Demonstration.simulate(
                    sheet, i, i == 4 ? Set.of("b-for-c") : Set.of(), folder.resolve("bench " + i + ".needle"));
        }
    }

    @Test
    void theOddOneIsNamedWithWhatItDiffersByAndWithoutItTheyAgree() throws IOException {
        Path picture = folder.resolve("p.svg");
        Needle.Said said = needle("benches", folder, "--result", "P", "--picture", picture);
        assertThat(said.status()).isZero();
        assertThat(said.out())
                .contains("bench 4 stands apart: ")
                .contains("It differs by shear strain: ")
                .contains("Without bench 4 they give ");
        assertThat(Files.readString(picture)).contains("bench 6").contains("<svg");
        JsonNode json = new ObjectMapper()
                .readTree(needle("benches", folder, "--result", "P", "--json").out())
                .at("/results/0");
        assertThat(json.at("/apart/0/name").asText()).isEqualTo("bench 4");
        JsonNode cause = json.at("/apart/0/differs_by/0");
        assertThat(cause.at("/with_theirs/value").asDouble())
                .isCloseTo(
                        json.at("/others/mean/value").asDouble(),
                        within(0.2
                                * Math.abs(json.at("/benches/3/value").asDouble()
                                        - json.at("/others/mean/value").asDouble())));
        JsonNode without = new ObjectMapper()
                .readTree(needle("benches", folder, "--result", "P", "--leave-out", "bench 4", "--json")
                        .out())
                .at("/results/0");
        assertThat(without.at("/apart").size()).isZero();
        assertThat(without.at("/mean/value").asDouble())
                .isEqualTo(json.at("/others/mean/value").asDouble());
    }

    @Test
    void whatIsNotThereIsToldWithTheNearest() {
        assertThat(needle("benches", folder, "--leave-out", "bench 44").err())
                .contains("There is no bench bench 44")
                .contains("bench 4");
        assertThat(needle("benches", folder, "--result", "Q").err()).contains("The benches have no result Q");
        assertThat(needle("benches", folder.resolve("none")).err()).contains("is no folder that can be read");
    }
}
