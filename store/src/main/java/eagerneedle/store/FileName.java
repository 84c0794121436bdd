package eagerneedle.store;

import java.nio.file.Path;

/** What a file is called in sentences and lists. */
public final class FileName {
    private FileName() {}

    /** The last part of a path; all of it where it has no parts, as the root of a disk has none. */
    public static String of(Path path) {
        Path last = path.getFileName();
        return last == null ? path.toString() : last.toString();
    }

    /** The folder that a file stands in; the root of its disk for that itself. */
    public static Path folder(Path file) {
        Path parent = file.toAbsolutePath().getParent();
        return parent == null ? file.toAbsolutePath() : parent;
    }
}
