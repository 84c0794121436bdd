package eagerneedle.app.workbench;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.delimited.SeveralRuns;
import eagerneedle.store.delimited.Table;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * How the columns of a table become the channels of a run: which column is the clock and in what unit, which column and
 * unit belongs to each channel, and how far the file's clock was ahead of the session's.
 *
 * @param time index of the clock's column
 * @param timeUnit symbol of its unit
 * @param values index of the column of each channel
 * @param units symbol of the unit of each channel's column, "counts" for those of a converter
 * @param ahead s by which the file's clock ran ahead of the session's
 */
public record ColumnMapping(
        int time, String timeUnit, Map<String, Integer> values, Map<String, String> units, double ahead) {
    public ColumnMapping {
        values = new LinkedHashMap<>(values);
        units = new LinkedHashMap<>(units);
    }

    /** What a table most likely means: its clock, and its columns in the order of the channels or by their names. */
    public static ColumnMapping guess(Table table, Sheet sheet, String capture) {
        int time = table.clock();
        for (int c = 0; c < table.names().size() && time < 0; c++) {
            time = SeveralRuns.isTime(table.names().get(c)) ? c : -1;
        }
        time = Math.max(0, time);
        Map<String, Integer> values = new LinkedHashMap<>();
        Map<String, String> units = new LinkedHashMap<>();
        int next = 0;
        for (String channel : sheet.capture(capture).channels()) {
            int named = -1;
            for (int c = 0; c < table.names().size(); c++) {
                String name = table.names().get(c);
                if (c != time
                        && (name.equalsIgnoreCase(channel)
                                || name.equalsIgnoreCase(sheet.channel(channel).label()))) {
                    named = c;
                }
            }
            while (named < 0 && (next == time || values.containsValue(next))) {
                next++;
            }
            int column = named >= 0 ? named : next;
            if (column < table.names().size()) {
                values.put(channel, column);
                units.put(
                        channel,
                        table.units().get(column).isEmpty()
                                ? sheet.channel(channel).unit()
                                : table.units().get(column));
            }
        }
        return new ColumnMapping(
                time, table.units().get(time).isEmpty() ? "s" : table.units().get(time), values, units, 0);
    }

    /** What was taken for granted, and what was not taken: one sentence each. */
    public List<String> remarks(Sheet sheet, Table table) {
        List<String> out = new ArrayList<>();
        values.forEach((channel, column) -> {
            Channel c = sheet.channel(channel);
            String unitOf = units.getOrDefault(channel, Run.COUNTS);
            String name = table.names().get(column);
            if (!name.equalsIgnoreCase(channel) && !name.equalsIgnoreCase(c.label())) {
                out.add("'" + name + "' was taken for " + c.label() + ", by its place.");
            }
            if (table.units().get(column).isEmpty()) {
                out.add("'" + name + "' states no unit and was taken to be in "
                        + c.labUnit().named() + ".");
            } else if (!unitOf.equals(Run.COUNTS) && !LabUnit.parse(unitOf).fits(c.labUnit())) {
                out.add("'" + name + "' in " + LabUnit.parse(unitOf).named() + " goes through the chain of " + c.label()
                        + ".");
            }
        });
        List<String> left = new ArrayList<>();
        for (int c = 0; c < table.names().size(); c++) {
            if (c != time && !values.containsValue(c)) {
                left.add("'" + table.names().get(c) + "'");
            }
        }
        if (!left.isEmpty()) {
            out.add("Nobody wants " + String.join(", ", left) + "; " + (left.size() == 1 ? "it was" : "they were")
                    + " not brought in.");
        }
        return out;
    }

    /**
     * Brings a table in as a run.
     *
     * @throws IllegalArgumentException with one sentence when units do not fit, times do not rise or nothing is left
     */
    public Run bring(Workbench bench, Table table, String source, String capture, String level) {
        Sheet sheet = bench.sheet();
        LabUnit seconds = unit(table, time, timeUnit);
        if (values.isEmpty()) {
            throw new IllegalArgumentException("Say which column belongs to which channel.");
        }
        values.forEach((c, column) -> {
            String in = Objects.requireNonNull(units.get(c));
            if (!in.equals(Run.COUNTS)) {
                LabUnit unit = unit(table, column, in);
                LabUnit signal = sheet.channel(c).toChain().converter().input();
                if (!unit.fits(signal)) {
                    unit.convert(0, sheet.channel(c).labUnit());
                }
            }
        });
        double[] clock = table.columns()[time];
        double first = fromItsTrigger(sheet.capture(capture), clock) ? 0 : seconds.convert(clock[0], LabUnit.SECOND);
        double before = Double.NEGATIVE_INFINITY;
        double[] t = new double[clock.length];
        for (int i = 0; i < clock.length; i++) {
            t[i] = seconds.convert(clock[i], LabUnit.SECOND) - first;
            if (!(t[i] > before)) {
                throw new IllegalArgumentException(
                        "The times in column '" + table.names().get(time) + "' do not rise at row " + (i + 1)
                                + "; choose another time column.");
            }
            before = t[i];
        }
        Map<String, RawSamples> samples = new LinkedHashMap<>();
        values.forEach((channel, column) -> samples.put(channel, withoutGaps(t, table.columns()[column])));
        if (samples.values().stream().allMatch(s -> s.size() == 0)) {
            throw new IllegalArgumentException("The chosen columns hold no numbers.");
        }
        Instant started = table.start() == null
                ? bench.clock().instant()
                : table.start().minus(Duration.ofNanos(Math.round(ahead * 1e9)));
        Map<String, String> raw = new HashMap<>(units);
        raw.keySet().retainAll(values.keySet());
        Run run = Run.captured(
                        bench.file().nextRunId(bench.session()),
                        capture,
                        level,
                        started,
                        source,
                        raw.values().iterator().next())
                .measuredIn(raw);
        bench.file().begin(run);
        bench.file().append(run.id(), samples);
        bench.apply(new RunCommand.KeepRun(run));
        return run;
    }

    /**
     * The record of a shot that has 0 in it counts from its trigger, and goes on doing so; any other clock begins with
     * its first row.
     */
    private static boolean fromItsTrigger(Capture capture, double[] clock) {
        return "shot".equals(capture.mode()) && clock[0] <= 0 && clock[clock.length - 1] >= 0;
    }

    private static LabUnit unit(Table table, int column, String symbol) {
        try {
            return LabUnit.parse(symbol);
        } catch (UnitException e) {
            throw new IllegalArgumentException(
                    "The column '" + table.names().get(column) + "' is in '" + symbol
                            + "', which is not a unit known here; say its unit, or export it in another.",
                    e);
        }
    }

    private static RawSamples withoutGaps(double[] t, double[] v) {
        int n = 0;
        double[] time = new double[t.length];
        double[] value = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            if (!Double.isNaN(v[i])) {
                time[n] = t[i];
                value[n++] = v[i];
            }
        }
        return new RawSamples(java.util.Arrays.copyOf(time, n), java.util.Arrays.copyOf(value, n));
    }
}
