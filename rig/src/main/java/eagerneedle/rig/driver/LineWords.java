package eagerneedle.rig.driver;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.rig.driver.Driver.Description;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The words of the line protocol: what an instrument says of itself, and its samples. See docs/formats. */
final class LineWords {
    private LineWords() {}

    /** What an instrument says of itself; {@code checksums} when it offers to end each line with one. */
    record Said(Description description, boolean checksums) {}

    /** A description as it comes: model; serial; channels with their units; more. Null when it is none. */
    static @Nullable Said description(String text) {
        String[] parts = text.split(";");
        if (parts.length < 3) {
            return null;
        }
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        for (String c : parts[2].split(",")) {
            int at = c.indexOf('[');
            names.add(at < 0 ? c : c.substring(0, at));
            units.add(at < 0 ? Description.COUNTS : c.substring(at + 1).replace("]", ""));
        }
        List<String> more = List.of(parts).subList(3, parts.length);
        return new Said(
                new Description(parts[0], parts[1], names, units, more.contains("simulated")),
                more.contains("checksum"));
    }

    /**
     * A sample: its moment in ns on the clock of the instrument, then a number for each channel. Null when it cannot be
     * read.
     */
    static double @Nullable [] row(String line, Description d) {
        String[] fields = line.startsWith(":") ? line.substring(1).split(",") : new String[0];
        if (fields.length != d.channels().size() + 1) {
            return null;
        }
        double[] row = new double[fields.length];
        try {
            row[0] = Math.multiplyExact(Long.parseLong(fields[0].strip()), 1000L);
            for (int i = 1; i < fields.length; i++) {
                row[i] = d.units().get(i - 1).equals(Description.COUNTS)
                        ? Long.parseLong(fields[i].strip())
                        : finite(Double.parseDouble(fields[i].strip()));
            }
            return row;
        } catch (NumberFormatException | ArithmeticException e) {
            return null;
        }
    }

    private static double finite(double v) {
        if (!Double.isFinite(v)) {
            throw new NumberFormatException();
        }
        return v;
    }

    /** What an instrument says of itself that cannot be used; null when all its units are known. */
    static @Nullable String unknownUnit(Description d) {
        for (int i = 0; i < d.units().size(); i++) {
            try {
                if (!d.units().get(i).equals(Description.COUNTS)) {
                    LabUnit.parse(d.units().get(i));
                }
            } catch (UnitException e) {
                return "The instrument sends " + d.channels().get(i) + " in '"
                        + d.units().get(i)
                        + "', which is not a unit known here; set it to another unit, then connect again.";
            }
        }
        return null;
    }

    /** What is sent, in words. */
    static String said(Description d) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < d.channels().size(); i++) {
            parts.add(d.channels().get(i) + " in " + d.units().get(i));
        }
        return String.join(", ", parts);
    }

    /** What the hands do at a simulated bench. */
    static String bench(Map<String, String> hands) {
        StringBuilder line = new StringBuilder("rig");
        hands.forEach((k, v) -> line.append(' ').append(k).append('=').append(v.replace(' ', '_')));
        return line.toString();
    }

    /** @throws IOException with one sentence when the answer to a value set is a refusal */
    static void accepted(String answer, String output, double value) throws IOException {
        if (answer.startsWith("refused")) {
            throw new IOException("The instrument refused " + output + " = " + value + ": "
                    + answer.substring(7).strip() + ".");
        }
    }

    /** That an instrument sends something else than it did. */
    static String changed(Driver.Description before, Driver.Description now) {
        return "The instrument now says it sends " + said(now) + " where it sent " + said(before)
                + "; nothing of that is kept. Set it back, then connect again.";
    }
}
