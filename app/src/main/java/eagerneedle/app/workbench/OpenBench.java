package eagerneedle.app.workbench;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.store.FileName;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.foreign.ForeignFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** Sessions that begin without a method: with files, an instrument or a question. */
public final class OpenBench {
    private static final int MOST_FILES = 500;

    private OpenBench() {}

    /** The text of a sheet that has nothing but a name and a question. */
    public static Session begun(String title, String question, Instant now) {
        return Session.start(OpenSheet.empty(title, question), title, now);
    }

    /** The id of a session's sheet. */
    public static String id(Session session) {
        return eagerneedle.core.edit.SheetText.of(session.sheetText())
                .value("/id")
                .orElse("session");
    }

    /** What a session of such files is called: the file, or the folder they lie in. */
    public static String title(List<Path> data) {
        Path first = data.get(0);
        Path named = data.size() == 1 || Files.isDirectory(first) ? first : FileName.folder(first);
        String name = FileName.of(named).replaceFirst("\\.[^.]*$", "");
        return name.isBlank() ? "Records" : name;
    }

    /** Files, and what lies in folders, in the order of their names. */
    public static List<Path> files(List<Path> dropped) {
        List<Path> out = new ArrayList<>();
        for (Path p : dropped) {
            if (!Files.isDirectory(p)) {
                out.add(p);
                continue;
            }
            try (Stream<Path> inside = Files.list(p)) {
                inside.filter(Files::isRegularFile)
                        .filter(f -> !FileName.of(f).startsWith("."))
                        .sorted()
                        .limit(MOST_FILES)
                        .forEach(out::add);
            } catch (IOException e) {
                throw new IllegalArgumentException("The folder " + FileName.of(p) + " cannot be read.", e);
            }
        }
        return out;
    }

    /**
     * Files as they were read.
     *
     * @param runs of each file
     * @param passedOver names of files in folders that hold no records
     */
    public record Data(Map<Path, List<Table>> runs, List<String> passedOver) {
        /** What there is to say of files that were passed over; empty for none. */
        public String says() {
            return passedOver.isEmpty()
                    ? ""
                    : " Passed over, since nothing over time stands in them: " + String.join(", ", passedOver) + ".";
        }
    }

    /**
     * Reads files, and what lies in folders; it may take a while. In a folder, what holds no records is passed over.
     *
     * @throws IllegalArgumentException with one sentence where a file cannot be read, or has nothing over time
     */
    public static Data read(List<Path> dropped) {
        Map<Path, List<Table>> all = new LinkedHashMap<>();
        List<String> passedOver = new ArrayList<>();
        for (Path p : dropped) {
            boolean folder = Files.isDirectory(p);
            for (Path f : files(List.of(p))) {
                try {
                    List<Table> tables = ForeignFile.runs(f);
                    tables.forEach(t -> OpenSheet.with(OpenSheet.empty("look", ""), t, FileName.of(f)));
                    all.put(f, tables);
                } catch (RuntimeException e) {
                    if (!folder) {
                        throw e;
                    }
                    passedOver.add(FileName.of(f));
                }
            }
        }
        if (all.isEmpty()) {
            throw new IllegalArgumentException("There is no file with records in that folder.");
        }
        return new Data(all, passedOver);
    }

    /**
     * Brings what was read into the session; columns that no capture of its sheet has become channels of it.
     *
     * @return what was said of each run
     */
    public static List<String> bring(Workbench bench, Data data) {
        String text = bench.session().sheetText();
        for (Map.Entry<Path, List<Table>> e : data.runs().entrySet()) {
            for (Table t : e.getValue()) {
                text = OpenSheet.with(text, t, FileName.of(e.getKey())).text();
            }
        }
        List<Path> names = List.copyOf(data.runs().keySet());
        if (!text.equals(bench.session().sheetText())) {
            bench.apply(new SheetCommand.Write(
                    text,
                    "Took what stands in "
                            + (names.size() == 1 ? FileName.of(names.get(0)) : names.size() + " files")
                            + " as channels."));
        }
        List<String> said = new ArrayList<>();
        data.runs().forEach((p, tables) -> tables.forEach(t -> said.add(brought(bench, t, FileName.of(p)))));
        return said;
    }

    /** True for a session that was begun without a method and is still called so. */
    public static boolean isOpen(Workbench bench) {
        return OpenSheet.SUBJECT.equals(bench.sheet().subject());
    }

    private static String brought(Workbench bench, Table t, String file) {
        String capture = OpenSheet.with(bench.session().sheetText(), t, file).capture();
        ColumnMapping mapping = OpenSheet.mapping(t, bench.sheet(), capture);
        Run run = mapping.bring(bench, t, file, capture, OpenSheet.LEVEL);
        return run.name() + " from " + file + ": " + t.rows() + " rows."
                + (t.remarks().isEmpty() ? "" : " " + String.join(" ", t.remarks()));
    }
}
