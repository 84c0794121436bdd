package eagerneedle.app.workbench;

import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * An error of the program itself, as a file to send: what broke and where, on what machine, and the newest of the log.
 * Data of the session is in it only when somebody says so.
 *
 * @param at when it happened
 * @param error what was thrown
 */
public record TroubleReport(Instant at, Throwable error) {
    private static final int MOST_OF_LOG = 256 * 1024;

    /** What broke in one sentence, without the names of classes. */
    public String sentence() {
        String why = error.getMessage() == null || error.getMessage().isBlank() ? "" : " (" + firstLine() + ")";
        return "Something went wrong in the program itself" + why + ".";
    }

    private String firstLine() {
        return String.valueOf(error.getMessage()).lines().findFirst().orElse("").replaceFirst("\\.$", "");
    }

    /**
     * Writes the file.
     *
     * @param session writes a copy of the bench file to put in; empty for none
     * @throws IllegalArgumentException with one sentence when it cannot be written
     */
    public void write(Path to, Optional<Consumer<Path>> session) {
        try {
            Beside.write(to, part -> {
                try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(part))) {
                    entry(zip, "error.txt", text());
                    entry(zip, "log.txt", ProgramLog.newest(MOST_OF_LOG));
                    if (session.isPresent()) {
                        Path copy = part.resolveSibling(FileName.of(part) + ".session");
                        try {
                            session.get().accept(copy);
                            zip.putNextEntry(new ZipEntry("session.needle"));
                            Files.copy(copy, zip);
                            zip.closeEntry();
                        } finally {
                            Files.deleteIfExists(copy);
                        }
                    }
                }
            });
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(to) + " cannot be written there; choose another folder.", e);
        }
    }

    private static void entry(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    private String text() {
        StringWriter stack = new StringWriter();
        error.printStackTrace(new PrintWriter(stack, true));
        return "Eager Needle " + Version.number() + "\n" + at + "\nJava " + Runtime.version() + ", "
                + System.getProperty("os.name") + " " + System.getProperty("os.arch") + "\n\n" + stack;
    }
}
