package eagerneedle.store.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RecentTest {
    private static final Instant DAY = Instant.parse("2026-11-24T09:00:00Z");

    @TempDir
    private Path folder;

    @Test
    void theNewestComesFirstOnceAndTheOldestAreForgotten() {
        Path kept = folder.resolve("in").resolve("recent.json");
        Recent recent = Recent.at(kept);
        for (int i = 0; i < 15; i++) {
            recent.remember(folder.resolve(i + ".needle"), "Session " + i, "bench " + i, DAY.plusSeconds(i));
        }
        recent.remember(folder.resolve("9.needle"), "Session 9 again", "", DAY.plusSeconds(99));
        assertThat(recent.entries()).hasSize(12);
        assertThat(recent.entries().get(0).title()).isEqualTo("Session 9 again");
        assertThat(recent.entries()).extracting(Recent.Entry::path).doesNotHaveDuplicates();
        Recent again = Recent.at(kept);
        assertThat(again.entries()).isEqualTo(recent.entries());
        again.forget(again.entries().get(0));
        assertThat(Recent.at(kept).entries())
                .hasSize(11)
                .noneMatch(e -> e.title().startsWith("Session 9"));
    }

    @Test
    void aBrokenListLosesNothingElse() throws IOException {
        Path kept = folder.resolve("recent.json");
        for (String text : new String[] {"", "{", "[1, 2]", "[{\"path\": null}]", "\u0000\u0001"}) {
            Files.writeString(kept, text);
            Recent recent = Recent.at(kept);
            assertThat(recent.entries()).as(text).isEmpty();
            recent.remember(folder.resolve("a.needle"), "A", "", DAY);
            assertThat(Recent.at(kept).entries()).hasSize(1);
        }
        Recent nowhere = Recent.at(folder.resolve("recent.json").resolve("under-a-file.json"));
        nowhere.remember(folder.resolve("a.needle"), "A", "", DAY);
        assertThat(nowhere.entries()).as("remembered while the program runs").hasSize(1);
        assertThat(Recent.forNow().entries()).isEmpty();
    }
}
