package eagerneedle.report;

import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.SvgSurface;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What a busy reader sees: the question, the apparatus, the result with its needle, and the table of results. */
final class FrontPage {
    private static final int MOST = 8;
    private static final int WIDE = 380;
    private static final int HIGH = 190;

    private final Reduction reduction;
    private final Figures figures;

    FrontPage(Reduction reduction, Figures figures) {
        this.reduction = reduction;
        this.figures = figures;
    }

    Map<String, Object> of() {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("drawing", Apparatus.of(reduction.sheet()).map(this::drawing).orElse(""));
        Optional<Comparison> main = main();
        m.put("needle", main.map(this::needle).orElse(""));
        m.put("needleSays", main.map(Comparison::label).orElse(""));
        List<Map<String, Object>> rows = rows();
        m.put("rows", rows.stream().limit(MOST).toList());
        m.put("more", Math.max(0, rows.size() - MOST));
        return m;
    }

    private Optional<Comparison> main() {
        Sheet.Comparison first = reduction.sheet().mainComparison();
        return first == null
                ? Optional.empty()
                : reduction.comparisons().stream()
                        .filter(c -> c.id().equals(first.id()))
                        .findFirst();
    }

    private String drawing(Apparatus a) {
        SvgSurface s = figures.surface(WIDE, HIGH);
        new DrawingPainter(a.drawing(), Ink.SURFACE, 0, 0, WIDE, HIGH).paint(s);
        return s.document("Drawing of the apparatus");
    }

    private String needle(Comparison c) {
        School speaks = reduction.speaks(c.id());
        SvgSurface s = figures.surface(240, 150);
        NeedlePicture.paint(s, c, speaks == School.PERCENT ? School.STANDARD : speaks, 0, 0, 240, 150, false);
        return s.document(c.label());
    }

    /** The results, those that are compared first. */
    private List<Map<String, Object>> rows() {
        Map<String, Map<String, Object>> out = new LinkedHashMap<>();
        for (Sheet.Comparison c : reduction.sheet().comparisons()) {
            add(out, c.result());
        }
        reduction.sheet().results().keySet().forEach(name -> add(out, name));
        return List.copyOf(out.values());
    }

    private void add(Map<String, Map<String, Object>> out, String name) {
        Derived d = reduction.sheet().results().get(name);
        Optional<Quantity> q = reduction.quantity(name);
        if (d == null || d.label() == null || q.isEmpty() || reduction.isHidden(name) || out.containsKey(name)) {
            return;
        }
        List<String> against = new ArrayList<>();
        for (Comparison c : reduction.comparisons()) {
            if (reduction.sheet().comparisons().stream()
                    .anyMatch(s -> s.id().equals(c.id()) && s.result().equals(name))) {
                against.add(Printed.of(c.reference()).text() + ": "
                        + c.conclusion(reduction.speaks(c.id())).words());
            }
        }
        out.put(
                name,
                Map.of(
                        "label", d.label(),
                        "value", InPrint.of(q.get()),
                        "expanded",
                                InPrint.expanded(q.get(), reduction.session().coverage()),
                        "against", String.join("; ", against)));
    }
}
