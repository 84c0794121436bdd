package eagerneedle.store.delimited;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BiPredicate;

/**
 * Columns that tell the time, made into seconds from their first moment: dates, times of a day, both in two columns,
 * days as spreadsheets count them, minutes and seconds. What was guessed is said.
 */
final class TimeColumns {
    private static final double DAY = 86_400;
    /** The day that spreadsheets count from. */
    private static final double SERIAL_ZERO =
            LocalDate.of(1899, 12, 30).atStartOfDay().toEpochSecond(ZoneOffset.UTC);

    private static final double FIRST_SERIAL = 20_000;
    private static final double LAST_SERIAL = 80_000;

    private final double[][] columns;
    private final Dialect dialect;
    private final List<String> remarks;
    private final List<String> units;

    /** @param columns numbers, and moments in s; changed in place */
    TimeColumns(double[][] columns, Dialect dialect, List<String> remarks) {
        this.columns = columns;
        this.dialect = dialect;
        this.remarks = remarks;
        this.units = new ArrayList<>(dialect.units());
    }

    /** @param ambiguous true for a column of dates in which day and month may be exchanged */
    Table told(BiPredicate<Integer, Clock> ambiguous) {
        int clock = -1;
        Instant start = null;
        boolean serial = dialect.clocks().stream().noneMatch(Clock::hasDate);
        int date = dateAlone();
        for (int c = columns.length - 1; c >= 0; c--) {
            Clock how = dialect.clocks().get(c);
            boolean days = serial && how == Clock.NUMBER && isSerial(c);
            if (how == Clock.NUMBER && !days) {
                continue;
            }
            if (days) {
                for (int i = 0; i < columns[c].length; i++) {
                    columns[c][i] = SERIAL_ZERO + DAY * columns[c][i];
                }
                remarks.add("'" + name(c) + "' was read as days counted from the end of 1899, as spreadsheets do.");
            }
            if (how == Clock.TIME_OF_DAY) {
                Clock.overMidnight(columns[c]);
            } else if (how == Clock.MINUTES) {
                remarks.add("'" + name(c) + "' was read as minutes and seconds.");
            } else if (how != Clock.NUMBER && ambiguous.test(c, how)) {
                remarks.add("Dates of '" + name(c) + "' were read with "
                        + (how == Clock.DAY_FIRST ? "the day" : "the month") + " first.");
            }
            if (how == Clock.TIME_OF_DAY && date >= 0) {
                together(c, date);
            }
            boolean dated = days || how.hasDate() || how == Clock.TIME_OF_DAY && date >= 0;
            double first = columns[c][0];
            for (int i = 0; i < columns[c].length; i++) {
                // Dates are large numbers: what is left of the difference is rounded to what they can hold.
                columns[c][i] = Math.rint((columns[c][i] - first) * 1e6) / 1e6;
            }
            units.set(c, "s");
            if (c != date || clock < 0) {
                clock = c;
                start = dated ? Instant.ofEpochMilli(Math.round(first * 1e3)) : start;
            }
        }
        Table all = new Table(dialect.names(), units, columns, clock, start, remarks);
        return date < 0 || clock == date ? all : without(all, date);
    }

    /** The date has gone into the clock. */
    private static Table without(Table t, int column) {
        List<String> names = new ArrayList<>(t.names());
        List<String> units = new ArrayList<>(t.units());
        List<double[]> columns = new ArrayList<>(List.of(t.columns()));
        names.remove(column);
        units.remove(column);
        columns.remove(column);
        return new Table(
                names,
                units,
                columns.toArray(double[][]::new),
                t.clock() > column ? t.clock() - 1 : t.clock(),
                t.start(),
                t.remarks());
    }

    private String name(int column) {
        return dialect.names().get(column);
    }

    /** A column of dates without a time of day, beside one with times of a day; -1 for none. */
    private int dateAlone() {
        if (dialect.clocks().stream().noneMatch(c -> c == Clock.TIME_OF_DAY)) {
            return -1;
        }
        for (int c = 0; c < columns.length; c++) {
            if (dialect.clocks().get(c).hasDate()
                    && Arrays.stream(columns[c]).allMatch(s -> Double.isNaN(s) || s % DAY == 0)) {
                return c;
            }
        }
        return -1;
    }

    /** Times of a day that stand beside their dates; a new date is a new day already. */
    private void together(int time, int date) {
        for (int i = 0; i < columns[time].length; i++) {
            columns[time][i] = columns[time][i] % DAY + columns[date][i];
        }
        remarks.add("'" + name(date) + "' and '" + name(time) + "' were read as one clock.");
    }

    /** A column called a date or a time, without a unit, of days between 1954 and 2119 that rise. */
    private boolean isSerial(int c) {
        if (!dialect.units().get(c).isEmpty()
                || !name(c).toLowerCase(java.util.Locale.ROOT).matches(".*(date|time|datum|zeit).*")) {
            return false;
        }
        double before = FIRST_SERIAL;
        for (double v : columns[c]) {
            if (!(v >= before && v <= LAST_SERIAL)) {
                return false;
            }
            before = v;
        }
        return columns[c].length > 1;
    }
}
