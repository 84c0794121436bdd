package eagerneedle.rig.driver;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Driver for a file that another program writes, row after row: the first column is the time in seconds, the others are
 * channels, named with their units in a header row. A row counts once its line has ended, so that half a line is waited
 * for. A file that is written anew is read from its start; one that goes away is waited for.
 */
public final class FileDriver extends Sampler {
    private static final int LOOK_MS = 100;
    private static final int SILENT_AFTER_MS = 5000;
    private static final Pattern NAMED = Pattern.compile("(.*?)\\s*[\\[(](.*)[\\])]\\s*");

    private final Path file;
    private final BlockBuilder batch = new BlockBuilder();
    private @Nullable Description description;
    private char separator = ',';
    private LabUnit clock = LabUnit.SECOND;
    private LabUnit newClock = LabUnit.SECOND;

    public FileDriver(Path file) {
        this.file = file;
    }

    /** It is looked into the file only now and then. */
    @Override
    public double longestWay() {
        return 2 * LOOK_MS / 1000.0;
    }

    @Override
    public Description open() throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException("There is no file " + file.getFileName()
                    + " yet; start the program that writes it, or check its name.");
        }
        String header;
        try (var lines = Files.lines(file, StandardCharsets.ISO_8859_1)) {
            header = Conversation.text(lines.map(String::strip)
                    .filter(l -> !l.isEmpty() && !l.startsWith("#"))
                    .findFirst()
                    .orElse(""));
        } catch (java.io.UncheckedIOException e) {
            throw new IOException("The file " + file.getFileName() + " cannot be read.", e);
        }
        separator = header.indexOf('\t') >= 0 ? '\t' : header.indexOf(';') >= 0 ? ';' : ',';
        description = described(header);
        clock = newClock;
        state = State.READY;
        return description;
    }

    private Description described(String header) throws IOException {
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        String[] cells = header.split(Pattern.quote(String.valueOf(separator)));
        boolean numbers = isNumber(cells[0]);
        LabUnit time = numbers ? LabUnit.SECOND : clockOf(cells[0]);
        newClock = time;
        for (int i = 1; i < cells.length; i++) {
            Matcher m = NAMED.matcher(cells[i].strip());
            boolean named = !numbers && m.matches();
            names.add(numbers ? "column " + (i + 1) : named ? m.group(1) : cells[i].strip());
            units.add(named ? known(cells[i], m.group(2).strip()) : "");
        }
        if (names.isEmpty()) {
            throw new IOException("The file " + name() + " does not have a time and at least one more column.");
        }
        return new Description(name(), "file " + name(), names, units, false);
    }

    private String name() {
        Path last = file.getFileName();
        return last == null ? file.toString() : last.toString();
    }

    /** The unit that a heading states of the clock; s where it states none. */
    private LabUnit clockOf(String heading) throws IOException {
        Matcher m = NAMED.matcher(heading.strip());
        LabUnit unit = m.matches() ? LabUnit.parse(known(heading, m.group(2).strip())) : LabUnit.SECOND;
        if (!unit.fits(LabUnit.SECOND)) {
            throw new IOException("The first column of " + file.getFileName() + " is its clock; '" + heading.strip()
                    + "' is no time.");
        }
        return unit;
    }

    private String known(String heading, String unit) throws IOException {
        try {
            LabUnit.parse(unit);
            return unit;
        } catch (UnitException e) {
            throw new IOException(
                    "The column '" + heading.strip() + "' of " + file.getFileName()
                            + " states a unit that is not known here; let the other program write it in another.",
                    e);
        }
    }

    private boolean isNumber(String cell) {
        try {
            parse(cell);
            return true;
        } catch (NumberFormatException e) {
            return false;
        }
    }

    private double parse(String cell) {
        String c = cell.strip();
        double v = Double.parseDouble(separator == ';' ? c.replace(',', '.') : c);
        if (!Double.isFinite(v)) {
            throw new NumberFormatException(c);
        }
        return v;
    }

    @Override
    public void configure(double rate) {
        // The other program decides.
    }

    /** Starts at the end of what the file holds now. */
    @Override
    public void start(Sink newSink) throws IOException {
        stop();
        unreadable = 0;
        batch.restart();
        sink = newSink;
        state = State.RUNNING;
        long from = Files.exists(file) ? Files.size(file) : 0;
        work("file driver " + file.getFileName(), () -> watch(newSink, from));
    }

    private void watch(Sink to, long from) {
        long position = from;
        StringBuilder half = new StringBuilder();
        long heard = now();
        while (sink == to) {
            try (RandomAccessFile f = new RandomAccessFile(file.toFile(), "r")) {
                if (state == State.LOST) {
                    tell(State.RUNNING, "The file is back.");
                    heard = now();
                }
                if (f.length() < position) {
                    position = 0;
                    half.setLength(0);
                }
                byte[] bytes = new byte[(int) Math.min(1 << 20, f.length() - position)];
                f.seek(position);
                f.readFully(bytes);
                position += bytes.length;
                if (bytes.length > 0) {
                    take(new String(bytes, StandardCharsets.ISO_8859_1), half);
                    if (!batch.isEmpty()) {
                        heard = now();
                        if (state == State.SILENT) {
                            tell(State.RUNNING, "The file grows again.");
                        }
                        to.block(batch.take());
                    }
                } else if (state == State.RUNNING && now() - heard > SILENT_AFTER_MS * 1_000_000L) {
                    tell(
                            State.SILENT,
                            "The file does not grow any more; what came is kept. See whether the other program "
                                    + "still runs.");
                }
                if (bytes.length == 1 << 20) {
                    continue;
                }
            } catch (IOException e) {
                if (state != State.LOST && sink == to) {
                    tell(State.LOST, "The file is gone; what came is kept. It is being waited for.");
                }
            }
            try {
                Thread.sleep(LOOK_MS);
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private void take(String text, StringBuilder half) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != '\n') {
                half.append(c);
                continue;
            }
            String line = Conversation.text(half.toString().strip());
            half.setLength(0);
            if (!line.isEmpty() && !line.startsWith("#")) {
                row(line);
            }
        }
    }

    private Description description() {
        return Objects.requireNonNull(description);
    }

    private void row(String line) {
        String[] cells = line.split(Pattern.quote(String.valueOf(separator)));
        double[] row = new double[cells.length];
        try {
            if (cells.length != description().channels().size() + 1) {
                throw new NumberFormatException();
            }
            for (int i = 0; i < cells.length; i++) {
                row[i] = parse(cells[i]);
            }
            row[0] = clock.convert(row[0], LabUnit.SECOND);
        } catch (NumberFormatException e) {
            header(line);
            return;
        }
        if (state == State.REFUSED || !batch.add(row)) {
            unreadable++;
        }
    }

    /**
     * A row that is no numbers: the header again, perhaps with other units; anything else is passed over and counted.
     */
    private void header(String line) {
        try {
            Description again = described(line);
            if (again.channels().equals(description().channels())) {
                boolean same = again.units().equals(description().units()) && newClock.equals(clock);
                if (!same && sink != null) {
                    tell(
                            State.REFUSED,
                            "The file goes on in other units ("
                                    + String.join(", ", again.units()).toLowerCase(Locale.ROOT) + " for "
                                    + String.join(", ", description().units())
                                    + "); nothing of that is kept. Connect again to take the new units.");
                } else if (sink != null && state == State.REFUSED) {
                    tell(State.RUNNING, "The file goes on in the units of before.");
                }
                return;
            }
        } catch (IOException e) {
            // Not a header either.
        }
        unreadable++;
    }

    @Override
    public void stop() {
        endWork();
        state = state == State.CLOSED ? state : State.READY;
    }
}
