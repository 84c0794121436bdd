package eagerneedle.app.workbench;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.store.delimited.SeveralRuns;
import eagerneedle.store.delimited.Table;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Set;

/** A sheet for a file that nobody wrote one for: its columns are channels, its runs are runs. */
public final class FoundSheet {
    /** The only capture of such a sheet. */
    public static final String CAPTURE = "record";

    /** Its only level. */
    public static final String LEVEL = "run";

    private static final int BITS = 24;

    private FoundSheet() {}

    /** The column that tells the time; the first where it rises and none is called so; -1 for none. */
    public static int clock(Table t) {
        if (t.clock() >= 0) {
            return t.clock();
        }
        for (int c = 0; c < t.names().size(); c++) {
            if (SeveralRuns.isTime(t.names().get(c))) {
                return c;
            }
        }
        double[] first = t.columns()[0];
        for (int i = 1; i < first.length; i++) {
            if (!(first[i] > first[i - 1])) {
                return -1;
            }
        }
        return t.columns().length > 1 ? 0 : -1;
    }

    /**
     * The text of the sheet.
     *
     * @throws IllegalArgumentException with one sentence where there is no time, or nothing beside it
     */
    public static String text(Table t, String file) {
        int clock = clock(t);
        if (clock < 0 || t.columns().length < 2) {
            throw new IllegalArgumentException(
                    file + " has no column that tells the time beside others; nothing can be drawn over time.");
        }
        String title = file.replaceFirst("\\.[^.]*$", "");
        StringBuilder b = new StringBuilder("sheet: 2\nid: ")
                .append(id(title))
                .append("\ntitle: \"")
                .append(plain(title))
                .append("\"\nsubject: From files\nchannels:\n");
        StringBuilder quantities = new StringBuilder();
        Set<String> names = new LinkedHashSet<>();
        for (int c = 0; c < t.columns().length; c++) {
            if (c == clock) {
                continue;
            }
            String name = name(t.names().get(c), c, names);
            String unit = known(t.units().get(c));
            double[] v = Arrays.stream(t.columns()[c]).filter(Double::isFinite).toArray();
            double low = Arrays.stream(v).min().orElse(0);
            double high = Arrays.stream(v).max().orElse(1);
            double room = Math.max(high - low, Math.max(Math.abs(high), 1e-9) * 1e-3);
            b.append("  ")
                    .append(name)
                    .append(": {label: \"")
                    .append(plain(t.names().get(c)))
                    .append("\", unit: \"")
                    .append(unit)
                    .append("\", rate: ")
                    .append(rate(t, clock))
                    .append(", chain: [{kind: converter, label: as in the file, from: \"")
                    .append(unit)
                    .append("\", range: [")
                    .append(low - room)
                    .append(", ")
                    .append(high + room)
                    .append("], bits: ")
                    .append(BITS)
                    .append("}]}\n");
            quantities
                    .append("      ")
                    .append(name)
                    .append("_mean: {label: \"mean of ")
                    .append(plain(t.names().get(c)))
                    .append("\", unit: \"")
                    .append(unit)
                    .append("\", formula: \"mean(")
                    .append(name)
                    .append(")\"}\n");
        }
        return b.append("captures:\n  ")
                .append(CAPTURE)
                .append(":\n    label: Runs\n    channels: [")
                .append(String.join(", ", names))
                .append("]\n    quantities:\n")
                .append(quantities)
                .append("results: {}\n")
                .toString();
    }

    private static String id(String title) {
        String id = title.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^[^a-z]+|-+$", "");
        return id.isEmpty() ? "found" : id;
    }

    private static String plain(String words) {
        return words.replaceAll("[\"\\\\\\p{Cntrl}]", "'");
    }

    private static String name(String title, int column, Set<String> taken) {
        String base = title.replaceAll("[^A-Za-z0-9]+", "_").replaceAll("^[^A-Za-z]+|_+$", "");
        String name = base.isEmpty() || base.length() > 30 ? "column" + (column + 1) : base;
        while (!taken.add(name)) {
            name += "b";
        }
        return name;
    }

    private static String known(String unit) {
        try {
            LabUnit.parse(unit);
            return unit;
        } catch (UnitException other) {
            return "";
        }
    }

    private static double rate(Table t, int clock) {
        double[] time = t.columns()[clock];
        double span = time[time.length - 1] - time[0];
        String unit = known(t.units().get(clock));
        double seconds = span * (unit.isEmpty() ? 1 : LabUnit.parse(unit).scaleTo(LabUnit.SECOND));
        return seconds > 0 ? Math.max(1e-4, Math.min(1e6, (time.length - 1) / seconds)) : 1;
    }
}
