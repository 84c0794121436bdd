package eagerneedle.app.workbench;

import eagerneedle.core.edit.Block;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.rig.driver.Driver;
import eagerneedle.store.delimited.SeveralRuns;
import eagerneedle.store.delimited.Table;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The sheet of an open bench: nothing but a title and a question to begin with; the columns of a file, or the inputs of
 * an instrument, are written into it as channels with a capture of their own.
 */
public final class OpenSheet {
    /** The first capture of such a sheet; a further one, for other channels, is called {@code record_2}. */
    public static final String CAPTURE = "record";

    /** Its only level. */
    public static final String LEVEL = "run";

    public static final String SUBJECT = "Open bench";
    private static final int BITS = 32;
    private static final int MOST_DECIMALS = 9;
    /** A file may go on beyond what was seen of it: so many times as far. */
    private static final double ROOM = 100;

    private OpenSheet() {}

    /** A sheet in which nothing stands yet but what is to be found. */
    public static String empty(String title, String question) {
        return SheetText.of("sheet: 2\nid: " + id(title) + "\n")
                .with("/title", plain(title))
                .with("/subject", SUBJECT)
                .with("/question", question.isBlank() ? "What do these records say?" : plain(question))
                .with("/results", Map.of())
                .text();
    }

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

    /** A text and the capture in it that runs belong to. */
    public record Extended(String text, String capture) {}

    /**
     * The sheet with the columns of a table as channels, where it has none of these names yet.
     *
     * @throws IllegalArgumentException with one sentence where there is no time, or nothing beside it
     */
    public static Extended with(String text, Table t, String file) {
        int clock = clock(t);
        if (clock < 0 || t.columns().length < 2) {
            throw new IllegalArgumentException(
                    file + " has no column that tells the time beside others; nothing can be drawn over time.");
        }
        SheetText sheet = SheetText.of(text);
        List<String> wanted = columns(t, clock);
        for (String capture : sheet.names("/captures")) {
            if (labels(sheet, capture).equals(wanted)) {
                return new Extended(text, capture);
            }
        }
        Set<String> taken = new java.util.LinkedHashSet<>(sheet.names("/channels"));
        List<String> names = new ArrayList<>();
        for (int c = 0; c < t.columns().length; c++) {
            if (c == clock) {
                continue;
            }
            String name = name(t.names().get(c), "column" + (c + 1), taken);
            String unit = known(t.units().get(c));
            names.add(name);
            sheet = sheet.with(
                    "/channels/" + name,
                    channel(t.names().get(c), unit, rate(t, clock), null, null, converter(t.columns()[c], unit)));
        }
        return captured(sheet, names, "stream");
    }

    /**
     * The sheet with an instrument and its inputs as channels.
     *
     * @param driver how it is spoken to, as in a sheet
     * @param address where it is
     */
    public static Extended with(
            String text, Driver.Description who, String driver, String address, Map<String, String> queries) {
        SheetText sheet = SheetText.of(text);
        Set<String> taken = new java.util.LinkedHashSet<>(sheet.names("/channels"));
        String device = name(
                who.label().isBlank() ? "instrument" : who.label().replaceAll("\\s+\\S*\\d\\S*$", ""),
                "instrument",
                new java.util.LinkedHashSet<>(sheet.names("/devices")));
        Map<String, Object> d = new LinkedHashMap<>();
        d.put("label", who.label().isBlank() ? who.id() : who.label());
        d.put("driver", driver);
        d.put("address", address);
        d.put("queries", queries.isEmpty() ? null : queries);
        sheet = sheet.with("/devices/" + device, d);
        List<String> names = new ArrayList<>();
        boolean gate = driver.equals("gate");
        for (int c = 0; c < who.channels().size(); c++) {
            String own = who.channels().get(c);
            String name = name(own, "input" + (c + 1), taken);
            String said = who.units().get(c);
            String unit = said.equals(Driver.Description.COUNTS) ? "" : known(said);
            Map<String, Object> converter = new LinkedHashMap<>();
            converter.put("kind", "converter");
            converter.put("label", gate ? "gate, 1 while blocked" : "as the instrument sends it");
            converter.put("from", unit);
            if (gate || said.equals(Driver.Description.COUNTS)) {
                converter.put("step", 1);
                converter.put("bits", gate ? 1 : BITS);
                converter.put("coding", gate ? null : "signed");
            } else {
                converter.put("range", List.of(-1e6, 1e6));
                converter.put("bits", BITS);
            }
            names.add(name);
            sheet = sheet.with(
                    "/channels/" + name, channel(own, unit, 10, device, own.equals(name) ? null : own, converter));
        }
        return captured(sheet, names, gate ? "gate" : "stream");
    }

    /** The columns of a table as the channels of the capture that was made from such a table: by their order. */
    static ColumnMapping mapping(Table t, Sheet sheet, String capture) {
        int clock = clock(t);
        Map<String, Integer> values = new LinkedHashMap<>();
        Map<String, String> units = new LinkedHashMap<>();
        int column = 0;
        for (String channel : sheet.capture(capture).channels()) {
            column += column == clock ? 1 : 0;
            values.put(channel, column);
            units.put(channel, known(t.units().get(column)));
            column++;
        }
        String unit = known(t.units().get(clock));
        return new ColumnMapping(clock, unit.isEmpty() ? "s" : unit, values, units, 0);
    }

