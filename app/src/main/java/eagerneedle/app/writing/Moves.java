package eagerneedle.app.writing;

import eagerneedle.app.widget.Labels;
import java.util.List;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** What moves in the ledger when a sheet is taken over: shown first, taken over when it is asked for again. */
final class Moves extends VBox {
    private static final int FEW = 12;

    private final WritingModel model;
    private @Nullable String seen;

    Moves(WritingModel model) {
        super(3);
        this.model = model;
        setId("moved");
    }

    /** The text is another. */
    void forget() {
        seen = null;
        getChildren().clear();
    }

    /** True when what moves with this text was shown. */
    boolean wereSeen(String text) {
        return text.equals(seen);
    }

    /**
     * Shows what moves, and the second time takes the sheet over.
     *
     * @return true when it was taken over
     * @throws RuntimeException with one sentence where the session cannot have this sheet
     */
    boolean take(String text) {
        if (wereSeen(text)) {
            model.takeOver(text);
            forget();
            return true;
        }
        List<WritingModel.Moved> moves = model.moves(text);
        seen = text;
        getChildren()
                .setAll(Labels.section(
                        moves.isEmpty()
                                ? "Nothing in the ledger moves. Take it over?"
                                : "In the ledger of this session would move:"));
        moves.stream()
                .limit(FEW)
                .forEach(m -> getChildren().add(Labels.wrapped(m.label() + ": " + m.before() + " → " + m.after())));
        if (moves.size() > FEW) {
            getChildren().add(Labels.quiet("and " + (moves.size() - FEW) + " more"));
        }
        return false;
    }
}
