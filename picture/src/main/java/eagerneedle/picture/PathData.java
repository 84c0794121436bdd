package eagerneedle.picture;

import java.awt.geom.IllegalPathStateException;
import java.awt.geom.Path2D;
import java.awt.geom.Point2D;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.NoSuchElementException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The data of a path as SVG writes it (W3C SVG 1.1, 8.3): letters and numbers, with or without spaces between them, as
 * drawing programs keep them.
 */
final class PathData {
    private static final Pattern NEXT =
            Pattern.compile("[\\s,]*([A-Za-z]|[-+]?(?:\\d+\\.?\\d*|\\.\\d+)(?:[eE][-+]?\\d+)?)?");
    private final String text;
    private final Deque<String> parts = new ArrayDeque<>();

    private PathData(String text) {
        this.text = text;
        Matcher m = NEXT.matcher(text);
        while (m.lookingAt() && m.group(1) != null) {
            parts.add(m.group(1));
            m.region(m.end(), text.length());
        }
        String rest = text.substring(m.regionStart()).strip();
        if (!rest.isEmpty()) {
            throw new IllegalArgumentException(
                    "A path of a drawing has letters and numbers; '" + rest + "' is neither.");
        }
    }

    /**
     * Reads M, L, H, V, Q, C and Z.
     *
     * @throws IllegalArgumentException with one sentence when it is something else
     */
    static Path2D read(String text) {
        return new PathData(text).path();
    }

    private Path2D path() {
        Path2D.Double p = new Path2D.Double();
        char command = ' ';
        try {
            while (!parts.isEmpty()) {
                if (Character.isLetter(parts.element().charAt(0))) {
                    command = parts.remove().charAt(0);
                }
                switch (command) {
                    case 'M' -> {
                        p.moveTo(number(), number());
                        command = 'L';
                    }
                    case 'L' -> p.lineTo(number(), number());
                    case 'H' -> p.lineTo(number(), reached(p).getY());
                    case 'V' -> p.lineTo(reached(p).getX(), number());
                    case 'Q' -> p.quadTo(number(), number(), number(), number());
                    case 'C' -> p.curveTo(number(), number(), number(), number(), number(), number());
                    case 'Z' -> {
                        p.closePath();
                        command = ' ';
                    }
                    default ->
                        throw new IllegalArgumentException(
                                "A path of a drawing knows M, L, H, V, Q, C and Z; '" + command + "' is none of them.");
                }
            }
        } catch (NoSuchElementException | IllegalPathStateException e) {
            throw new IllegalArgumentException("A path of a drawing ends in the middle of a command: " + text + ".", e);
        }
        return p;
    }

    private static Point2D reached(Path2D path) {
        Point2D at = path.getCurrentPoint();
        if (at == null) {
            throw new IllegalPathStateException("no point yet");
        }
        return at;
    }

    /** @throws NoSuchElementException when what comes next is no number */
    private double number() {
        String next = parts.remove();
        if (Character.isLetter(next.charAt(0))) {
            throw new NoSuchElementException(next);
        }
        return Double.parseDouble(next);
    }
}
