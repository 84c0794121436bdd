package eagerneedle.store.delimited;

import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How a column tells the time in other ways than a number of seconds. */
public enum Clock {
    /** A plain number. */
    NUMBER("$^"),
    /** 2026-11-23T09:00:00.25, with a blank for the T or a zone behind it. */
    ISO("(\\d{4})-(\\d{1,2})-(\\d{1,2})(?:[T ](\\d{1,2}):(\\d{2})(?::(\\d{2}(?:[.,]\\d+)?))?)?(Z|[+-]\\d{2}:?\\d{2})?"),
    /** 23.11.2026 09:00:00, or with strokes. */
    DAY_FIRST("(\\d{1,2})[./-](\\d{1,2})[./-](\\d{4})(?:[T ]+(\\d{1,2}):(\\d{2})(?::(\\d{2}(?:[.,]\\d+)?))?)?( ?"
            + "[AaPp][Mm])?"),
    /** 11/23/2026 09:00:00 AM. */
    MONTH_FIRST("(\\d{1,2})[./-](\\d{1,2})[./-](\\d{4})(?:[T ]+(\\d{1,2}):(\\d{2})(?::(\\d{2}(?:[.,]\\d+)?))?)?( ?"
            + "[AaPp][Mm])?"),
    /** 09:00:00.25: seconds of a day; after midnight it goes on. */
    TIME_OF_DAY("(\\d{1,2}):(\\d{2}):(\\d{2}(?:[.,]\\d+)?)(?: ?([AaPp][Mm]))?"),
    /** 03:25.5: minutes and seconds. */
    MINUTES("(\\d{1,4}):(\\d{2}(?:[.,]\\d+)?)");

    private static final int DAY = 86_400;
    private final Pattern pattern;

    Clock(String pattern) {
        this.pattern = Pattern.compile(pattern);
    }

    /** True when a cell is a moment written in some way. */
    static boolean isMoment(String cell) {
        return cell.indexOf(':') >= 0 || cell.length() >= 8 && cell.length() <= 40
                ? of(List.of(cell)) != NUMBER
                : false;
    }

    /**
     * The way that fits all cells; a plain number when none does. Where day or month may come first, the day does
     * unless a cell shows otherwise.
     */
    static Clock of(List<String> cells) {
        // Where halves of the day are written, the month comes first.
        boolean halves = cells.stream().anyMatch(s -> s.matches("(?i).*\\d ?[AP]M\\s*"));
        List<Clock> all = halves
                ? List.of(ISO, MONTH_FIRST, DAY_FIRST, TIME_OF_DAY, MINUTES)
                : List.of(ISO, DAY_FIRST, MONTH_FIRST, TIME_OF_DAY, MINUTES);
        for (Clock c : all) {
            if (!cells.isEmpty() && cells.stream().allMatch(s -> c.seconds(s).isPresent())) {
                return c;
            }
        }
        // Where most are moments, it is the others that are wrong.
        for (Clock c : all) {
            if (2 * cells.stream().filter(s -> c.seconds(s).isPresent()).count() > cells.size()) {
                return c;
            }
        }
        return NUMBER;
    }

    /** True when both orders of day and month fit. */
    static boolean ambiguous(List<String> cells) {
        return cells.stream()
                .allMatch(s -> DAY_FIRST.seconds(s).isPresent()
                        && MONTH_FIRST.seconds(s).isPresent());
    }

    boolean hasDate() {
        return this != NUMBER && this != TIME_OF_DAY && this != MINUTES;
    }

    /** Seconds since 1970 of a date as written, or of the day; empty when the cell is no such moment. */
    Optional<Double> seconds(String cell) {
        Matcher m = pattern.matcher(cell.strip());
        if (this == NUMBER || !m.matches()) {
            return Optional.empty();
        }
        if (this == MINUTES) {
            double s = second(m.group(2));
            return s >= 60 ? Optional.empty() : Optional.of(60.0 * Integer.parseInt(m.group(1)) + s);
        }
        if (this == TIME_OF_DAY) {
            double s = second(m.group(3));
            int h = Integer.parseInt(m.group(1));
            int min = Integer.parseInt(m.group(2));
            if (m.group(4) != null) {
                h = h % 12 + (m.group(4).equalsIgnoreCase("PM") ? 12 : 0);
            }
            return h > 24 || min > 59 || s >= 61 ? Optional.empty() : Optional.of(h * 3600.0 + min * 60 + s);
        }
        int a = Integer.parseInt(m.group(1));
        int b = Integer.parseInt(m.group(2));
        int c = Integer.parseInt(m.group(3));
        int hour = m.group(4) == null ? 0 : Integer.parseInt(m.group(4));
        String half = m.group(7);
        if (this != ISO && half != null) {
            hour = hour % 12 + (half.strip().equalsIgnoreCase("PM") ? 12 : 0);
        }
        try {
            LocalDateTime day = switch (this) {
                case ISO -> LocalDateTime.of(a, b, c, hour, m.group(5) == null ? 0 : Integer.parseInt(m.group(5)));
                case DAY_FIRST ->
                    LocalDateTime.of(c, b, a, hour, m.group(5) == null ? 0 : Integer.parseInt(m.group(5)));
                default -> LocalDateTime.of(c, a, b, hour, m.group(5) == null ? 0 : Integer.parseInt(m.group(5)));
            };
            int zone = this == ISO && half != null && !half.equals("Z")
                    ? ZoneOffset.of(half.length() == 5 ? half.substring(0, 3) + ":" + half.substring(3) : half)
                            .getTotalSeconds()
                    : 0;
            return Optional.of(
                    day.toEpochSecond(ZoneOffset.UTC) - zone + (m.group(6) == null ? 0 : second(m.group(6))));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private static double second(String s) {
        return Double.parseDouble(s.replace(',', '.'));
    }

    /** Moments of a day made to rise over midnight: a step back of more than half a day is a new day. */
    static void overMidnight(double[] t) {
        double days = 0;
        double before = t.length == 0 ? 0 : t[0];
        for (int i = 1; i < t.length; i++) {
            if (t[i] - before < -DAY / 2.0) {
                days += DAY;
            }
            before = t[i];
            t[i] += days;
        }
    }
}
