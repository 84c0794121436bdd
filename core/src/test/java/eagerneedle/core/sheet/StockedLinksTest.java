package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.core.chain.Link;
import eagerneedle.core.stockroom.Instrument;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Chains that name instruments of the stockroom. */
class StockedLinksTest {
    private static final String SHEET = """
            sheet: 2
            id: stocked
            title: Stocked
            subject: Load
            links:
              adc: {kind: converter, label: 16 bit, from: V, range: [-5, 5], bits: 16, coding: signed}
            channels:
              a: {label: a, unit: mV, chain: [TH-SA-01, adc]}
              b: {label: b, unit: mV, chain: [TH-SA-01, adc]}
            results:
              two: {label: two, formula: 1 + 1}
            """;

    /** As the stockroom keeps it. */
    private static final String AMPLIFIER = """
            {"id": "TH-SA-01", "kind": "conditioner", "name": "strain amplifier", "measures": "V",
             "link": {"kind": "conditioner", "label": "strain amplifier", "from": "mV", "to": "V", "gain": "0.500(8)"}}
            """;

    private static Optional<Instrument> stock(String id) {
        try {
            return id.equals("TH-SA-01")
                    ? Optional.of(new ObjectMapper().readValue(AMPLIFIER, Instrument.class))
                    : Optional.empty();
        } catch (JsonProcessingException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void whatAnInstrumentIsStaysWithTheSheet() {
        String text = StockedLinks.written(SHEET, StockedLinksTest::stock);
        assertThat(text).startsWith(SHEET).contains("stocked:\n  TH-SA-01: {");
        Sheet sheet = SheetReader.read(text, "stocked.yaml").sheet();
        Link a = sheet.channels().get("a").chain().get(0);
        assertThat(a.gain()).isEqualTo("0.500(8)");
        assertThat(a.instrument()).isEqualTo("TH-SA-01");
        assertThat(a.shared()).as("one physical thing for both").isEqualTo("TH-SA-01");
        assertThat(sheet.channels().get("b").chain().get(0)).isEqualTo(a);
        // Once taken, it is what it was, whatever the stockroom says later.
        assertThat(StockedLinks.written(text, id -> Optional.empty())).isEqualTo(text);
        assertThat(StockedLinks.written(text, StockedLinksTest::stock)).isEqualTo(text);
    }

    @Test
    void whatNobodyHasIsToldAtItsPlace() {
        String other = SHEET.replaceFirst("TH-SA-01", "TH-SA-02");
        String text = StockedLinks.written(other, StockedLinksTest::stock);
        assertThat(SheetReader.look(text, "stocked.yaml").problems())
                .extracting(SheetException::getMessage)
                .singleElement()
                .asString()
                .contains("line 8", "there is no link TH-SA-02; did you mean TH-SA-01?");
        assertThat(StockedLinks.written("no: [yaml", StockedLinksTest::stock)).isEqualTo("no: [yaml");
        assertThat(StockedLinks.written("channels: 3", StockedLinksTest::stock)).isEqualTo("channels: 3");
    }
}
