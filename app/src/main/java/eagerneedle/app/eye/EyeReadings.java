package eagerneedle.app.eye;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What is read by eye with a run: whether it can be so, what is known already, and rows of it that come together. */
public final class EyeReadings {
    private EyeReadings() {}

    /**
     * A reading as it is kept.
     *
     * @param expected what a reading looks like at this level, as written
     * @throws IllegalArgumentException with one sentence when it is none, or does not fit
     */
    public static String checked(Sheet.Input input, String expected, String text) {
        String clean = text.strip();
        if (clean.isEmpty()) {
            throw new IllegalArgumentException("Enter " + input.label() + " first, as read by eye.");
        }
        LabUnit wanted = unit(expected);
        LabUnit read = unit(clean);
        if (!read.fits(wanted)) {
            throw new IllegalArgumentException(input.label() + " is in " + wanted.named() + ", not in " + read.named()
                    + "; write for instance " + expected + ".");
        }
        return clean;
    }

    static Capture plan(Workbench bench, String capture) {
        return Objects.requireNonNull(bench.sheet().captures().get(capture), capture);
    }

    static LabUnit unit(String text) {
        return Written.quantity(text, "reading", "reading", "reading").unit();
    }

    /** A bare number with the unit and the uncertainty that are expected; any other text as it is. */
    public static String asExpected(String expected, String cell) {
        String clean = cell.strip();
        if (!clean.matches("[-+\u2212]?[\\d.]+(?:[eE][-+]?\\d+)?")) {
            return clean;
        }
        try {
            Reading like = Reading.parse(expected);
            Reading r = Reading.parse(clean);
            return like.unit().isDimensionless() && like.u() == 0
                    ? clean
                    : like.again(r.value()).text();
        } catch (IllegalArgumentException built) {
            return clean + " " + unit(expected).symbol();
        }
    }

    /** What another run at the same level was read as, where one reading serves them all. */
    static Optional<String> known(Workbench bench, String capture, String level, String name) {
        return bench.session().keptRuns().stream()
                .filter(r -> r.capture().equals(capture) && r.level().equals(level))
                .filter(r -> r.entries().byEye().containsKey(name))
                .findFirst()
                .map(r -> r.entries().byEye().get(name))
                .filter(t -> Optional.ofNullable(plan(bench, capture).byEye().get(name))
                        .filter(Sheet.Input::isOncePerLevel)
                        .isPresent());
    }

    /** The next run of a capture in which nothing is recorded, before anything is read. */
    public static Run blank(Workbench bench, String capture, String level, int id) {
        return Run.captured(id, capture, level, bench.clock().instant(), "read by eye", Run.COUNTS);
    }

    /**
     * Keeps rows of readings as runs, one act for all: at one level, or where none is given at those that come next.
     *
     * @param rows a row a run: what was read, by name; bare numbers are as expected
     * @param level where all belong; null for the levels of the schedule
     * @param source where they come from
     * @return the runs
     * @throws IllegalArgumentException with one sentence when a row does not fit; then none is kept
     */
    public static List<Run> keep(
            Workbench bench, String capture, List<Map<String, String>> rows, @Nullable String level, String source) {
        Capture plan = plan(bench, capture);
        List<String> levels = new ArrayList<>();
        plan.levels().keySet().forEach(l -> {
            long open = bench.session().repeats(bench.sheet(), capture) - bench.runsAt(capture, l);
            for (long i = 0; i < open; i++) {
                levels.add(l);
            }
        });
        if (level == null && levels.size() < rows.size()) {
            throw new IllegalArgumentException(
                    "There are " + rows.size() + " rows, but only " + levels.size() + " runs of " + plan.label()
                            + " are still to be taken; nothing was taken. Say a level to add more.");
        }
        List<Command> acts = new ArrayList<>();
        List<Run> runs = new ArrayList<>();
        int id = bench.file().nextRunId(bench.session());
        for (int i = 0; i < rows.size(); i++) {
            String at = level != null ? level : levels.get(i);
            Run run = blank(bench, capture, at, id + i);
            for (Map.Entry<String, Sheet.Input> e : plan.byEye().entrySet()) {
                String expected = plan.expected(at, e.getKey());
                String cell = rows.get(i).get(e.getKey());
                String text = cell != null
                        ? asExpected(expected, cell)
                        : known(bench, capture, at, e.getKey())
                                .or(() -> before(runs, at, e))
                                .orElse("");
                try {
                    run = run.entered(run.entries().read(e.getKey(), checked(e.getValue(), expected, text)));
                } catch (IllegalArgumentException bad) {
                    throw new IllegalArgumentException(
                            "Row " + (i + 1) + ": " + bad.getMessage() + " Nothing was taken.", bad);
                }
            }
            runs.add(run);
            acts.add(new RunCommand.KeepRun(run));
        }
        if (acts.size() == 1) {
            bench.apply(acts.get(0));
        } else if (!acts.isEmpty()) {
            bench.apply(new Command.Together(
                    "Kept " + acts.size() + " rows of " + plan.label() + " from " + source + ", "
                            + runs.get(0).name() + " to "
                            + runs.get(runs.size() - 1).name() + ".",
                    acts));
        }
        return runs;
    }

    /** What a row before was read as, where one reading serves its level. */
    private static Optional<String> before(List<Run> rows, String level, Map.Entry<String, Sheet.Input> read) {
        return rows.stream()
                .filter(r -> read.getValue().isOncePerLevel() && r.level().equals(level))
                .findFirst()
                .map(r -> r.entries().byEye().get(read.getKey()));
    }

    /** Cells of one row, or of several, in the order of what is read. */
    public static List<Map<String, String>> rows(Capture plan, String tabbed) {
        List<String> names = List.copyOf(plan.byEye().keySet());
        List<Map<String, String>> out = new ArrayList<>();
        for (String line : tabbed.strip().lines().toList()) {
            String[] cells = line.split("\t", -1);
            if (cells.length > names.size()) {
                throw new IllegalArgumentException("Row " + (out.size() + 1) + " has " + cells.length
                        + " cells, but only " + names.size() + " things are read: "
                        + String.join(
                                ", ",
                                plan.byEye().values().stream()
                                        .map(Sheet.Input::label)
                                        .toList()) + ".");
            }
            Map<String, String> row = new LinkedHashMap<>();
            for (int i = 0; i < cells.length; i++) {
                if (!cells[i].isBlank()) {
                    row.put(names.get(i), cells[i]);
                }
            }
            out.add(row);
        }
        return out;
    }
}
