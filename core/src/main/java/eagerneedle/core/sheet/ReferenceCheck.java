package eagerneedle.core.sheet;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.trace.WindowProposal;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Whether what a sheet refers to is there: in comparisons, checks, pictures, statements and mistakes. */
final class ReferenceCheck {
    private final SheetReader.Located located;
    private final Sheet sheet;
    private final SheetCheck check;

    ReferenceCheck(SheetReader.Located located, SheetCheck check) {
        this.located = located;
        this.sheet = located.sheet();
        this.check = check;
    }

    /** Keeps everything that is not there. */
    void all() {
        Set<String> known = new LinkedHashSet<>(sheet.inputs().keySet());
        known.addAll(sheet.results().keySet());
        for (int i = 0; i < sheet.comparisons().size(); i++) {
            check.names(
                    "/comparisons/" + i + "/result", sheet.comparisons().get(i).result(), known);
            check.names(
                    "/comparisons/" + i + "/reference",
                    sheet.comparisons().get(i).reference(),
                    known);
            matters(i, sheet.comparisons().get(i));
        }
        Set<String> everything = new LinkedHashSet<>(known);
        sheet.captures()
                .forEach((c, capture) -> SheetCheck.columnsOf(capture).forEach(q -> everything.add(c + "." + q)));
        sheet.channels().forEach((c, channel) -> everything.addAll(channel.givenByCalibration(c)));
        everything.addAll(sheet.pool().columns());
        for (int i = 0; i < sheet.checks().size(); i++) {
            check.names("/checks/" + i + "/formula", sheet.checks().get(i).formula(), everything);
        }
        for (int i = 0; i < sheet.principle().size(); i++) {
            String p = "/principle/" + i + "/formula";
            String[] sides = sheet.principle().get(i).formula().split("=", -1);
            int at = 1;
            for (String side : sides) {
                int start = at;
                try {
                    Formula.parse(side);
                } catch (FormulaException e) {
                    check.problem(p, start + e.column() - 1, e.getMessage());
                }
                at += side.length() + 1;
            }
        }
        pictures("/pictures", sheet.pictures(), everything, known);
        for (int i = 0; i < sheet.statements().size(); i++) {
            check.names(
                    "/statements/" + i + "/formula", sheet.statements().get(i).formula(), everything);
        }
        for (int i = 0; i < sheet.mistakes().size(); i++) {
            mistake("/mistakes/" + i + "/change", sheet.mistakes().get(i), everything);
        }
    }

    /** What matters is a quantity without uncertainty; a plain share or one of the result. */
    private void matters(int i, Sheet.Comparison c) {
        String matters = c.matters();
        if (matters != null) {
            check.attempt("/comparisons/" + i + "/matters", () -> {
                Reading r = Reading.parse(matters);
                if (r.u() > 0 || !(r.value() > 0)) {
                    throw new IllegalArgumentException("What matters is more than nothing and has no uncertainty.");
                }
            });
        }
    }

    /** What pictures draw, over these columns and fits. */
    void pictures(String pointer, List<Picture> pictures, Set<String> columns, Set<String> fits) {
        for (int i = 0; i < pictures.size(); i++) {
            Picture picture = pictures.get(i);
            String p = pointer + "/" + i;
            unit(p + "/x_unit", picture.xUnit());
            unit(p + "/y_unit", picture.yUnit());
            if (!picture.layers().isEmpty() && (picture.x() != null || written(p + "/lines"))) {
                check.problem(p + "/layers", 1, "give a picture either 'layers', or 'x', 'y' and 'lines'.");
            } else if (picture.layers().isEmpty()) {
                for (int k = 0; k < picture.lines().size(); k++) {
                    line(
                            p + (written(p + "/lines") ? "/lines/" + k : ""),
                            picture.lines().get(k),
                            columns,
                            fits);
                }
            }
            for (int k = 0; k < picture.layers().size(); k++) {
                layer(p + "/layers/" + k, picture.layers().get(k), columns, fits);
            }
        }
    }

    private boolean written(String pointer) {
        return located.places().containsKey(pointer);
    }

    private void line(String at, Picture.Line line, Set<String> columns, Set<String> fits) {
        if (line.x().isEmpty() || line.y().isEmpty()) {
            check.problem(at, 1, "a picture needs its 'x' and 'y', or 'lines' or 'layers' that have them.");
            return;
        }
        check.names(at + "/x", line.x(), columns);
        check.names(at + "/y", line.y(), columns);
        if (line.fit() != null) {
            check.names(at + "/fit", line.fit(), fits);
        }
    }

