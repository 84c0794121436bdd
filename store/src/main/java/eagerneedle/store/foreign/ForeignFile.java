package eagerneedle.store.foreign;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.store.FileName;
import eagerneedle.store.delimited.DelimitedText;
import eagerneedle.store.delimited.Heading;
import eagerneedle.store.delimited.SeveralRuns;
import eagerneedle.store.delimited.Table;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.UnsupportedAudioFileException;
import org.jspecify.annotations.Nullable;

/**
 * A file from elsewhere as a table: what kind it is shows in its first bytes, not in its name. Every failure is one
 * sentence in an {@link IllegalArgumentException}.
 */
public final class ForeignFile {
    private static final long LARGEST = 2_000_000_000L;

    private ForeignFile() {}

    /** True for a file that is read as delimited text, whose dialect may be put right by hand. */
    public static boolean isText(Path file) {
        byte[] head = head(file);
        return !isWave(head) && !isJson(head);
    }

    private static byte[] head(Path file) {
        try (var in = Files.newInputStream(file)) {
            return in.readNBytes(64);
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read; check its name and folder.", e);
        }
    }

    private static boolean isWave(byte[] head) {
        return head.length >= 12
                && new String(head, 0, 4, StandardCharsets.US_ASCII).equals("RIFF")
                && new String(head, 8, 4, StandardCharsets.US_ASCII).equals("WAVE");
    }

    private static boolean isJson(byte[] head) {
        String s =
                new String(head, StandardCharsets.UTF_8).replace("\uFEFF", "").strip();
        return s.startsWith("{") || s.startsWith("[");
    }

    /** The runs in a file, each a table; see {@link SeveralRuns}. */
    public static List<Table> runs(Path file) {
        return SeveralRuns.of(table(file));
    }

    /** The table in a file, delimited text by its guessed dialect. */
    public static Table table(Path file) {
        String name = FileName.of(file);
        byte[] head = head(file);
        if (isWave(head)) {
            return wave(file);
        }
        if (isJson(head)) {
            return json(name, text(file));
        }
        DelimitedText text = new DelimitedText(name, text(file));
        return text.read(text.guess());
    }

    /** UTF-16 shows by its mark, or by a zero in every second byte; null for none of it. */
    private static @Nullable Charset wide(byte[] head) {
        if (head.length < 4) {
            return null;
        }
        int a = head[0] & 0xFF;
        int b = head[1] & 0xFF;
        if (a == 0xFF && b == 0xFE || a == 0xFE && b == 0xFF) {
            return StandardCharsets.UTF_16;
        }
        int even = 0;
        int odd = 0;
        for (int i = 0; i + 1 < head.length; i += 2) {
            even += head[i] == 0 ? 1 : 0;
            odd += head[i + 1] == 0 ? 1 : 0;
        }
        int pairs = head.length / 2;
        return even == 0 && odd > 0.9 * pairs
                ? StandardCharsets.UTF_16LE
                : odd == 0 && even > 0.9 * pairs ? StandardCharsets.UTF_16BE : null;
    }

    /** The text of a file, in UTF-16 where that shows, in UTF-8 or, failing that, Latin-1. */
    public static String text(Path file) {
        try {
            if (Files.size(file) > LARGEST) {
                throw new IllegalArgumentException(FileName.of(file) + " is larger than 2 GB; split it first.");
            }
            Charset wide = wide(head(file));
            if (wide != null) {
                return Files.readString(file, wide);
            }
            try {
                return Files.readString(file, StandardCharsets.UTF_8);
            } catch (MalformedInputException e) {
                return Files.readString(file, StandardCharsets.ISO_8859_1);
            }
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read; check its name and folder.", e);
        } catch (OutOfMemoryError e) {
            throw new IllegalArgumentException(FileName.of(file) + " is larger than the memory; split it first.", e);
        }
    }

