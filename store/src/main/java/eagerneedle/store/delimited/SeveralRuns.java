package eagerneedle.store.delimited;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Runs that stand in one table: side by side, a time and its values each, shorter ones with blanks; or below each
 * other, the time beginning anew.
 */
public final class SeveralRuns {
    private static final Pattern TIME = Pattern.compile("t|t ?[\\[(].*|time.*|.*clock.*|.*seconds.*|zeit.*|temps.*");
    private static final double SAME_BEGINNING = 0.02;

    private SeveralRuns() {}

    /** True for a column that is called a time. */
    public static boolean isTime(String name) {
        return TIME.matcher(name.toLowerCase(Locale.ROOT)).matches();
    }

    /** The runs of a table, one or more; each says in its remarks how it was cut out. */
    public static List<Table> of(Table table) {
        List<Table> beside = beside(table);
        return beside.size() > 1 ? beside : below(table);
    }

    private static List<Table> beside(Table t) {
        List<Integer> times = new ArrayList<>();
        for (int c = 0; c < t.names().size(); c++) {
            if (isTime(t.names().get(c))) {
                times.add(c);
            }
        }
        if (times.size() < 2 || times.get(0) != 0) {
            return List.of(t);
        }
        int width = times.get(1);
        for (int i = 0; i < times.size(); i++) {
            int end = i + 1 < times.size() ? times.get(i + 1) : t.names().size();
            if (end - times.get(i) != width || width < 2) {
                return List.of(t);
            }
        }
        List<Table> out = new ArrayList<>();
        for (int i = 0; i < times.size(); i++) {
            int first = times.get(i);
            int rows = filled(t.columns()[first]);
            if (rows == 0) {
                continue;
            }
            double[][] columns = new double[width][];
            for (int c = 0; c < width; c++) {
                columns[c] = Arrays.copyOf(t.columns()[first + c], rows);
            }
            List<String> remarks = new ArrayList<>(i == 0 ? t.remarks() : List.of());
            remarks.add("Run " + (i + 1) + " of " + times.size() + " that stand side by side, " + rows + " rows.");
            out.add(new Table(
                    t.names().subList(first, first + width),
                    t.units().subList(first, first + width),
                    columns,
                    t.clock() < 0 ? -1 : 0,
                    i == 0 ? t.start() : null,
                    remarks));
        }
        return out;
    }

    /** Rows up to the last that has a time. */
    private static int filled(double[] time) {
        int n = time.length;
        while (n > 0 && Double.isNaN(time[n - 1])) {
            n--;
        }
        return n;
    }

    private static List<Table> below(Table t) {
        int clock = t.clock();
        for (int c = 0; c < t.names().size() && clock < 0; c++) {
            clock = isTime(t.names().get(c)) ? c : -1;
        }
        if (clock < 0) {
            return List.of(t);
        }
        double[] time = t.columns()[clock];
        List<Integer> begins = new ArrayList<>(List.of(0));
        for (int i = 1; i < time.length; i++) {
            if (time[i] < time[i - 1]) {
                begins.add(i);
            }
        }
        if (begins.size() < 2 || !isAnew(time, begins)) {
            return List.of(t);
        }
        String where = begins.stream().skip(1).map(i -> "row " + (i + 1)).collect(Collectors.joining(", "));
        List<Table> out = new ArrayList<>();
        for (int k = 0; k < begins.size(); k++) {
            int from = begins.get(k);
            int to = k + 1 < begins.size() ? begins.get(k + 1) : time.length;
            double[][] columns = new double[t.columns().length][];
            for (int c = 0; c < columns.length; c++) {
                columns[c] = Arrays.copyOfRange(t.columns()[c], from, to);
            }
            List<String> remarks = new ArrayList<>(k == 0 ? t.remarks() : List.of());
            remarks.add("Run " + (k + 1) + " of " + begins.size()
                    + " that stand below each other: the time begins anew in " + where + ".");
            out.add(new Table(t.names(), t.units(), columns, t.clock(), k == 0 ? t.start() : null, remarks));
        }
        return out;
    }

    /** True where every piece has a few rows and begins where the first one did: a clock that stumbles does neither. */
    private static boolean isAnew(double[] time, List<Integer> begins) {
        int first = begins.get(1);
        double span = time[first - 1] - time[0];
        for (int k = 0; k < begins.size(); k++) {
            int from = begins.get(k);
            int to = k + 1 < begins.size() ? begins.get(k + 1) : time.length;
            if (to - from < 2 || Math.abs(time[from] - time[0]) > SAME_BEGINNING * span) {
                return false;
            }
        }
        return true;
    }
}
