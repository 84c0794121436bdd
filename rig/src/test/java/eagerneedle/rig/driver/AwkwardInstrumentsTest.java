package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

/** Instruments that answer late, restart, lie about frames, or speak of units nobody knows, over a real connection. */
class AwkwardInstrumentsTest {
    private final Recorder heard = new Recorder();

    @Test
    void aLateAnswerIsNeverTakenForTheNextQuestion() throws IOException {
        AtomicInteger asked = new AtomicInteger();
        try (AwkwardInstrument meter = new AwkwardInstrument((m, line) -> {
            String q = line.replace(";*OPC?", "");
            if (q.startsWith("MEAS") && asked.incrementAndGet() % 7 == 0) {
                AwkwardInstrument.sleep(1150);
            }
            String answer = switch (q) {
                case "*IDN?" -> "Tarn Hollow College,Slow meter,TH-DM-99,1.0";
                case "MEAS:VOLT?" -> "12.5";
                case "MEAS:CURR?" -> "0.25";
                default -> null;
            };
            if (answer != null) {
                m.say(answer + (line.endsWith(";*OPC?") ? ";1" : ""));
            }
        })) {
            Map<String, String> queries = new LinkedHashMap<>(Map.of());
            queries.put("volts", "MEAS:VOLT?");
            queries.put("amps", "MEAS:CURR?");
            ScpiDriver driver = new ScpiDriver(
                    new TcpWire("127.0.0.1", meter.port()),
                    queries,
                    Map.of("volts", "V", "amps", "A"),
                    Map.of(),
                    Map.of());
            driver.open();
            driver.configure(50);
            driver.start(heard);
            heard.more(14);
            driver.close();
            assertThat(driver.late())
                    .as("late answers were met and passed over")
                    .isGreaterThan(2);
            assertThat(heard.rows).allSatisfy(r -> {
                assertThat(r[1]).isEqualTo(12.5);
                assertThat(r[2]).isEqualTo(0.25);
            });
        }
    }

    @Test
    void anUnknownUnitIsRefusedWhenItIsConnected() throws IOException {
        try (AwkwardInstrument logger = new AwkwardInstrument((m, line) -> {
            if (line.equals("describe")) {
                m.say("= X-1;Odd logger;way[furlong],depth[mm]");
            }
        })) {
            LineDriver driver = new LineDriver("127.0.0.1", logger.port());
            assertThatThrownBy(driver::open)
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("way in 'furlong'")
                    .hasMessageContaining("not a unit");
            driver.close();
        }
    }

    /** A logger of plain numbers at 50 Hz whose script can change its clock or put anything between its lines. */
    private AwkwardInstrument logger(String describes, java.util.function.BiConsumer<AwkwardInstrument, Integer> each)
            throws IOException {
        return new AwkwardInstrument((m, line) -> {
            if (line.equals("describe")) {
                m.say("= X-2;Plain logger;" + describes);
            } else if (line.equals("start")) {
                Thread t = new Thread(
                        () -> {
                            for (int i = 0; i < 120; i++) {
                                try {
                                    each.accept(m, i);
                                } catch (IllegalStateException | NullPointerException gone) {
                                    return;
                                }
                                AwkwardInstrument.sleep(20);
                            }
                        },
                        "awkward samples");
                t.setDaemon(true);
                t.start();
            }
        });
    }

    private LineDriver running(AwkwardInstrument logger) throws IOException {
        LineDriver driver = new LineDriver("127.0.0.1", logger.port());
        driver.open();
        driver.configure(50);
        driver.start(heard);
        return driver;
    }

    @Test
    void aClockThatRestartsIsFollowedAndSaid() throws IOException {
        try (AwkwardInstrument l = logger(
                "v[V]", (m, i) -> m.say(": " + (i < 60 ? 700_000_000L + i * 20_000L : (i - 60) * 20_000L) + "," + i))) {
            LineDriver driver = running(l);
            Recorder.await(() -> heard.rows.size() >= 118);
            driver.close();
            heard.timesRise();
            assertThat(heard.sentences).anyMatch(s -> s.contains("started anew"));
            assertThat(heard.rows.get(heard.rows.size() - 1)[0]).isBetween(2.2, 3.4);
        }
    }

    @Test
    void aLineThatLooksLikeAHeaderSwallowsNothing() throws IOException {
        try (AwkwardInstrument l = logger("n", (m, i) -> {
            if (i % 30 == 10) {
                m.say("% 123456 20000000 90 2");
            }
            m.say(": " + i * 20_000L + "," + i);
        })) {
            LineDriver driver = running(l);
            Recorder.await(() -> heard.rows.size() >= 119);
            driver.close();
            assertThat(heard.rows.stream().map(r -> (int) r[1]).toList())
                    .as("every sample, in order")
                    .isSorted()
                    .doesNotHaveDuplicates();
        }
    }

    /** Stopped and started anew, an instrument sends the frame that it has begun to its end. */
    @Test
    void theBytesOfAFrameThatNobodyWantedAreNoLines() throws Exception {
        byte[] words = "\n= X-9;Another logger;q[bar]\n! refused\n: 1,2\n".getBytes(StandardCharsets.ISO_8859_1);
        byte[] frame = new byte[200];
        for (int i = 0; i < frame.length; i++) {
            frame[i] = words[i % words.length];
        }
        CountDownLatch begun = new CountDownLatch(1);
        try (AwkwardInstrument l = new AwkwardInstrument((m, line) -> {
            if (line.equals("describe")) {
                m.say("= X-2;Plain logger;n");
            } else if (line.startsWith("rate")) {
                m.say("% 5000000 20000000 100 2");
                m.raw(Arrays.copyOf(frame, 120));
                begun.countDown();
            } else if (line.equals("start")) {
                m.raw(Arrays.copyOfRange(frame, 120, 200));
                m.say("");
                for (int i = 0; i < 50; i++) {
                    m.say(": " + i * 20_000L + "," + i);
                    AwkwardInstrument.sleep(5);
                }
            }
        })) {
            LineDriver driver = new LineDriver("127.0.0.1", l.port());
            Driver.Description said = driver.open();
            driver.configure(50);
            assertThat(begun.await(10, TimeUnit.SECONDS)).isTrue();
            AwkwardInstrument.sleep(200);
            driver.start(heard);
            Recorder.await(() -> heard.rows.size() >= 50);
            driver.close();
            assertThat(driver.unreadable()).isZero();
            assertThat(heard.rows.stream().map(r -> (int) r[1]).toList())
                    .startsWith(0, 1, 2)
                    .hasSize(50);
            assertThat(heard.states).as("it is not taken for another one").doesNotContain(Driver.State.REFUSED);
            assertThat(said.channels()).containsExactly("n");
        }
    }

    @Test
    void checksumsFindWhatStillLooksLikeANumber() throws IOException {
        try (AwkwardInstrument l = logger("n;checksum", (m, i) -> {
            String body = ": " + i * 20_000L + "," + i;
            String line = body + "*" + Checksum.of(body);
            m.say(i % 5 == 3 ? line.replaceFirst("," + i, "," + (i + 1000)) : line);
        })) {
            LineDriver driver = running(l);
            Recorder.await(() -> heard.rows.size() >= 90);
            driver.close();
            assertThat(heard.rows).allSatisfy(r -> assertThat(r[1]).isLessThan(1000));
            assertThat(driver.unreadable()).isGreaterThan(15);
        }
        assertThat(Checksum.of("123456789"))
                .as("the check value of CRC-16/CCITT")
                .isEqualTo("29B1");
    }
}
