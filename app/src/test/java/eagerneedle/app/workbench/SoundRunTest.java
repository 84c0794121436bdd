package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.bench.BenchFile;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** A method that listens: from the line of sound to a result, every sample where it was. */
@Timeout(60)
class SoundRunTest {
    private static final Instant DAY = Instant.parse("2026-11-28T09:00:00Z");
    private static final int RATE = 44_100;
    private static final double TONE = 440;

    private static final String SHEET = """
            sheet: 2
            id: fork
            title: A tuning fork
            subject: Sound
            devices: {ear: {label: Sound input, driver: sound}}
            channels:
              tone: {label: tone, unit: V, device: ear, rate: 44100, chain: [{kind: converter, label: line in, from: V, bits: 16, range: [-1, 1], coding: signed}]}
            captures:
              listen:
                label: Listen
                channels: [tone]
                longest: 20
                levels: {run: {label: run}}
                quantities: {T: {label: period, unit: ms, planned: 2.27(1) ms, formula: "period(tone)"}}
            results: {f: {label: frequency, unit: Hz, formula: "1 / mean(listen.T)"}}
            """;

    @TempDir
    private Path folder;

    private Path recorded(int samples) throws IOException {
        byte[] bytes = new byte[2 * samples];
        for (int i = 0; i < samples; i++) {
            short v = heard(i);
            bytes[2 * i] = (byte) v;
            bytes[2 * i + 1] = (byte) (v >> 8);
        }
        Path wav = folder.resolve("fork.wav");
        AudioFormat format = new AudioFormat(RATE, 16, 1, true, false);
        AudioSystem.write(
                new AudioInputStream(new ByteArrayInputStream(bytes), format, samples),
                AudioFileFormat.Type.WAVE,
                wav.toFile());
        return wav;
    }

    private static short heard(int i) {
        return (short) Math.round(20_000 * Math.sin(2 * Math.PI * TONE * i / RATE));
    }

    @Test
    void everySampleOfASoundIsKept() throws Exception {
        SheetReader.Located sheet = SheetTrial.read(SHEET, "fork.yaml");
        Path wav = recorded(RATE);
        try (LiveRig rig = LiveRig.to(
                        sheet.sheet(), Map.of("ear", new Way.At(wav.toString())), Map.of("ear", (double) RATE));
                BenchFile file = BenchFile.create(folder.resolve("fork.needle"), Session.start(SHEET, "Fork", DAY))) {
            assertThat(rig.label()).isEqualTo("sound input");
            Run run = rig.run(1, "listen", "run", DAY);
            rig.record(run, file);
            long end = System.nanoTime() + 20_000_000_000L;
            while (rig.count("tone") < RATE) {
                assertThat(System.nanoTime()).isLessThan(end);
                Thread.sleep(10);
            }
            assertThat(rig.finish()).isEqualTo(RATE);
            assertThat(rig.lost()).isZero();
            file.save(new RunCommand.KeepRun(run).apply(file.session()), DAY, "Kept.");
            RawSamples kept = file.samples(1, "tone");
            for (int i = 0; i < RATE; i++) {
                assertThat(kept.values()[i]).isEqualTo(heard(i));
                assertThat(kept.time()[i]).isCloseTo(i / (double) RATE, within(1e-9));
            }
            assertThat(new Reducer(sheet, file)
                            .reduce(file.session())
                            .quantity("f")
                            .orElseThrow()
                            .value())
                    .isCloseTo(TONE, within(0.01));
        }
    }

    @Test
    void aSoundThatDoesNotFitIsRefusedInOneSentence() throws Exception {
        Path wav = recorded(100);
        Way there = new Way.At(wav.toString());
        SheetReader.Located slower = SheetTrial.read(SHEET.replace("44100", "22050"), "fork.yaml");
        assertThatThrownBy(() -> LiveRig.to(slower.sheet(), Map.of("ear", there), Map.of("ear", 22_050.0)))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("1 channel at 44100 samples a second; wanted are 1 at 22050");
        assertThatThrownBy(() ->
                        LiveRig.to(slower.sheet(), Map.of("ear", new Way.At("none.wav")), Map.of("ear", (double) RATE)))
                .hasMessage("There is no sound none.wav.");
        java.nio.file.Files.writeString(wav, "no sound at all");
        assertThatThrownBy(() -> LiveRig.to(slower.sheet(), Map.of("ear", there), Map.of("ear", (double) RATE)))
                .hasMessageContaining("is no sound that can be read");
    }
}