    private void layer(String at, Picture.Layer l, Set<String> columns, Set<String> fits) {
        if (l.kinds() != 1) {
            check.problem(at, 1, "a layer is one thing: points, a fit, a curve, a circle or a mark.");
            return;
        }
        Set<String> along = new LinkedHashSet<>(columns);
        along.add("x");
        Map<String, String> formulas = new LinkedHashMap<>();
        if (l.points() != null) {
            formulas.put("/points/x", l.points().x());
            formulas.put("/points/y", l.points().y());
            by(at + "/points/by", l.points().by());
        }
        if (l.circle() != null) {
            formulas.put("/circle/x", l.circle().x());
            formulas.put("/circle/y", l.circle().y());
            formulas.put("/circle/radius", l.circle().radius());
        }
        if (l.mark() != null) {
            formulas.put("/mark/x", l.mark().x());
            formulas.put("/mark/y", l.mark().y());
        }
        formulas.put("/from", l.from());
        formulas.put("/to", l.to());
        formulas.forEach((part, formula) -> {
            if (formula != null) {
                check.names(at + part, formula, columns);
            }
        });
        if (l.curve() != null) {
            check.names(at + "/curve", l.curve(), along);
        }
        if (l.fit() != null) {
            check.names(at + "/fit", l.fit(), fits);
        }
    }

    /** Rows are told apart by a set, by their level, or by the run of a capture. */
    private void by(String pointer, @Nullable String by) {
        Set<String> kinds = new LinkedHashSet<>(sheet.members().keySet());
        kinds.add("level");
        kinds.addAll(sheet.captures().keySet());
        kinds.add(Pool.NAME);
        if (by != null && !kinds.contains(by)) {
            check.problem(
                    pointer,
                    1,
                    "rows can be told apart by a set, or by level; there is no set " + by + NearName.hint(by, kinds));
        }
    }

    private void unit(String pointer, @Nullable String text) {
        if (text != null) {
            check.attempt(pointer, () -> LabUnit.parse(text));
        }
    }

    /** A mistake changes what there is, by formulas over what is known where they stand. */
    private void mistake(String at, Sheet.Mistake m, Set<String> everything) {
        m.change().forEach((key, text) -> {
            String p = at + "/" + key;
            int dot = key.indexOf('.');
            Capture capture = dot < 0 ? null : sheet.captures().get(key.substring(0, dot));
            String own = dot < 0 ? key : key.substring(dot + 1);
            if (key.startsWith("rig.")) {
                parses(p, text);
            } else if (sheet.inputs().containsKey(key) && sheet.inputs().containsKey(text)) {
                return;
            } else if (sheet.inputs().containsKey(key)) {
                check.attempt(p, () -> Written.check(text));
            } else if (sheet.results().containsKey(key)) {
                check.names(p, text, everything);
            } else if (capture != null
                    && own.startsWith("rules.")
                    && capture.rules().containsKey(own.substring(6))) {
                if (!text.equals("none")) {
                    Set<String> known = new LinkedHashSet<>(everything);
                    known.addAll(SheetCheck.columnsOf(capture));
                    known.addAll(capture.channels());
                    check.names(p, text, known);
                }
            } else if (capture != null && isEnd(capture, own)) {
                Set<String> known = new LinkedHashSet<>(everything);
                known.addAll(SheetCheck.columnsOf(capture));
                check.names(p, text, known);
            } else if (capture != null && capture.windows().containsKey(own)) {
                check.attempt(p, () -> WindowProposal.named(text));
            } else if (capture != null && capture.quantities().containsKey(own)) {
                Set<String> known = new LinkedHashSet<>(everything);
                known.addAll(SheetCheck.columnsOf(capture));
                known.addAll(capture.channels());
                check.names(p, text, known);
            } else {
                check.problem(
                        p, 1, "there is no input, result, window or quantity " + key + NearName.hint(key, everything));
            }
        });
    }

    /** {@code at.from}: an end of a window that lies between moments. */
    private static boolean isEnd(Capture capture, String name) {
        int dot = name.lastIndexOf('.');
        WindowPlan window = dot < 0 ? null : capture.windows().get(name.substring(0, dot));
        return window != null && window.isByMoments() && List.of("from", "to").contains(name.substring(dot + 1));
    }

    /** What the rig makes of it is tried with the rig. */
    private void parses(String pointer, String text) {
        try {
            Formula.parse(text);
        } catch (FormulaException e) {
            check.problem(pointer, e.column(), e.getMessage());
        }
    }
}
