package eagerneedle.app.workbench;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** The reducer of the sheet in use, made anew where the sheet has another text. */
final class SheetReducer {
    private final BenchFile file;
    private final boolean patient;
    private @Nullable Reducer reducer;

    /** @param patient works out runs however long they are */
    SheetReducer(BenchFile file, boolean patient) {
        this.file = file;
        this.patient = patient;
    }

    Reducer inUse() {
        return Objects.requireNonNull(reducer);
    }

    /**
     * The reducer of a session's sheet: the one in use, or a new one where the sheet has another text.
     *
     * @throws RuntimeException with one sentence where the sheet is not good
     */
    Reducer of(Session session) {
        return reducer != null && reducer.located().text().equals(session.sheetText()) ? reducer : fresh(session);
    }

    private Reducer fresh(Session session) {
        Reducer other = new Reducer(
                SheetTrial.readOfSession(session.sheetText(), "the sheet in " + FileName.of(file.path())), file);
        if (patient) {
            other.takeLong();
        }
        return other;
    }

    /** The same once more with nothing remembered. */
    void renew(Session session) {
        reducer = fresh(session);
    }

    /** One for the sheet in use that works long runs out too. */
    Reducer patient() {
        Reducer other = new Reducer(inUse().located(), file);
        other.takeLong();
        return other;
    }

    /** Uses another from now on; true where it is one. */
    boolean take(Reducer other) {
        boolean changes = other != reducer;
        reducer = other;
        return changes;
    }
}
