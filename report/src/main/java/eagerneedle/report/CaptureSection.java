package eagerneedle.report;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.trace.Window;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** The runs of each capture: their quantities, windows, the picture of one, photographs. */
final class CaptureSection {
    /** Letters that a line of a table holds. */
    private static final int WIDE = 96;

    /** Letters that a window is given; more stand below each other. */
    private static final int WINDOW = 16;

    private final Reduction reduction;
    private final Figures figures;
    private final EmbeddedPhotographs photographs;

    CaptureSection(Reduction reduction, Figures figures, EmbeddedPhotographs photographs) {
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
                        .filter(Derived::shown)
                        .map(Derived::label)
                        .toList();
                List<Map<String, Object>> rows =
                        runs.stream().map(r -> row(r, capture)).toList();
                Run first =
                        runs.stream().filter(Run::takesPart).reduce((a, b) -> b).orElse(runs.get(0));
                String svg = capture.top()
                        .flatMap(top -> SessionPlots.run(reduction, first, top))
                        .map(p -> figures.plot(p, Figures.WIDE, 240))
                        .orElse("");
                String residuals = SessionPlots.residuals(
                                reduction, first, capture.top().orElse(""))
                        .map(p -> figures.plot(p, Figures.WIDE, 120))
                        .orElse("");
                List<Map<String, String>> taken = runs.stream()
                        .flatMap(r -> photographs.of(r.entries().pictures()).stream())
                        .toList();
                out.add(Map.of(
                        "label",
                        capture.label(),
                        "tables",
                        tables(heads, rows, !capture.windows().isEmpty()),
                        "windows",
                        capture.windows().isEmpty() ? "" : "yes",
                        "svg",
                        svg,
                        "residuals",
                        residuals,
                        "shown",
                        first.name() + ", " + SessionPlots.levelLabel(reduction, first),
                        "pictures",
                        taken));
            }
        });
        return out;
    }

    /** As many columns in one table as a page is wide; the rest in further ones with the same runs. */
    private static List<Map<String, Object>> tables(
            List<String> heads, List<Map<String, Object>> rows, boolean windowed) {
        int names = widest(rows, "name") + widest(rows, "level");
        List<Map<String, Object>> out = new ArrayList<>();
        int from = 0;
        do {
            int room = WIDE - names - (from == 0 && windowed ? Math.min(WINDOW, widest(rows, "window")) : 0);
            int to = from;
            while (to < heads.size()) {
                int width = width(heads.get(to), rows, to);
                if (to > from && width > room) {
                    break;
                }
                room -= width;
                to++;
            }
            int first = from;
            int last = to;
            out.add(Map.of(
                    "heads",
                    heads.subList(from, to),
                    "rows",
                    rows.stream()
                            .map(r -> {
                                Map<String, Object> part = new LinkedHashMap<>(r);
                                List<?> cells = (List<?>) Objects.requireNonNull(r.get("cells"));
                                part.put(
                                        "cells",
                                        cells.subList(Math.min(first, cells.size()), Math.min(last, cells.size())));
                                return part;
                            })
                            .toList(),
                    "windows",
                    from == 0));
            from = to;
        } while (from < heads.size());
        return out;
    }

    private static int widest(List<Map<String, Object>> rows, String what) {
        return 2
                + rows.stream()
                        .mapToInt(r -> String.valueOf(r.get(what)).length())
                        .max()
                        .orElse(0);
    }

    /** Letters that a column wants: its widest cell, or the longest word of its head. */
    private static int width(String head, List<Map<String, Object>> rows, int column) {
        int word = Arrays.stream(head.split(" ")).mapToInt(String::length).max().orElse(0);
        int cell = rows.stream()
                .map(r -> (List<?>) r.get("cells"))
                .filter(c -> column < c.size())
                .mapToInt(c -> String.valueOf(c.get(column)).length())
                .max()
                .orElse(0);
        return 2 + Math.max(word, cell);
    }

    private Map<String, Object> row(Run run, Capture capture) {
        List<String> cells = reduction.ofRun(run).stream()
                .map(e -> e.quantity().map(q -> Printed.of(q).text()).orElse("—"))
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
        return Notation.sentence(
                "%.2f\u00a0…\u00a0%.2f\u00a0s%s",
                w.from(), w.to(), run.windows().containsKey(name) ? " (set by hand)" : "");
    }
}
