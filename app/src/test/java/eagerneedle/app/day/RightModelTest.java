package eagerneedle.app.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.Rehearsed;
import eagerneedle.app.widget.Sentence;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What was found for some words is written for these words and no others. */
class RightModelTest {
    private final RightModel model = new RightModel(Clock.fixed(Instant.parse("2026-11-27T10:00:00Z"), ZoneOffset.UTC));

    @TempDir
    private Path folder;

    private RightModel.Fields fields(String times, String why) {
        return new RightModel.Fields("TH-CM-01", times, "", "", why, "", folder.toString());
    }

    @Test
    void whatIsMissingIsSaidBeforeAnythingIsLookedAt() {
        assertThatThrownBy(() -> model.look(new RightModel.Fields("TH-CM-01", "1.004", "", "", "misread", "", " ")))
                .hasMessage("Say in which folder the sessions are.");
        assertThatThrownBy(() -> model.look(fields("1.004", ""))).hasMessageContaining("Say why TH-CM-01 is corrected");
        assertThatThrownBy(() -> model.look(fields("a lot", "misread")))
                .isInstanceOf(RuntimeException.class)
                .hasMessageContaining("a lot");
        assertThat(model.isLooking()).isFalse();
        assertThat(model.mayWrite()).isFalse();
        assertThat(model.state()).isEqualTo("Nothing is changed until it is written.");
    }

    @Test
    void whatWasFoundIsWrittenOnceAndForTheWordsItWasFoundFor() {
        Path session = Rehearsed.in(folder, "letter-scale");
        RightModel.Look look = model.look(fields("1.004", "misread"));
        List<String> told = new ArrayList<>();
        FolderRight seen = look.through((n, of) -> told.add(n + " of " + of));
        assertThat(told).containsExactly("0 of 1");
        assertThat(model.mayWrite()).isFalse();
        assertThat(model.found(look, seen, null)).isTrue();
        assertThat(model.mayWrite()).isTrue();
        assertThat(model.state()).isEqualTo("1 session would be put right, 0 sessions had nothing to do with it.");
        assertThat(model.lines().get(0)).isEqualTo(Sentence.section("letter-scale.needle"));
        assertThat(model.lines().stream().map(Sentence::words)).anyMatch(w -> w.contains(" becomes "));

        // Another factor is written before the button is pressed: what is listed is not of it.
        model.changed();
        assertThat(model.mayWrite()).isFalse();
        assertThat(model.state()).startsWith("Something else is written now: look again.");
        model.write();
        try (BenchFile file = BenchFile.open(session)) {
            assertThat(file.session().corrections()).isEmpty();
        }

        RightModel.Look again = model.look(fields("1.005", "misread"));
        model.found(again, again.through((n, of) -> {}), null);
        model.write();
        model.write();
        assertThat(model.state()).startsWith("Put right: 1 session.");
        try (BenchFile file = BenchFile.open(session)) {
            assertThat(file.session().corrections())
                    .singleElement()
                    .satisfies(c -> assertThat(c.times()).isEqualTo("1.005"));
        }
    }

    @Test
    void aLookForWordsThatChangedMeanwhileStopsAndIsNotTaken() {
        Rehearsed.in(folder, "letter-scale");
        RightModel.Look look = model.look(fields("1.004", "misread"));
        FolderRight seen = look.through((n, of) -> {});
        model.changed();
        assertThat(model.isLooking()).isFalse();
        assertThat(model.found(look, seen, null)).isFalse();
        assertThat(model.mayWrite()).isFalse();
        assertThatThrownBy(() -> look.through((n, of) -> {})).isInstanceOf(CancellationException.class);
    }

    @Test
    void whatStandsInTheWayIsListedFirstAndNothingIsWritten() throws Exception {
        Path good = Rehearsed.in(folder, "letter-scale");
        Files.writeString(folder.resolve("a torn one.needle"), "no bench file");
        RightModel.Look look = model.look(fields("1.004", "misread"));
        model.found(look, look.through((n, of) -> {}), null);
        assertThat(model.state()).endsWith("; 1 session stands in the way.");
        assertThat(model.lines().get(0).kind()).isEqualTo(Sentence.Kind.ATTENTION);
        assertThat(model.mayWrite()).isFalse();
        model.write();
        try (BenchFile file = BenchFile.open(good)) {
            assertThat(file.session().corrections()).isEmpty();
        }
    }
}
