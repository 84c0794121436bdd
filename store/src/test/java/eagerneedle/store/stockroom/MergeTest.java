package eagerneedle.store.stockroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.stockroom.Merging;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Two machines wrote down what happened to the same instruments; together they know all of it. */
class MergeTest {
    private static final Instant DAY = Instant.parse("2026-11-30T09:00:00Z");

    @TempDir
    private Path folder;

    private static Instrument.Event event(int days, String what, String outcome) {
        return new Instrument.Event(DAY.plusSeconds(86400L * days), what, "technician", null, null, outcome);
    }

    @Test
    void historiesAreOneInWhateverOrderTheyAreTaken() throws IOException {
        Path first = folder.resolve("one.db");
        Path second = folder.resolve("two.db");
        Instrument caliper;
        try (Stockroom one = Stockroom.at(first);
                Stockroom two = Stockroom.at(second)) {
            one.bringIn(Stockroom.demonstrationJson());
            two.bringIn(Stockroom.demonstrationJson());
            caliper = one.find("TH-CP-01").orElseThrow();
            one.put(caliper.withEvent(event(3, "found in the sink", null)));
            two.put(caliper.withEvent(event(1, "dropped", Instrument.BROKEN)));
            two.put(caliper.copyAs("TH-CP-55"));
        }
        try (Stockroom one = Stockroom.at(first)) {
            Merging m = one.merge(second);
            assertThat(m.changed()).extracting(Instrument::id).containsExactlyInAnyOrder("TH-CP-01", "TH-CP-55");
            assertThat(m.says()).isEmpty();
            Instrument both = one.find("TH-CP-01").orElseThrow();
            assertThat(both.history()).extracting(Instrument.Event::what).endsWith("dropped", "found in the sink");
            assertThat(both.isOut()).isTrue();
            // A second time nothing is new; the other way round it comes to the same.
            assertThat(one.merge(second).changed()).isEmpty();
            try (Stockroom two = Stockroom.at(second)) {
                two.merge(first);
                assertThat(two.json()).isEqualTo(one.json());
            }
            Path json = Files.writeString(folder.resolve("all.json"), one.json());
            assertThat(one.merge(json).changed()).isEmpty();
        }
    }

    @Test
    void ofTwoDescriptionsOursStaysAndTheDifferenceIsTold() throws IOException {
        Path first = folder.resolve("one.db");
        try (Stockroom one = Stockroom.at(first)) {
            one.bringIn(Stockroom.demonstrationJson());
            String theirs = one.json().replace("\"caliper\"", "\"slide gauge\"");
            Merging m = one.merge(Files.writeString(folder.resolve("theirs.json"), theirs));
            assertThat(m.changed()).isEmpty();
            assertThat(m.says()).anyMatch(s -> s.contains("described otherwise there (name); ours stays"));
            assertThat(one.find("TH-CP-01").orElseThrow().name()).isEqualTo("caliper");
            Path bad = Files.writeString(folder.resolve("bad.json"), "[{\"id\": \"X-1\"}]");
            assertThatThrownBy(() -> one.merge(bad)).hasMessageContaining("Nothing was merged");
            assertThatThrownBy(() -> one.merge(folder.resolve("none.db")))
                    .hasMessageContaining("There is no stockroom");
        }
    }

    @Test
    void whatStaffWritesOthersOnlyRead() {
        Path first = folder.resolve("one.db");
        try (Stockroom staff = Stockroom.at(first)) {
            staff.bringIn(Stockroom.demonstrationJson());
        }
        try (Stockroom reader = Stockroom.reading(first)) {
            Instrument caliper = reader.find("TH-CP-01").orElseThrow();
            assertThatThrownBy(() -> reader.put(caliper)).hasMessageContaining("staff changes it");
            assertThatThrownBy(() -> reader.remove("TH-CP-01")).hasMessageContaining("staff changes it");
            assertThatThrownBy(() -> reader.bringIn("[]")).hasMessageContaining("staff changes it");
            assertThatThrownBy(() -> reader.merge(first)).hasMessageContaining("staff changes it");
        }
    }
}
