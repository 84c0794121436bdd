package eagerneedle.core.sheet;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.trace.WindowProposal;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

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
        if (c.matters() != null) {
            check.attempt("/comparisons/" + i + "/matters", () -> {
                Reading r = Reading.parse(c.matters());
                if (r.u() > 0 || !(r.value() > 0)) {
                    throw new IllegalArgumentException("What matters is more than nothing and has no uncertainty.");
                }
            });
        }
    }

    /** Lines of pictures over these columns and fits. */
    void pictures(String pointer, List<Sheet.Picture> pictures, Set<String> columns, Set<String> fits) {
        for (int i = 0; i < pictures.size(); i++) {
            Sheet.Picture picture = pictures.get(i);
            unit(pointer + "/" + i + "/x_unit", picture.xUnit());
            unit(pointer + "/" + i + "/y_unit", picture.yUnit());
            boolean several = located.places().containsKey(pointer + "/" + i + "/lines");
            for (int k = 0; k < picture.lines().size(); k++) {
                Sheet.PictureLine line = picture.lines().get(k);
                String at = pointer + "/" + i + (several ? "/lines/" + k : "");
                if (line.x() == null || line.y() == null) {
                    check.problem(at, 1, "a picture needs its 'x' and 'y', or 'lines' that have them.");
                    continue;
                }
                check.names(at + "/x", line.x(), columns);
                check.names(at + "/y", line.y(), columns);
                if (line.fit() != null) {
                    check.names(at + "/fit", line.fit(), fits);
                }
            }
        }
    }

    private void unit(String pointer, String text) {
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
        return dot > 0
                && List.of("from", "to").contains(name.substring(dot + 1))
                && capture.windows().containsKey(name.substring(0, dot))
                && capture.windows().get(name.substring(0, dot)).isByMoments();
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
