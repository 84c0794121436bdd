package eagerneedle.store.stockroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.chain.Link;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StockroomTest {
    @TempDir
    private Path folder;

    @Test
    void theDemonstrationIsABelievableInventory() {
        try (Stockroom s = Stockroom.demonstration()) {
            List<Instrument> all = s.all();
            assertThat(all).hasSizeGreaterThan(50);
            for (String kind : Instrument.KINDS) {
                assertThat(all).as(kind).anyMatch(i -> i.kind().equals(kind));
            }
            Instant day = Instant.parse("2026-11-23T09:00:00Z");
            assertThat(all.stream().filter(i -> i.objection(day).isPresent()).map(Instrument::id))
                    .as("some are overdue, as in life")
                    .contains("TH-CP-04", "TH-BA-05", "TH-GS-01")
                    .hasSizeLessThan(8);
            assertThat(s.find("TH-SP-11").orElseThrow().history()).hasSize(2);
        }
    }

    @Test
    void everyInstrumentOfAShippedSheetIsInTheInventory() {
        try (Stockroom s = Stockroom.demonstration()) {
            for (String id : SheetReader.shipped()) {
                SheetReader.read(SheetReader.shippedText(id), id).sheet().channels().values().stream()
                        .flatMap(c -> c.chain().stream())
                        .map(Link::instrument)
                        .filter(Objects::nonNull)
                        .forEach(serial -> assertThat(s.find(serial))
                                .as("%s of %s", serial, id)
                                .isPresent());
            }
        }
    }

    @Test
    void whatIsPutIsThereAfterOpeningAgain() {
        Path file = folder.resolve("deep/stockroom.db");
        Instrument caliper;
        try (Stockroom s = Stockroom.at(file);
                Stockroom demo = Stockroom.demonstration()) {
            assertThat(s.all()).isEmpty();
            caliper = demo.find("TH-CP-01").orElseThrow();
            s.put(caliper);
            s.put(caliper.copyAs(s.freeSerial("TH-CP-01")));
            s.put(caliper.retire(true));
        }
        try (Stockroom s = Stockroom.at(file)) {
            assertThat(s.all()).extracting(Instrument::id).containsExactly("TH-CP-02", "TH-CP-01");
            assertThat(s.find("TH-CP-01").orElseThrow().retired()).isTrue();
            assertThat(s.find("TH-CP-01").orElseThrow().retire(false)).isEqualTo(caliper);
            s.remove("TH-CP-02");
            assertThat(s.all()).hasSize(1);
        }
    }

    @Test
    void jsonGoesOutAndComesBackTheSame() {
        try (Stockroom demo = Stockroom.demonstration();
                Stockroom s = Stockroom.at(folder.resolve("s.db"))) {
            assertThat(s.bringIn(demo.json()))
                    .startsWith("Brought in " + demo.all().size() + " new");
            assertThat(s.all()).isEqualTo(demo.all());
            assertThat(s.bringIn(demo.json())).contains("replaced " + demo.all().size());
        }
    }

    @Test
    void whatIsNoStockroomBringsNothingIn() throws IOException {
        try (Stockroom s = Stockroom.at(folder.resolve("s.db"))) {
            assertThatThrownBy(() -> s.bringIn("hello"))
                    .isInstanceOf(StockroomException.class)
                    .hasMessageContaining("not a stockroom");
            assertThatThrownBy(() -> s.bringIn("{\"a\": 1}")).isInstanceOf(StockroomException.class);
            assertThatThrownBy(
                            () -> s.bringIn(
                                    "[{\"id\":\"A\",\"kind\":\"specimen\",\"name\":\"x\"},{\"id\":\"B\",\"kind\":\"gadget\",\"name\":\"y\"}]"))
                    .hasMessageContaining("kind of B")
                    .hasMessageContaining("Nothing was brought in");
            assertThatThrownBy(() -> s.bringIn("[null]")).isInstanceOf(StockroomException.class);
            assertThat(s.all()).isEmpty();
        }
        Path other = folder.resolve("other.db");
        Files.writeString(other, "this is something else, and long enough to be looked at as a database header at all");
        assertThatThrownBy(() -> Stockroom.at(other))
                .isInstanceOf(StockroomException.class)
                .hasMessageContaining("cannot be opened");
        assertThat(Files.readString(other)).startsWith("this is something else");
    }
}
