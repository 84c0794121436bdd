package eagerneedle.app.stockroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.stockroom.StockroomModel.Line;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The stockroom without a window: found, changed, taken back. */
class StockroomModelTest {
    @TempDir
    Path folder;

    private final Stockroom stock = Stockroom.demonstration();
    private final StockroomModel model = new StockroomModel(stock, PlainDesk.CLOCK);

    @AfterEach
    void close() {
        stock.close();
    }

    private List<String> found(String words, String kind) {
        return model.found(words, kind).stream()
                .filter(l -> l instanceof Line.Item)
                .map(l -> ((Line.Item) l).id())
                .toList();
    }

    @Test
    void instrumentsAreFoundByWordsAndKind() {
        assertThat(found("micrometer 25", StockroomModel.EVERYTHING))
                .contains("TH-MM-02")
                .doesNotContain("TH-CP-01");
        assertThat(found("TH-CP-01", "sensor")).isEmpty();
        assertThat(model.count("TH-CP-01", StockroomModel.EVERYTHING))
                .isEqualTo("1 of " + stock.all().size());
        assertThat(model.found("", StockroomModel.EVERYTHING).get(0)).isInstanceOf(Line.Group.class);
        assertThat(model.found("TH-CP-04", StockroomModel.EVERYTHING).get(1))
                .isInstanceOfSatisfying(Line.Item.class, i -> {
                    assertThat(i.due()).isTrue();
                    assertThat(i.about()).isEqualTo("▲ due");
                });
    }

