package eagerneedle.app.widget;

import eagerneedle.picture.Fonts;
import eagerneedle.picture.Lettering;
import java.util.HashMap;
import java.util.Map;
import javafx.scene.text.Font;

/** The fonts that ship, as JavaFX has them: each is read once for every size that is wanted. Interface thread only. */
public final class Typefaces {
    private static final Map<Lettering, Font> FONTS = new HashMap<>();

    private Typefaces() {}

    /** The shipped font for a lettering. */
    public static Font of(Lettering l) {
        return FONTS.computeIfAbsent(l, k -> Font.loadFont(Fonts.open(Fonts.resource(k.face(), k.bold())), k.size()));
    }
}
