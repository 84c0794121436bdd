package eagerneedle.benchmark;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;

/** The same work by numpy, scipy and pandas, in a process of its own beside ours, where they are installed. */
final class Peers {
    private Peers() {}

    /** Milliseconds by the name of our benchmark; empty, with the reason printed, where there is nothing to run. */
    static Map<String, Double> run() throws IOException, InterruptedException {
        Map<String, Double> out = new LinkedHashMap<>();
        Process python;
        try {
            python =
                    new ProcessBuilder("python3", "-").redirectErrorStream(true).start();
        } catch (IOException e) {
            System.out.println("No python3 here: there is nothing to run beside ours.");
            return out;
        }
        try (InputStream script = Peers.class.getResourceAsStream("peers.py")) {
            script.transferTo(python.getOutputStream());
        }
        python.getOutputStream().close();
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(python.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                String[] parts = line.split(" ");
                if (parts.length == 2 && parts[1].matches("[0-9.]+")) {
                    out.put(parts[0], Double.parseDouble(parts[1]));
                } else {
                    System.out.println(line);
                }
            }
        }
        python.waitFor();
        return out;
    }
}