    @Test
    void anInstrumentSaysInWhichSessionsItWasUsedAndLeavesThemAlone() throws IOException {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "baggage-chute")) {
            Path inHand = desk.bench().file().path();
            Path broken = Files.writeString(folder.resolve("broken.needle"), "SQLite format 3\0 and then nothing");
            byte[] before = Files.readAllBytes(inHand);
            String serial = InstrumentsInUse.serials(
                            desk.bench().session(), desk.bench().sheet(), model.serials())
                    .iterator()
                    .next();
            model.choose(serial);
            assertThat(model.card().orElseThrow().uses()).isEmpty();
            model.usedIn(
                    InstrumentsInUse.among(List.of(folder.resolve("gone.needle"), broken, inHand), model.serials()));
            assertThat(model.card().orElseThrow().uses())
                    .extracting(u -> InstrumentWords.use(stock.all().get(0), u))
                    .singleElement()
                    .asString()
                    .contains(inHand.getFileName().toString())
                    .endsWith(desk.bench().session().keptRuns().size() + " runs");
            assertThat(Files.readAllBytes(inHand)).isEqualTo(before);
            model.choose("TH-CP-04");
            assertThat(model.card().orElseThrow().uses()).as("not used there").isEmpty();
        }
    }

    @Test
    void aSpecificationIsChangedOrRefusedAndTakenBack() {
        assertThat(model.card()).isEmpty();
        model.choose("TH-XX-99");
        assertThat(model.card()).as("what is not there cannot be chosen").isEmpty();
        assertThatThrownBy(() -> model.copy()).hasMessage("Choose an instrument first.");
        model.choose("TH-MM-02");
        model.copy();
        StockroomModel.Card copied = model.card().orElseThrow();
        assertThat(copied.instrument().id()).isEqualTo("TH-MM-03");
        Map<String, String> fields = new HashMap<>(copied.fields());
        fields.put("accuracy", "rather good");
        assertThatThrownBy(() -> model.save("hand instrument", fields, ""))
                .hasMessageContaining("The accuracy of TH-MM-03 cannot be read at 'rather good'");
        fields.put("accuracy", "0.002 mm");
        fields.put("warm", "twenty");
        assertThatThrownBy(() -> model.save("hand instrument", fields, "")).hasMessage("'twenty' is not a number.");
        fields.put("warm", "");
        assertThatThrownBy(() -> model.save("hand instrument", fields, "{half"))
                .hasMessageContaining("not JSON that can be read");
        fields.put("id", "TH-CP-01");
        assertThatThrownBy(() -> model.save("hand instrument", fields, ""))
                .hasMessageContaining("There is an instrument TH-CP-01 already");
        assertThat(stock.find("TH-MM-03").orElseThrow())
                .as("nothing was changed")
                .isEqualTo(copied.instrument());
        fields.put("id", "TH-MM-30");
        assertThat(model.save("hand instrument", fields, "")).isEqualTo("Kept micrometer 25 to 50 mm TH-MM-30.");
        assertThat(stock.find("TH-MM-03")).isEmpty();
        assertThat(model.canTakeBack()).isTrue();
        model.takeBack();
        assertThat(stock.find("TH-MM-30")).isEmpty();
        assertThat(model.card().orElseThrow().instrument()).isEqualTo(copied.instrument());
        assertThat(model.canTakeBack()).isFalse();
    }

    @Test
    void theHistoryGrowsByWhatIsEntered() {
        model.choose("TH-MM-02");
        int before = model.card().orElseThrow().history().size();
        assertThatThrownBy(() -> model.enter(" ", "", "")).hasMessage("Say what happened to it.");
        assertThatThrownBy(() -> model.enter("calibrated", "next year", "passed"))
                .hasMessageContaining("'next year' is not a date");
        model.enter("calibrated against blocks", "2027-11-23", "passed");
        assertThat(model.card().orElseThrow().history())
                .hasSize(before + 1)
                .last()
                .satisfies(p -> assertThat(p.what()).isEqualTo("calibrated against blocks, passed, due 23 Nov 2027"));
        model.retire();
        assertThat(model.card().orElseThrow().instrument().retired()).isTrue();
        model.takeBack();
        assertThat(model.card().orElseThrow().instrument().retired()).isFalse();
    }

    @Test
    void aFileIsBroughtInAndTakenBack() throws IOException {
        Path file = folder.resolve("stockroom.json");
        Files.write(file, model.json());
        int all = stock.all().size();
        model.add();
        assertThat(stock.all()).hasSize(all + 1);
        assertThat(model.bringIn(file)).isNotBlank();
        Files.writeString(file, "not JSON");
        assertThatThrownBy(() -> model.bringIn(file)).isInstanceOf(RuntimeException.class);
        assertThatThrownBy(() -> model.bringIn(folder.resolve("none.json"))).hasMessageContaining("cannot be read");
        model.takeBack();
        assertThat(stock.all()).as("as before the file that was read").hasSize(all + 1);
    }

    /** Reported broken it is offered nowhere at once, and the sessions since it was last good are marked. */
    @Test
    void whatIsBrokenIsOutOfEveryPlanAndItsSessionsAreMarked() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "baggage-chute")) {
            model.usedIn(InstrumentsInUse.among(List.of(desk.bench().file().path()), model.serials()));
            model.choose("TH-CP-01");
            assertThat(InstrumentWords.use(
                            model.card().orElseThrow().instrument(),
                            model.card().orElseThrow().uses().get(0)))
                    .doesNotContain("last good");
            assertThatThrownBy(() -> model.enter("jaw bent", "2027-11-23", Instrument.BROKEN))
                    .hasMessageContaining("leave the date out");
            model.enter("jaw bent", "", Instrument.BROKEN);
            StockroomModel.Card card = model.card().orElseThrow();
            assertThat(card.objection().orElseThrow())
                    .contains("reported broken")
                    .contains("jaw bent");
            assertThat(InstrumentWords.use(card.instrument(), card.uses().get(0)))
                    .startsWith("▲ since it was last good: ");
            assertThat(stock.find("TH-CP-01").orElseThrow().isOut()).isTrue();
            model.enter("new jaw", "", Instrument.REPAIRED);
            assertThat(model.card().orElseThrow().objection().orElseThrow()).contains("until it is calibrated");
            model.enter("gauge blocks TH-GB-01", "2027-11-23", "passed");
            assertThat(model.card().orElseThrow().objection()).isEmpty();
        }
    }
}
