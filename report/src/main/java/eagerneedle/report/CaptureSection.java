package eagerneedle.report;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Window;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The runs of each capture: their quantities, windows, the picture of one, photographs. */
final class CaptureSection {
    private final Reduction reduction;
    private final Figures figures;
    private final Photographs photographs;

    CaptureSection(Reduction reduction, Figures figures, Photographs photographs) {
        this.reduction = reduction;
        this.figures = figures;
        this.photographs = photographs;
    }

    List<Map<String, Object>> all() {
        List<Map<String, Object>> out = new ArrayList<>();
        reduction.sheet().captures().forEach((name, capture) -> {
            List<Run> runs = reduction.runs().stream()
                    .filter(r -> r.capture().equals(name) && r.discard() == null)
                    .toList();
            if (!runs.isEmpty()) {
                List<String> heads = capture.quantities().values().stream()
                        .filter(Sheet.Derived::shown)
                        .map(Sheet.Derived::label)
                        .toList();
                List<Map<String, Object>> rows =
                        runs.stream().map(r -> row(r, capture)).toList();
                Run first =
                        runs.stream().filter(Run::takesPart).reduce((a, b) -> b).orElse(runs.get(0));
                String svg = capture.top()
                                .flatMap(top -> SessionPlots.run(reduction, first, top))
                                .map(p -> figures.plot(p, Figures.WIDE, 280))
                                .orElse("")
                        + SessionPlots.residuals(reduction, first, capture.top().orElse(""))
                                .map(p -> figures.plot(p, Figures.WIDE, 120))
                                .orElse("");
                List<Map<String, String>> taken = runs.stream()
                        .flatMap(r -> photographs.of(r.entries().pictures()).stream())
                        .toList();
                out.add(Map.of(
                        "label",
                        capture.label(),
                        "heads",
                        heads,
                        "rows",
                        rows,
                        "svg",
                        svg,
                        "shown",
                        first.name() + ", " + SessionPlots.levelLabel(reduction, first),
                        "pictures",
                        taken));
            }
        });
        return out;
    }

    private Map<String, Object> row(Run run, Capture capture) {
        List<String> cells = reduction.ofRun(run).stream()
                .map(e -> e.quantity().map(Quantity::toString).orElse("—"))
                .toList();
        String windows = capture.windows().keySet().stream()
                .map(w -> reduction.window(run, w).map(x -> window(run, w, x)).orElse("none"))
                .reduce((a, b) -> a + "; " + b)
                .orElse("");
        return Map.of(
                "name",
                run.name(),
                "level",
                SessionPlots.levelLabel(reduction, run),
                "window",
                windows,
                "cells",
                cells,
                "leftOut",
                run.leftOut() == null ? "" : run.leftOut());
    }

    private static String window(Run run, String name, Window w) {
        return String.format(
                Locale.ROOT,
                "%.2f … %.2f s%s",
                w.from(),
                w.to(),
                run.windows().containsKey(name) ? " (set by hand)" : "");
    }
}
