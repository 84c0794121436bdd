package eagerneedle.core.watch;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** One list of watches, complete in the documents; findings known by what they are about. */
class RuleTest {
    @Test
    void findingsThatAreAboutDifferentThingsAreDifferentFindings() {
        Set<String> keys = new HashSet<>();
        assertThat(keys.add(Rule.CHECK
                        .ofSession("friction is positive", "Not met: friction is positive.")
                        .key()))
                .isTrue();
        assertThat(keys.add(Rule.CHECK
                        .ofSession("tilt is small", "Not met: tilt is small.")
                        .key()))
                .as("another check")
                .isTrue();
        assertThat(keys.add(Rule.DEAD.of(3, "left", 0, 1, "Position is dead.").key()))
                .isTrue();
        assertThat(keys.add(Rule.DEAD.of(3, "right", 0, 1, "Position is dead.").key()))
                .as("another channel of the same label")
                .isTrue();
        assertThat(keys.add(Rule.DEAD.of(4, "left", 0, 1, "Position is dead.").key()))
                .as("another run")
                .isTrue();
        assertThat(keys.add(Rule.CALIBRATION_OVERDUE
                        .ofSession("", "The calibration of force was due.")
                        .onChannel("force")
                        .key()))
                .isTrue();
        assertThat(keys.add(Rule.CALIBRATION_OVERDUE
                        .ofSession("", "The calibration of position was due.")
                        .onChannel("position")
                        .key()))
                .as("another channel")
                .isTrue();
        assertThat(keys.add(Rule.CALIBRATION_FAILED
                        .ofSession("", "The calibration of position failed.")
                        .onChannel("position")
                        .key()))
                .as("another rule")
                .isTrue();
        assertThat(keys.add(Rule.DEAD
                        .of(3, "left", 5, 6, "Position has not moved.")
                        .in("Run 3")
                        .key()))
                .as("the same, in other words")
                .isFalse();
    }

    @Test
    void everyRuleHasANameACauseAndStandsInTheCatalogue() throws IOException {
        String page = Files.readString(Path.of("../docs/watches.md"));
        assertThat(Arrays.stream(Rule.values()).map(Rule::label)).doesNotHaveDuplicates();
        for (Rule r : Rule.values()) {
            assertThat(r.cause()).as(r.label()).endsWith(".");
            assertThat(page).as("docs/watches.md").contains(r.label());
        }
    }

    @Test
    void adviceNamesOnlyWhatExists() {
        for (Rule r : Rule.values()) {
            assertThat(r.remedy())
                    .as(r.label())
                    .doesNotContainIgnoringCase("void")
                    .doesNotContainIgnoringCase("discard")
                    .doesNotContain("turn the sign");
        }
    }
}