    private static Extended captured(SheetText sheet, List<String> names, String mode) {
        String capture = CAPTURE;
        for (int i = 2; sheet.has("/captures/" + capture); i++) {
            capture = CAPTURE + "_" + i;
        }
        Map<String, Object> c = new LinkedHashMap<>();
        c.put("label", capture.equals(CAPTURE) ? "Runs" : "Runs " + capture.substring(CAPTURE.length() + 1));
        c.put("mode", mode);
        c.put("channels", names);
        return new Extended(sheet.with("/captures/" + capture, new Block(c)).text(), capture);
    }

    private static List<String> columns(Table t, int clock) {
        List<String> out = new ArrayList<>();
        for (int c = 0; c < t.names().size(); c++) {
            if (c != clock) {
                out.add(plain(t.names().get(c)) + " " + known(t.units().get(c)));
            }
        }
        return out;
    }

    private static List<String> labels(SheetText sheet, String capture) {
        List<String> out = new ArrayList<>();
        for (int i = 0; i < sheet.size("/captures/" + capture + "/channels"); i++) {
            String channel =
                    sheet.value("/captures/" + capture + "/channels/" + i).orElse("");
            out.add(labelOf(sheet, channel) + " "
                    + sheet.value("/channels/" + channel + "/unit").orElse(""));
        }
        return out;
    }

    private static String labelOf(SheetText sheet, String channel) {
        return sheet.value("/channels/" + channel + "/label").orElse(channel);
    }

    private static Map<String, Object> channel(
            String label,
            String unit,
            double rate,
            @Nullable String device,
            @Nullable String input,
            Map<String, Object> converter) {
        Map<String, Object> c = new LinkedHashMap<>();
        c.put("label", plain(label));
        c.put("unit", unit);
        c.put("device", device);
        c.put("input", input);
        c.put("rate", rate);
        c.put("chain", List.of(converter));
        return c;
    }

    /** What showed these numbers: a display with so many decimals where all of them end there, otherwise a fine one. */
    private static Map<String, Object> converter(double[] column, String unit) {
        double[] v = Arrays.stream(column).filter(Double::isFinite).toArray();
        double greatest = Arrays.stream(v).map(Math::abs).max().orElse(1);
        Map<String, Object> converter = new LinkedHashMap<>();
        converter.put("kind", "converter");
        converter.put("label", "as in the file");
        converter.put("from", unit);
        int decimals = decimals(v);
        if (decimals >= 0 && greatest * ROOM * Math.pow(10, decimals) < Math.pow(2, BITS - 1)) {
            converter.put("step", Double.parseDouble("1e-" + decimals));
            converter.put("bits", BITS);
            converter.put("coding", "signed");
        } else {
            double far = Double.parseDouble("1e" + (int) Math.ceil(Math.log10(Math.max(1e-9, greatest) * ROOM)));
            converter.put("range", List.of(-far, far));
            converter.put("bits", BITS);
        }
        return converter;
    }

    /** How many decimals these numbers were written with; -1 where they do not end within the first nine. */
    private static int decimals(double[] v) {
        for (int d = 0; d <= MOST_DECIMALS; d++) {
            double scale = Math.pow(10, d);
            if (Arrays.stream(v).allMatch(x -> Math.abs(x * scale - Math.rint(x * scale)) < 1e-6)) {
                return d;
            }
        }
        return -1;
    }

    private static String id(String title) {
        String id = title.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^[^a-z]+|-+$", "");
        return id.isEmpty()
                ? "found"
                : id.substring(0, Math.min(40, id.length())).replaceAll("-+$", "");
    }

    private static String plain(String words) {
        String said = words.replaceAll("[\"\\\\\\p{Cntrl}]", "'").strip();
        return said.isEmpty() ? "without a name" : said;
    }

    /** A name for formulas, from what a column or an input is called. */
    static String name(String title, String otherwise, Set<String> taken) {
        String plain = Normalizer.normalize(title.replace("\u00df", "ss"), Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "");
        String base = plain.replaceAll("[^A-Za-z0-9]+", "_").replaceAll("^[^A-Za-z]+|_+$", "");
        boolean good = !base.isEmpty() && base.length() <= 30 && !isTaken(base);
        String name = good ? base : otherwise;
        String free = name;
        for (int i = 2; !taken.add(free); i++) {
            free = name + "_" + i;
        }
        return free;
    }

    /** Names that formulas know already: a unit, a constant, a word of the language. */
    private static boolean isTaken(String name) {
        return Set.of("pi", "e", "and", "or", "not", "if", "row_n", "true", "false")
                .contains(name);
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
        double rate = seconds > 0 ? Math.max(1e-4, Math.min(1e6, (time.length - 1) / seconds)) : 1;
        return Double.parseDouble(String.format(Locale.ROOT, "%.6g", rate));
    }
}
