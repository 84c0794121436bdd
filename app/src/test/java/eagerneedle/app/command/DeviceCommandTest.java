package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.command.Needle.Said;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.rig.simulated.ScpiStandIn;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** An instrument is heard, and what it says of itself becomes the lines of a sheet that is good. */
class DeviceCommandTest {
    @TempDir
    private Path folder;

    private static SheetReader.Located shipped(String id) {
        return SheetReader.read(SheetReader.shippedText(id), id);
    }

    private static void isGood(String lines) {
        String text = "sheet: 2\nid: found\ntitle: Found\nsubject: Found\n" + lines
                + "results: {one: {label: one, formula: \"1\"}}\n";
        assertThat(SheetTrial.look(text, "found.yaml").problems()).isEmpty();
    }

    @Test
    void aLineInstrumentIsHeard() throws Exception {
        SheetReader.Located sheet = shipped("drying-cabinet");
        try (LineStandIn in = new LineStandIn(Rigs.of(sheet.sheet(), 1, Set.of()), "TH-LG-07", "Logger", 10)) {
            Said said = needle("device", "127.0.0.1:" + in.port(), "--seconds", "0.4", "--rate", "50");
            assertThat(said.err()).isEmpty();
            assertThat(said.out())
                    .contains("# Logger TH-LG-07 answers at 127.0.0.1:" + in.port() + ", simulated.")
                    .contains("samples in 0.4 s")
                    .contains(", mean ")
                    .contains("th_lg_07: {label: \"Logger TH-LG-07\", driver: line");
            isGood(said.out());
        }
    }

    @Test
    void aScpiInstrumentIsAskedWhatIsSaid() throws Exception {
        try (ScpiStandIn in = new ScpiStandIn(1)) {
            Said said = needle("device", "127.0.0.1:" + in.port(), "--driver", "scpi");
            assertThat(said.err()).isEmpty();
            assertThat(said.out()).contains("say --query name=QUERY").contains("driver: scpi");
        }
    }

    @Test
    void aFileThatGrowsIsHeard() throws Exception {
        Path file = Files.writeString(folder.resolve("grows.csv"), "t (s),T (degC)\n0,20.5\n");
        Said said = needle("device", file, "--driver", "file", "--seconds", "0.3");
        assertThat(said.out()).contains("It sent nothing in 0.3 s.").contains("unit: \"degC\"");
        isGood(said.out());
    }

    @Test
    void whatIsNotThereIsOneSentence() {
        for (Said said : new Said[] {
            needle("device", "127.0.0.1:1"),
            needle("device", "nonsense"),
            needle("device", "/dev/ttyNONE9"),
            needle("device", "no such input at all", "--driver", "sound"),
            needle("device", "x", "--driver", "telepathy"),
            needle("device", "127.0.0.1:1", "--seconds", "-1"),
            needle("device", folder.resolve("none.csv"), "--driver", "file")
        }) {
            assertThat(said.status()).isEqualTo(2);
            assertThat(said.out()).isEmpty();
            assertThat(said.err().strip()).isNotEmpty().doesNotContain("\n").doesNotContain("Exception");
        }
    }
}
