package eagerneedle.picture;

/**
 * How letters look.
 *
 * @param face text, figures (tabular) or italic
 * @param size in pixels
 * @param bold semi-bold
 */
public record Lettering(Face face, double size, boolean bold) {
    /** The families that ship. */
    public enum Face {
        TEXT,
        FIGURES,
        ITALIC
    }

    public static Lettering text(double size) {
        return new Lettering(Face.TEXT, size, false);
    }

    public static Lettering heading(double size) {
        return new Lettering(Face.TEXT, size, true);
    }

    public static Lettering figures(double size) {
        return new Lettering(Face.FIGURES, size, false);
    }

    public static Lettering italic(double size) {
        return new Lettering(Face.ITALIC, size, false);
    }
}
