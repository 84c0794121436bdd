package eagerneedle.store.foreign;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.store.delimited.Table;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ForeignFileTest {
    @TempDir
    private Path folder;

    private Path file(String name, String text) throws IOException {
        Path p = folder.resolve(name);
        Files.writeString(p, text);
        return p;
    }

    @ParameterizedTest
    @CsvSource({"8, 1", "16, 1", "16, 2", "24, 2", "32, 1"})
    void aSoundFileGivesTheCountsOfItsConverter(int bits, int channels) throws IOException {
        Random r = new Random(bits);
        int n = 500;
        int bytes = bits / 8;
        long[][] truth = new long[channels][n];
        byte[] data = new byte[n * channels * bytes];
        boolean signed = bits > 8;
        for (int i = 0; i < n; i++) {
            for (int c = 0; c < channels; c++) {
                long v = (long) ((r.nextDouble() - 0.5) * Math.pow(2, bits));
                truth[c][i] = v;
                long stored = signed ? v : v + 128;
                for (int b = 0; b < bytes; b++) {
                    data[(i * channels + c) * bytes + b] = (byte) (stored >> (8 * b));
                }
            }
        }
        AudioFormat f = new AudioFormat(
                signed ? AudioFormat.Encoding.PCM_SIGNED : AudioFormat.Encoding.PCM_UNSIGNED,
                8000,
                bits,
                channels,
                bytes * channels,
                8000,
                false);
        Path p = folder.resolve("tap.wav");
        AudioSystem.write(
                new AudioInputStream(new ByteArrayInputStream(data), f, n), AudioFileFormat.Type.WAVE, p.toFile());
        Table t = ForeignFile.table(p);
        assertThat(t.columns()).hasDimensions(channels + 1, n);
        for (int i = 0; i < n; i++) {
            assertThat(t.columns()[0][i]).isEqualTo(i / 8000.0);
            for (int c = 0; c < channels; c++) {
                assertThat(t.columns()[c + 1][i]).isEqualTo(truth[c][i]);
            }
        }
        assertThat(t.remarks().get(0)).contains(bits + " bit at 8000");
        assertThat(ForeignFile.isText(p)).isFalse();
    }

    @Test
    void threeWaysToWriteJson() throws IOException {
        Table channels = ForeignFile.table(
                file(
                        "a.json",
                        "{\"start\":\"2026-11-23T09:00:00Z\",\"channels\":[{\"name\":\"x\",\"unit\":\"mm\",\"time\":[0,1,2],\"values\":[1.5,null,2.5]}]}"));
        assertThat(channels.names()).containsExactly("time", "x");
        assertThat(channels.columns()[1]).containsExactly(1.5, Double.NaN, 2.5);
        Table columns =
                ForeignFile.table(file("b.json", "{\"columns\":{\"t\":[0,1],\"y\":[3,4]},\"units\":{\"y\":\"V\"}}"));
        assertThat(columns.units()).containsExactly("", "V");
        Table rows = ForeignFile.table(file("c.json", "[{\"t\":0,\"y\":3},{\"t\":1,\"y\":4}]"));
        assertThat(rows.columns()[1]).containsExactly(3, 4);
    }

    @Test
    void whatCannotBeReadIsOneSentence() throws IOException {
        for (String[] bad : new String[][] {
            {"cut.json", "{\"channels\":[{\"name\":", "not whole JSON"},
            {"odd.json", "{\"cats\":3}", "no channels"},
            {"word.json", "[{\"t\":\"soon\"}]", "'soon' in the column t is not a number"},
            {"uneven.json", "{\"columns\":{\"t\":[0,1],\"y\":[3]}}", "holds 1 numbers where 2"},
            {"empty.csv", "", "is empty"}
        }) {
            Path p = file(bad[0], bad[1]);
            assertThatThrownBy(() -> ForeignFile.table(p))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining(bad[2])
                    .message()
                    .endsWith(".")
                    .doesNotContain("\n");
        }
        assertThatThrownBy(() -> ForeignFile.table(folder.resolve("none.csv"))).hasMessageContaining("cannot be read");
        Path riff = folder.resolve("broken.wav");
        Files.write(riff, new byte[] {'R', 'I', 'F', 'F', 0, 0, 0, 0, 'W', 'A', 'V', 'E', 1, 2});
        assertThatThrownBy(() -> ForeignFile.table(riff))
                .hasMessageContaining("broken.wav")
                .message()
                .endsWith(".");
    }

    /** Foreign and broken files by the hundred: one sentence or a table, never anything else. */
    @Test
    void anythingAtAllGivesATableOrASentence() throws IOException {
        Random r = new Random(77);
        String[] seeds = {
            "t,x\n0,1\n1,2\n2,3\n",
            "{\"columns\":{\"t\":[0,1],\"y\":[3,4]}}",
            "time;T\n2026-11-23 09:00:00;1,5\n2026-11-23 09:00:01;1,6\n",
            "RIFF____WAVEfmt "
        };
        int tables = 0;
        for (int k = 0; k < 400; k++) {
            byte[] bytes = seeds[r.nextInt(seeds.length)].getBytes();
            for (int i = r.nextInt(4); i > 0; i--) {
                bytes[r.nextInt(bytes.length)] = (byte) r.nextInt(256);
            }
            Path p = folder.resolve("any");
            Files.write(p, r.nextInt(5) == 0 ? java.util.Arrays.copyOf(bytes, r.nextInt(bytes.length)) : bytes);
            try {
                Table t = ForeignFile.table(p);
                assertThat(t.columns().length).isEqualTo(t.names().size());
                tables++;
            } catch (IllegalArgumentException e) {
                assertThat(e.getMessage()).endsWith(".").doesNotContain("\n").doesNotContain("Exception");
            }
        }
        assertThat(tables).isBetween(50, 390);
    }
}
