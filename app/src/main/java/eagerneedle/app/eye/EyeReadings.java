package eagerneedle.app.eye;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.Iterator;
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

    /**
     * A cell of a table as a reading: without a unit it has that of its column, without an uncertainty that which is
     * expected. Whatever is built or says more is taken as it is.
     *
     * @param stated the unit that stands over its column; empty where none does
     */
    static String asExpected(String expected, String cell, String stated) {
        String clean = cell.strip();
        Quantity like = Written.quantity(expected, "expected", "expected", "expected");
        Reading r;
        try {
            r = Reading.parse(clean);
        } catch (IllegalArgumentException built) {
            return clean;
        }
        boolean bare = r.unit().isDimensionless() && r.unit().symbol().isEmpty();
        LabUnit unit = !bare ? r.unit() : stated.isEmpty() ? like.unit() : LabUnit.parse(stated);
        String whole = bare ? (clean + " " + unit.symbol()).strip() : clean;
        if (r.u() > 0 || like.u() == 0 || !unit.fits(like.unit())) {
            return whole;
        }
        Distribution of = expected.contains("limit") ? Distribution.RECTANGULAR : Distribution.NORMAL;
        return new Reading(r.value(), scaled(like, unit), unit, of).text();
    }

    /** What a reading is uncertain by, in another unit. */
    private static double scaled(Quantity like, LabUnit unit) {
        return Math.abs(like.unit().difference().convert(like.u(), unit.difference()));
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
        return Run.captured(id, capture, level, bench.clock().instant(), "a reading by eye", Run.COUNTS);
    }

    /**
     * A row of readings.
     *
     * @param level where it belongs; null for the next of the schedule
     * @param read what was read, by name
     * @param place where it comes from, for messages
     */
    public record Row(@Nullable String level, Map<String, String> read, String place) {}

    /**
     * Keeps rows of readings as runs, one act for all. Bare numbers have become readings before.
     *
     * @param source where they come from
     * @return the runs
     * @throws IllegalArgumentException with one sentence when a row does not fit; then none is kept
     */
    public static List<Run> keep(Workbench bench, String capture, List<Row> rows, String source) {
        Capture plan = plan(bench, capture);
        Iterator<String> levels = toTake(bench, capture).iterator();
        List<Command> acts = new ArrayList<>();
        List<Run> runs = new ArrayList<>();
        int id = bench.file().nextRunId(bench.session());
        for (Row row : rows) {
            if (row.level() == null && !levels.hasNext()) {
                throw new IllegalArgumentException(row.place() + ": all runs of " + plan.label()
                        + " are taken by the rows before it; say a level to add more. Nothing was taken.");
            }
            String at = row.level() != null ? row.level() : levels.next();
            Run run = new Run(
                    id + runs.size(),
                    "Run " + (id + runs.size()),
                    capture,
                    at,
                    bench.clock().instant(),
                    source,
                    Run.COUNTS,
                    null,
                    null,
                    Map.of(),
                    Map.of(),
                    Map.of(),
                    Entries.NONE,
                    Map.of());
            for (Map.Entry<String, Sheet.Input> e : plan.byEye().entrySet()) {
                String text = Optional.ofNullable(row.read().get(e.getKey()))
                        .or(() -> known(bench, capture, at, e.getKey()))
                        .or(() -> before(runs, at, e))
                        .orElse("");
                try {
                    run = run.entered(run.entries()
                            .read(e.getKey(), checked(e.getValue(), plan.expected(at, e.getKey()), text)));
                } catch (IllegalArgumentException bad) {
                    throw new IllegalArgumentException(
                            row.place() + ": " + bad.getMessage() + " Nothing was taken.", bad);
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

    /** The levels of the runs that are still to be taken, in order. */
    private static List<String> toTake(Workbench bench, String capture) {
        List<String> out = new ArrayList<>();
        plan(bench, capture).levels().keySet().forEach(l -> {
            long open = bench.session().repeats(bench.sheet(), capture)
                    - bench.schedule().runsAt(capture, l);
            for (long i = 0; i < open; i++) {
                out.add(l);
            }
        });
        return out;
    }

    /** What a row before was read as, where one reading serves its level. */
    private static Optional<String> before(List<Run> rows, String level, Map.Entry<String, Sheet.Input> read) {
        return rows.stream()
                .filter(r -> read.getValue().isOncePerLevel() && r.level().equals(level))
                .findFirst()
                .map(r -> r.entries().byEye().get(read.getKey()));
    }

    /**
     * Keeps rows that were copied in a spreadsheet, as one act: below headings, or in the order of what is read.
     *
     * @return what was done, in one sentence or more
     * @throws IllegalArgumentException with one sentence when they do not fit; then none is kept
     */
    public static String paste(Workbench bench, String capture, String tabbed) {
        String first =
                tabbed.strip().lines().findFirst().orElse("").split("\t")[0].strip();
        Capture plan = plan(bench, capture);
        boolean headed = first.equalsIgnoreCase("level")
                || plan.byEye().entrySet().stream()
                        .anyMatch(e -> first.startsWith(e.getKey())
                                || first.startsWith(e.getValue().label()));
        if (headed) {
            return RowsFile.bring(bench, capture, null, "the clipboard", tabbed).says("the clipboard");
        }
        return keep(bench, capture, inOrder(bench, capture, tabbed), "the clipboard")
                        .size() + " rows were kept; bare numbers have the unit and uncertainty that are expected.";
    }

    /** Cells of several rows, in the order of what is read, each at the level that comes next. */
    static List<Row> inOrder(Workbench bench, String capture, String tabbed) {
        Capture plan = plan(bench, capture);
        List<String> names = List.copyOf(plan.byEye().keySet());
        List<String> levels = toTake(bench, capture);
        List<Row> out = new ArrayList<>();
        for (String line : tabbed.strip().lines().toList()) {
            String[] cells = line.split("\t", -1);
            String place = "Row " + (out.size() + 1);
            if (cells.length > names.size()) {
                throw new IllegalArgumentException(place + " has " + cells.length + " cells, but only " + names.size()
                        + " things are read: "
                        + String.join(
                                ", ",
                                plan.byEye().values().stream()
                                        .map(Sheet.Input::label)
                                        .toList())
                        + ". Nothing was taken.");
            }
            String at = out.size() < levels.size() ? levels.get(out.size()) : "";
            Map<String, String> row = new LinkedHashMap<>();
            for (int i = 0; i < cells.length; i++) {
                if (!cells[i].isBlank()) {
                    row.put(names.get(i), asExpected(plan.expected(at, names.get(i)), cells[i], ""));
                }
            }
            out.add(new Row(null, row, place));
        }
        return out;
    }
}
