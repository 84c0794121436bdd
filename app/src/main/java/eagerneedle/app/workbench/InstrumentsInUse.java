package eagerneedle.app.workbench;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.BenchFileException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Which instruments of the stockroom a session works with, and in which sessions each was used. */
public final class InstrumentsInUse {
    private static final Pattern WORD = Pattern.compile("[^A-Za-z0-9._-]+");

    /**
     * A session in which an instrument was used.
     *
     * @param runs how many are kept in it
     * @param last when the last of them was taken, or the session begun where there is none
     */
    public record Use(Path file, String title, int runs, Instant last) {}

    private InstrumentsInUse() {}

    /**
     * The serials of instruments in chains, of those that inputs are read with, and those that the words of the sheet
     * name.
     *
     * @param known the serials of the stockroom; what is no serial there counts only where a chain or an input says so
     */
    public static Set<String> serials(Session session, Sheet sheet, Set<String> known) {
        Set<String> out = new LinkedHashSet<>();
        for (String name : sheet.channels().keySet()) {
            session.channel(sheet, name).chain().stream()
                    .filter(l -> l.instrument() != null)
                    .forEach(l -> out.add(l.instrument()));
        }
        sheet.devices().values().forEach(d -> words(session.bench().named(d.label()), known, out));
        sheet.inputs().forEach((name, input) -> {
            Instrument tied = session.tied().get(name);
            if (tied != null) {
                out.add(tied.id());
            } else if (input.by() != null) {
                words(session.bench().named(input.by()), known, out);
            }
        });
        return out;
    }

    private static void words(String text, Set<String> known, Set<String> into) {
        WORD.splitAsStream(text).filter(known::contains).forEach(into::add);
    }

    /**
     * Looks through bench files, without touching them, for the instruments used in each; what cannot be read is passed
     * over.
     *
     * @return the uses of each serial, in the order of the files
     */
    public static Map<String, List<Use>> among(List<Path> files, Set<String> known) {
        Map<String, List<Use>> out = new LinkedHashMap<>();
        for (Path file : files) {
            try {
                Session session = BenchFile.glance(file);
                Use use = new Use(
                        file,
                        session.title(),
                        session.keptRuns().size(),
                        session.keptRuns().stream()
                                .map(Run::started)
                                .filter(Objects::nonNull)
                                .max(Comparator.naturalOrder())
                                .orElse(session.created()));
                serials(
                                session,
                                SheetReader.read(session.sheetText(), file.toString())
                                        .sheet(),
                                known)
                        .forEach(id ->
                                out.computeIfAbsent(id, k -> new ArrayList<>()).add(use));
            } catch (BenchFileException | SheetException e) {
                // A file that is gone, damaged or half-written at the moment names no instrument.
            }
        }
        return out;
    }

    /** The bench files that the program keeps itself, and others that it knows of, each once. */
    public static List<Path> files(List<Path> others) {
        Set<Path> out = new LinkedHashSet<>();
        others.forEach(p -> out.add(p.toAbsolutePath().normalize()));
        for (Path folder : new LinkedHashSet<>(List.of(Home.folder(), Home.sessions()))) {
            try (Stream<Path> kept = Files.list(folder)) {
                kept.filter(p -> p.getFileName().toString().endsWith(".needle"))
                        .sorted()
                        .forEach(p -> out.add(p.toAbsolutePath().normalize()));
            } catch (IOException e) {
                // No folder of its own yet.
            }
        }
        return List.copyOf(out);
    }
}
