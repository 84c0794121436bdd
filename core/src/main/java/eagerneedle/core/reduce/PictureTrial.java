package eagerneedle.core.reduce;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Picture;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Whether a picture can be drawn: every entry is reckoned, and its unit is held against the axis. */
public final class PictureTrial {
    private final PictureSource source;
    private final Picture picture;
    private final Map<String, String> problems = new LinkedHashMap<>();
    private final List<Quantity> abscissae = new ArrayList<>();
    private @Nullable LabUnit xUnit;
    private @Nullable LabUnit yUnit;

    private PictureTrial(PictureSource source, Picture picture) {
        this.source = source;
        this.picture = picture;
        xUnit = unit(picture.xUnit());
        yUnit = unit(picture.yUnit());
    }

    /** What is wrong, by where it stands below the picture, such as {@code /layers/1/curve}. */
    public static Map<String, String> of(PictureSource source, Picture picture) {
        PictureTrial trial = new PictureTrial(source, picture);
        trial.all();
        return Collections.unmodifiableMap(trial.problems);
    }

    private void all() {
        for (int k = 0; k < picture.lines().size(); k++) {
            Picture.Line line = picture.lines().get(k);
            attempt(written(k), () -> line(line));
        }
        for (int k = 0; k < picture.layers().size(); k++) {
            Picture.Layer l = picture.layers().get(k);
            String at = "/layers/" + k;
            Picture.Round circle = l.circle();
            if (circle != null) {
                attempt(at + "/circle", () -> {
                    across(source.quantity(circle.x()), circle.x());
                    up(source.quantity(circle.y()), circle.y());
                    across(source.quantity(circle.radius()), circle.radius());
                });
            }
            Picture.Place mark = l.mark();
            if (mark != null) {
                attempt(at + "/mark", () -> {
                    if (mark.x() != null) {
                        across(source.quantity(mark.x()), mark.x());
                    }
                    if (mark.y() != null) {
                        up(source.quantity(mark.y()), mark.y());
                    }
                });
            }
            String curve = l.curve();
            if (curve != null) {
                attempt(at + "/curve", () -> curve(l, curve));
            }
        }
    }

    private String written(int line) {
        if (picture.layers().isEmpty()) {
            return picture.lines().get(0).label() == null ? "" : "/lines/" + line;
        }
        int seen = -1;
        for (int k = 0; k < picture.layers().size(); k++) {
            seen += picture.layers().get(k).points() == null ? 0 : 1;
            if (seen == line) {
                return "/layers/" + k;
            }
        }
        return "";
    }

    private void line(Picture.Line line) {
        if (source.traces(line.x(), line.y()).isPresent()) {
            return;
        }
        PictureSource.Pairs pairs = source.pairs(line.x(), line.y());
        if (!pairs.x().isEmpty()) {
            across(pairs.x().get(0), line.x());
            up(pairs.y().get(0), line.y());
            abscissae.addAll(pairs.x());
        }
    }

    /** A curve where it begins and where it ends; where the points do, if the sheet does not say. */
    private void curve(Picture.Layer l, String formula) {
        if (abscissae.isEmpty() && (l.from() == null || l.to() == null)) {
            return;
        }
        Quantity from = l.from() == null ? exactly(abscissae.get(0)) : source.quantity(l.from());
        Quantity to = l.to() == null ? exactly(abscissae.get(abscissae.size() - 1)) : source.quantity(l.to());
        across(from, "from");
        across(to, "to");
        List<Quantity> y = source.along(formula, List.of(from, to));
        up(y.get(0), formula);
    }

    private static @Nullable LabUnit unit(@Nullable String written) {
        return written == null ? null : LabUnit.parse(written);
    }

    private static Quantity exactly(Quantity q) {
        return Quantity.exact(q.value(), q.unit());
    }

    private void across(Quantity q, String formula) {
        xUnit = fitting(q, formula, xUnit);
    }

    private void up(Quantity q, String formula) {
        yUnit = fitting(q, formula, yUnit);
    }

    private static LabUnit fitting(Quantity q, String formula, @Nullable LabUnit axis) {
        if (axis != null && !q.unit().fits(axis)) {
            throw new IllegalArgumentException(
                    formula + " in " + q.unit().named() + " cannot be drawn in " + axis.named() + ".");
        }
        return axis == null ? q.unit() : axis;
    }

    private void attempt(String pointer, Runnable drawing) {
        try {
            drawing.run();
        } catch (IllegalArgumentException | ArithmeticException e) {
            problems.put(pointer, String.valueOf(e.getMessage()));
        }
    }
}
