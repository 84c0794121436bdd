package eagerneedle.app.workbench;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.slf4j.LoggerFactory;

/** A file of a person's own folder that cannot be read: put aside, so that what is kept next is not written over it. */
public final class Unread {
    /** Reads a file whole. */
    public interface Reading {
        void read(Path file) throws IOException;
    }

    private Unread() {}

    /**
     * Reads a file, and puts it aside under another name where that fails.
     *
     * @param what it holds, as a sentence begins: {@code What was set on this machine}
     * @return what to say of it; empty where the file can be read, or there is none
     */
    public static Optional<String> rescued(Path file, String what, Reading reading) {
        try {
            if (Files.exists(file)) {
                reading.read(file);
            }
            return Optional.empty();
        } catch (IOException unreadable) {
            LoggerFactory.getLogger(Unread.class).warn("{} could not be read", file.getFileName(), unreadable);
            return Optional.of(what + " cannot be read, and all is as in the beginning. " + aside(file));
        }
    }

    private static String aside(Path file) {
        String name = FileName.of(file);
        String stem = name.substring(0, name.lastIndexOf('.'));
        String end = name.substring(name.lastIndexOf('.'));
        Path aside = file.resolveSibling(stem + "-unread" + end);
        for (int i = 2; Files.exists(aside); i++) {
            aside = file.resolveSibling(stem + "-unread-" + i + end);
        }
        try {
            Files.move(file, aside);
            return "The old file is kept as " + FileName.of(aside) + ": mend it and call it " + name
                    + " again, or begin anew.";
        } catch (IOException stays) {
            LoggerFactory.getLogger(Unread.class).warn("{} could not be put aside", name, stays);
            return "Mend " + file + " before you go on: it is written over otherwise.";
        }
    }
}
