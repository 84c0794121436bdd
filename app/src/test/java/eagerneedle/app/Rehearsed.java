package eagerneedle.app;

import eagerneedle.app.command.NeedleCommand;
import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Sessions that were carried out on the simulated rigs of methods: made once, then copied. */
public final class Rehearsed {
    private static final Map<String, byte[]> MADE = new ConcurrentHashMap<>();

    private Rehearsed() {}

    /** A bench file of its own with the session of a method. */
    public static Path in(Path folder, String method) {
        try {
            return Files.write(folder.resolve(method + ".needle"), MADE.computeIfAbsent(method, Rehearsed::make));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] make(String method) {
        try {
            Path file = Files.createTempDirectory("needle-rehearsed").resolve(method + ".needle");
            int failed = NeedleCommand.run(
                    new String[] {"simulate", method, "--seed", "7", "-o", file.toString()},
                    new PrintStream(PrintStream.nullOutputStream()),
                    System.err);
            if (failed != 0) {
                throw new IllegalStateException("the rehearsal of " + method + " failed");
            }
            return Files.readAllBytes(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
