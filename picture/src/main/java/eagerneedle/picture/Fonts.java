package eagerneedle.picture;

import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.font.FontRenderContext;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;

/** The fonts that ship, and how wide their letters are. */
public final class Fonts {
    private static final FontRenderContext CONTEXT = new FontRenderContext(null, true, true);
    private static final Map<Lettering.Face, Font> PLAIN = new EnumMap<>(Lettering.Face.class);
    private static final Map<Lettering.Face, Font> BOLD = new EnumMap<>(Lettering.Face.class);

    static {
        for (Lettering.Face face : Lettering.Face.values()) {
            PLAIN.put(face, load(resource(face, false)));
            BOLD.put(face, load(resource(face, true)));
        }
    }

    private Fonts() {}

    /** File name of a face within this module's fonts folder. */
    public static String resource(Lettering.Face face, boolean bold) {
        return switch (face) {
            case TEXT -> bold ? "Inter-SemiBold.otf" : "Inter-Regular.otf";
            case FIGURES -> bold ? "JetBrainsMono-Medium.ttf" : "JetBrainsMono-Regular.ttf";
            case ITALIC -> "Inter-Italic.otf";
        };
    }

    public static InputStream open(String resource) {
        return Fonts.class.getResourceAsStream("/eagerneedle/picture/fonts/" + resource);
    }

    static double width(String text, Lettering lettering) {
        Font font = Objects.requireNonNull((lettering.bold() ? BOLD : PLAIN).get(lettering.face()))
                .deriveFont((float) lettering.size());
        return font.getStringBounds(text, CONTEXT).getWidth();
    }

    private static Font load(String resource) {
        try (InputStream in = open(resource)) {
            return Font.createFont(Font.TRUETYPE_FONT, in);
        } catch (FontFormatException e) {
            throw new IllegalStateException("A font that ships cannot be read: " + resource, e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
