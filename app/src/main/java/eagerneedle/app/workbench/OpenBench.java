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

    /** Files as they were read: the runs of each. */
    public record Data(Map<Path, List<Table>> runs) {}

    /**
     * Reads files; it may take a while.
     *
     * @throws IllegalArgumentException with one sentence where one cannot be read, or has nothing over time
     */
    public static Data read(List<Path> dropped) {
        Map<Path, List<Table>> all = new LinkedHashMap<>();
        for (Path p : files(dropped)) {
            List<Table> tables = ForeignFile.runs(p);
            tables.forEach(t -> OpenSheet.with(OpenSheet.empty("look", ""), t, FileName.of(p)));
            all.put(p, tables);
        }
        if (all.isEmpty()) {
            throw new IllegalArgumentException("There is no file in that folder.");
        }
        return new Data(all);
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
