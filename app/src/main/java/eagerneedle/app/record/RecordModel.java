package eagerneedle.app.record;

import eagerneedle.app.station.Desk;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.NotebookLine;
import eagerneedle.store.export.LedgerCsv;
import eagerneedle.store.export.ReductionJson;
import eagerneedle.store.export.RunFiles;
import eagerneedle.store.export.SessionExport;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** The notebook, the note that is being written, and what leaves the program. */
final class RecordModel {
    /** A picture of a note: where its bytes are kept, and what stands under it. */
    record Shelved(int attachment, String words) {}

    private final Desk desk;
    private List<Entries.Picture> pictures = List.of();

    RecordModel(Desk desk) {
        this.desk = desk;
    }

    /** Every act so far, the oldest first. */
    List<NotebookLine> notebook() {
        return desk.bench().file().acts();
    }

    /** The pictures of all notes. */
    List<Shelved> shelf() {
        return desk.bench().session().notes().stream()
                .flatMap(n -> n.pictures().stream()
                        .map(p -> new Shelved(p.attachment(), n.text().isBlank() ? p.name() : n.text())))
                .toList();
    }

    byte[] bytes(Shelved picture) {
        return desk.bench().file().attachment(picture.attachment());
    }

    /** What is to be signed off at the end. */
    List<Sheet.Step> finish() {
        return desk.bench().sheet().finish();
    }

    /** Takes a picture along with the note that is being written. */
    void attach(Entries.Picture picture) {
        List<Entries.Picture> more = new ArrayList<>(pictures);
        more.add(picture);
        pictures = List.copyOf(more);
    }

    /** What goes along with the note that is being written, in words; empty for nothing. */
    String attached() {
        return pictures.isEmpty()
                ? ""
                : pictures.stream().map(Entries.Picture::name).collect(Collectors.joining(", ", "with ", ""));
    }

    /**
     * Writes the note into the notebook with the pictures attached.
     *
     * @throws IllegalArgumentException with one sentence when there is nothing to write
     */
    void write(String note) {
        desk.bench().apply(new RecordCommand.AddNote(desk.bench().clock().instant(), note, pictures));
        pictures = List.of();
    }

    /** What files of this session are called, before their ending. */
    String name() {
        return desk.bench().sheet().id();
    }

    String keptAs() {
        return "Kept as " + FileName.of(desk.bench().file().path()) + ", saved with every act.";
    }

    /** The report, for paper unless the file's ending says otherwise. */
    byte[] report(Path to) {
        return desk.bench().report(!FileName.of(to).toLowerCase(Locale.ROOT).endsWith(".html"));
    }

    byte[] ledger() {
        return LedgerCsv.of(desk.bench().reduction().ledger()).getBytes(StandardCharsets.UTF_8);
    }

    byte[] results() {
        return ReductionJson.of(desk.bench().reduction(), desk.bench().findings())
                .getBytes(StandardCharsets.UTF_8);
    }

    /** Writes every kept run into a folder; what was done, in one sentence. */
    String runs(Path folder) {
        int n = RunFiles.write(desk.bench().reduction(), folder);
        return "Saved " + n + " runs in " + FileName.of(folder) + ".";
    }

    /** Patterns of the file names that {@link #export} knows. */
    List<String> exports() {
        return SessionExport.endings().stream().map(x -> "*" + x).toList();
    }

    void export(Path to) {
        SessionExport.write(desk.bench().reduction(), desk.bench().findings(), to);
    }

    void copy(Path to) {
        desk.bench().file().copyTo(to);
    }
}
