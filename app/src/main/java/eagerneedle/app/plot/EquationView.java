package eagerneedle.app.plot;

import eagerneedle.app.widget.Theme;
import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import javafx.application.Platform;

/** An equation set as in print. */
public final class EquationView {
    private static final double SIZE = 16;

    private EquationView() {}

    /** @param equation a formula; may hold an equals sign */
    public static PictureView of(String equation) {
        PictureView view = new PictureView(equation, null);
        view.show((s, w, h) -> {
            FormulaPicture.Size size = FormulaPicture.measure(s, equation, SIZE);
            double needed = Math.ceil(size.ascent() + size.descent() + 8);
            if (needed > h) {
                // A fraction in a fraction is taller than a line.
                Platform.runLater(() -> {
                    view.setMinHeight(Theme.px(needed));
                    view.setPrefHeight(Theme.px(needed));
                });
            }
            FormulaPicture.paint(s, equation, 14, (h + size.ascent() - size.descent()) / 2, SIZE, Ink.INK);
        });
        view.setMinHeight(Theme.px(40));
        view.setPrefHeight(Theme.px(44));
        return view;
    }
}
