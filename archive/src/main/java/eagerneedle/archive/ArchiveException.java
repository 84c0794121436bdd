package eagerneedle.archive;

import org.jspecify.annotations.Nullable;

/** Something about an archive that a person is told in one sentence. */
public final class ArchiveException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public ArchiveException(String sentence) {
        super(sentence);
    }

    public ArchiveException(String sentence, @Nullable Throwable cause) {
        super(sentence, cause);
    }
}
