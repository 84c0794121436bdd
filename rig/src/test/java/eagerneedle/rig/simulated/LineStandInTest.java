package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** The stand-in speaks the protocol of docs/formats/line-protocol.md to anyone with a socket. */
@Timeout(20)
class LineStandInTest {
    private LineStandIn standIn;
    private Socket socket;
    private BufferedReader in;
    private OutputStream out;

    @BeforeEach
    void connect() throws IOException {
        standIn = new LineStandIn(Rigs.shipped("baggage-chute", 1, Set.of()), "TH-UR-07", "Ultrasonic ranger", 5);
        socket = new Socket(InetAddress.getLoopbackAddress(), standIn.port());
        in = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
        out = socket.getOutputStream();
    }

    @AfterEach
    void close() throws IOException {
        socket.close();
        standIn.close();
    }

    private void say(String line) throws IOException {
        out.write((line + "\n").getBytes(StandardCharsets.UTF_8));
        out.flush();
    }

    @Test
    void itDescribesItself() throws IOException {
        say("describe");
        assertThat(in.readLine()).isEqualTo("= TH-UR-07;Ultrasonic ranger;position;simulated");
    }

    @Test
    void itRemarksWhatItDoesNotUnderstand() throws IOException {
        say("dance");
        assertThat(in.readLine()).isEqualTo("# not understood: dance");
    }

    @Test
    void samplesCarryTheirTimeInMicroseconds() throws IOException {
        say("rig reference=0.6_m");
        say("rate 100");
        say("start");
        for (int i = 0; i < 20; i++) {
            String line = in.readLine();
            assertThat(line).matches(":\\d+,\\d+");
            String[] fields = line.substring(1).split(",");
            assertThat(Long.parseLong(fields[0])).isEqualTo(10_000L * i);
            assertThat(Long.parseLong(fields[1]) * 0.004 / 5.831).isBetween(0.55, 0.65);
        }
    }

    @Test
    void stopStopsAndResumeGoesOnWithTheClock() throws Exception {
        say("rate 100");
        say("start");
        for (int i = 0; i < 10; i++) {
            in.readLine();
        }
        say("stop");
        say("describe");
        String line = in.readLine();
        long last = 0;
        while (line.startsWith(":")) {
            last = Long.parseLong(line.substring(1, line.indexOf(',')));
            line = in.readLine();
        }
        assertThat(line).startsWith("= TH-UR-07");
        say("resume");
        String next = in.readLine();
        assertThat(Long.parseLong(next.substring(1, next.indexOf(','))))
                .isGreaterThan(last)
                .isLessThan(last + 200_000);
    }

    @Test
    void aPulledLeadCanBePluggedInAgain() throws IOException {
        say("describe");
        in.readLine();
        standIn.disconnect();
        try (Socket again = new Socket(InetAddress.getLoopbackAddress(), standIn.port())) {
            again.getOutputStream().write("describe\n".getBytes(StandardCharsets.UTF_8));
            assertThat(new BufferedReader(new InputStreamReader(again.getInputStream(), StandardCharsets.UTF_8))
                            .readLine())
                    .startsWith("= TH-UR-07");
        }
    }
}