    /**
     * Channels as JSON: {@code {"channels": [{"name", "unit", "time": [...], "values": [...]}], "start": "..."}}, as
     * this program writes it; or {@code {"columns": {"time": [...], "x": [...]}}}; or a list of objects with equal
     * keys.
     */
    static Table json(String file, String text) {
        JsonNode root;
        try {
            root = new ObjectMapper().readTree(text);
        } catch (IOException e) {
            throw new IllegalArgumentException(file + " is not whole JSON; export it again.", e);
        }
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<double[]> columns = new ArrayList<>();
        JsonNode channels = root.path("channels");
        if (channels.isArray() && !channels.isEmpty()) {
            names.add("time");
            units.add("s");
            columns.add(numbers(file, "time", channels.get(0).path("time")));
            for (JsonNode c : channels) {
                double[] time = numbers(file, "time", c.path("time"));
                if (!java.util.Arrays.equals(time, columns.get(0))) {
                    throw new IllegalArgumentException(
                            file + " holds channels with different clocks; bring them in one by one.");
                }
                names.add(c.path("name").asText("column"));
                units.add(c.path("unit").asText(""));
                columns.add(numbers(file, names.get(names.size() - 1), c.path("values")));
            }
        } else if (root.path("columns").isObject()) {
            root.path("columns").properties().forEach(e -> {
                Heading heading = Heading.of(e.getKey());
                String stated = root.path("units").path(e.getKey()).asText("");
                names.add(stated.isEmpty() ? heading.name() : e.getKey());
                units.add(stated.isEmpty() ? heading.unit() : stated);
                columns.add(numbers(file, e.getKey(), e.getValue()));
            });
        } else if (root.isArray() && !root.isEmpty() && root.get(0).isObject()) {
            root.get(0).fieldNames().forEachRemaining(n -> {
                Heading heading = Heading.of(n);
                names.add(heading.name());
                units.add(heading.unit());
                double[] v = new double[root.size()];
                for (int i = 0; i < v.length; i++) {
                    v[i] = number(file, n, root.get(i).path(n));
                }
                columns.add(v);
            });
        } else {
            throw new IllegalArgumentException(file
                    + " holds no channels, no columns and no list of rows; see docs/formats/exchange.md "
                    + "for what is read.");
        }
        int n = columns.get(0).length;
        for (int c = 0; c < columns.size(); c++) {
            if (columns.get(c).length != n) {
                throw new IllegalArgumentException(file + ": the column " + names.get(c) + " holds "
                        + columns.get(c).length + " numbers where " + n + " are expected.");
            }
        }
        Instant start;
        try {
            start = root.has("start") ? Instant.parse(root.path("start").asText()) : null;
        } catch (java.time.format.DateTimeParseException e) {
            start = null;
        }
        return new Table(names, units, columns.toArray(double[][]::new), start == null ? -1 : 0, start, List.of());
    }

    private static double[] numbers(String file, String column, JsonNode list) {
        if (!list.isArray()) {
            throw new IllegalArgumentException(file + ": the column " + column + " is no list of numbers.");
        }
        double[] v = new double[list.size()];
        for (int i = 0; i < v.length; i++) {
            v[i] = number(file, column, list.get(i));
        }
        return v;
    }

    private static double number(String file, String column, JsonNode n) {
        if (n.isNull()) {
            return Double.NaN;
        }
        if (!n.isNumber()) {
            throw new IllegalArgumentException(
                    file + ": '" + n.asText() + "' in the column " + column + " is not a number.");
        }
        if (!Double.isFinite(n.doubleValue())) {
            throw new IllegalArgumentException(
                    file + ": " + n.asText() + " in the column " + column + " is too large to compute with.");
        }
        return n.doubleValue();
    }

    /** A sound file: whole counts of its converter, one column a channel, and the clock of its rate. */
    private static Table wave(Path file) {
        try (AudioInputStream in =
                AudioSystem.getAudioInputStream(new ByteArrayInputStream(Files.readAllBytes(file)))) {
            AudioFormat f = in.getFormat();
            int bytes = f.getSampleSizeInBits() / 8;
            boolean signed = f.getEncoding() == AudioFormat.Encoding.PCM_SIGNED;
            if (!signed && f.getEncoding() != AudioFormat.Encoding.PCM_UNSIGNED || bytes < 1 || bytes > 4) {
                throw new IllegalArgumentException(
                        FileName.of(file) + " holds compressed sound; save it as plain PCM first.");
            }
            byte[] data = in.readAllBytes();
            int channels = f.getChannels();
            int n = data.length / (bytes * channels);
            double[][] columns = new double[channels + 1][n];
            List<String> names = new ArrayList<>(List.of("time"));
            List<String> units = new ArrayList<>(List.of("s"));
            for (int c = 0; c < channels; c++) {
                names.add(
                        channels == 1
                                ? "sound"
                                : channels == 2 ? List.of("left", "right").get(c) : "channel " + (c + 1));
                units.add("counts");
            }
            for (int i = 0; i < n; i++) {
                columns[0][i] = i / (double) f.getSampleRate();
                for (int c = 0; c < channels; c++) {
                    int at = (i * channels + c) * bytes;
                    int v = 0;
                    for (int b = 0; b < bytes; b++) {
                        v |= (data[f.isBigEndian() ? at + bytes - 1 - b : at + b] & 0xFF) << (8 * b);
                    }
                    int spare = 32 - 8 * bytes;
                    columns[c + 1][i] = signed ? v << spare >> spare : v - (1 << (8 * bytes - 1));
                }
            }
            if (n == 0) {
                throw new IllegalArgumentException(FileName.of(file) + " holds no sound.");
            }
            return new Table(
                    names,
                    units,
                    columns,
                    -1,
                    null,
                    List.of(String.format(
                            Locale.ROOT,
                            "%d bit at %.0f samples a second; counts of a converter with both signs.",
                            8 * bytes,
                            f.getSampleRate())));
        } catch (UnsupportedAudioFileException | IOException e) {
            throw new IllegalArgumentException(
                    FileName.of(file) + " is a sound file that cannot be read; save it as plain PCM first.", e);
        }
    }
}
