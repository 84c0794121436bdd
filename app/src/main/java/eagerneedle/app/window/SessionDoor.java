package eagerneedle.app.window;

import eagerneedle.app.capture.ImportDialog;
import eagerneedle.app.capture.PoolStation;
import eagerneedle.app.station.Station;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Beginning;
import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.OpenBench;
import eagerneedle.app.workbench.OpenSheet;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.edit.KeptMethod;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.BenchFileException;
import eagerneedle.store.bench.Repaired;
import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Alert;
import javafx.scene.control.ButtonType;
import javafx.scene.control.TextArea;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.StackPane;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/**
 * How sessions come into a window and leave it: opened, begun, repaired, copied; and how files of readings come into a
 * session.
 */
final class SessionDoor implements StartPage.Visitor {
    private final MainWindow window;

    SessionDoor(MainWindow window) {
        this.window = window;
    }

    private Node root() {
        return window.stage().getScene().getRoot();
    }

    void ask() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Open a bench file");
        chooser.getExtensionFilters()
                .addAll(
                        new FileChooser.ExtensionFilter("Bench files", "*.needle"),
                        new FileChooser.ExtensionFilter("All files", "*"));
        File f = chooser.showOpenDialog(window.stage());
        if (f != null) {
            open(f.toPath());
        }
    }

    @Override
    public void walk(Path benchFile) {
        open(benchFile);
        window.guide().begin();
    }

    @Override
    public void open(Path path) {
        if (isOpen(path)) {
            window.go(Station.PLAN);
            return;
        }
        BenchFile opened = null;
        try {
            opened = BenchFile.open(path);
            window.show(new Workbench(opened, window.clock()));
        } catch (BenchFileException e) {
            if (opened != null) {
                opened.close();
            }
            if (e.damaged()) {
                offerRepair(path, String.valueOf(e.getMessage()));
            } else {
                window.say(Fault.said(e), true);
            }
        } catch (RuntimeException e) {
            if (opened != null) {
                opened.close();
            }
            window.say(Fault.said(e), true);
        }
    }

    /** True for the file of the session that is shown already. */
    private boolean isOpen(Path path) {
        try {
            return java.nio.file.Files.exists(path)
                    && java.nio.file.Files.isSameFile(
                            path, window.bench().file().path());
        } catch (IOException e) {
            return false;
        }
    }

    private void offerRepair(Path path, String why) {
        ButtonType repair = new ButtonType("Repair into a new file");
        ButtonType withSheet = new ButtonType("Repair with another sheet...");
        Alert alert = new Alert(Alert.AlertType.NONE, why, repair, withSheet, ButtonType.CANCEL);
        alert.initOwner(window.stage());
        alert.setTitle("This bench file is damaged");
        Optional<ButtonType> answer = alert.showAndWait();
        if (answer.isPresent() && answer.get() == withSheet) {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("The method sheet of the damaged session");
            chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Method sheets", "*.yaml", "*.yml"));
            File sheet = chooser.showOpenDialog(window.stage());
            if (sheet != null) {
                repair(path, sheet.toPath());
            }
        } else if (answer.isPresent() && answer.get() == repair) {
            repair(path, null);
        }
    }

    /**
     * Repairs into a file beside the damaged one and opens that; a sheet of one's own stands in for one that is
     * garbled.
     */
    void repair(Path path, @Nullable Path sheet) {
        Notices.attempt(root(), () -> {
            Path to = path.resolveSibling(FileName.of(path).replaceFirst("(\\.needle)?$", "") + "-repaired.needle");
            Repaired done = BenchFile.repair(path, to, sheet == null ? null : text(sheet));
            open(to);
            window.say(
                    FileName.of(to) + (done.missing().isEmpty() ? " holds all of it." : " holds what could be read."),
                    !done.missing().isEmpty());
            if (!done.missing().isEmpty()) {
                tellMissing(to, done);
            }
        });
    }

    /** What a repair could not bring back, in numbers, one line each. */
    private void tellMissing(Path to, Repaired done) {
        TextArea lines = new TextArea(String.join("\n", done.missing()));
        lines.setId("repair-missing");
        lines.setAccessibleText("What is missing");
        lines.setEditable(false);
        lines.setWrapText(true);
        lines.setPrefSize(640, 300);
        Alert alert = new Alert(Alert.AlertType.NONE, "", ButtonType.CLOSE);
        alert.initOwner(window.stage());
        alert.setTitle("What is missing in " + FileName.of(to));
        StackPane framed = new StackPane(lines);
        framed.setPadding(new Insets(14, 14, 4, 14));
        alert.getDialogPane().setContent(framed);
        alert.show();
    }

    private static String text(Path sheet) {
        try {
            return java.nio.file.Files.readString(sheet);
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(sheet) + " cannot be read as text.", e);
        }
    }

    void saveCopy() {
        Path to = Files.ask(window.stage(), window.bench().sheet().id() + ".needle");
        if (to != null) {
            Notices.attempt(root(), () -> {
                if (isOpen(to)) {
                    throw new IllegalArgumentException(
                            FileName.of(to) + " is the file of this session; choose another name for the copy.");
                }
                Files.written(to, part -> window.bench().file().copyTo(part));
                window.say("Saved " + FileName.of(to) + ".", false);
            });
        }
    }

    void askKeepAsMethod() {
        Path to = Files.ask(window.stage(), window.bench().sheet().id() + ".yaml");
        if (to != null) {
            keepAsMethod(to);
        }
    }

    /** Writes the sheet of the session as a method for further ones; its id is the name of the file. */
    void keepAsMethod(Path to) {
        Notices.attempt(root(), () -> {
            String id = FileName.of(to)
                    .replaceFirst("\\.ya?ml$", "")
                    .toLowerCase(java.util.Locale.ROOT)
                    .replaceAll("[^a-z0-9]+", "-")
                    .replaceAll("^[^a-z]+|-+$", "");
            String subject = window.bench().sheet().subject();
            KeptMethod.Kept kept = KeptMethod.of(
                    window.bench().reduction(),
                    id.isEmpty() ? window.bench().sheet().id() : id,
                    window.bench().sheet().title(),
                    subject.equals(OpenSheet.SUBJECT) ? "Methods of our own" : subject);
            SheetReader.Looked looked = SheetTrial.look(kept.text(), FileName.of(to));
            Files.written(to, part -> java.nio.file.Files.writeString(part, kept.text()));
            String more = String.join(" ", kept.remarks())
                    + looked.problems().stream()
                            .limit(1)
                            .map(p -> " " + p.getMessage())
                            .collect(java.util.stream.Collectors.joining());
            window.say(
                    "Kept as " + FileName.of(to)
                            + (looked.problems().isEmpty()
                                    ? ", a good sheet: begin with it from the start page. "
                                    : "; it wants mending before it is begun with. ")
                            + more.strip(),
                    !more.isBlank());
        });
    }

    @Override
    public void begin(SheetReader.Located sheet, @Nullable Path readings) {
        Notices.attempt(root(), () -> {
            window.show(new Workbench(Home.begin(sheet, window.clock().instant()), window.clock()));
            window.say(
                    "A new session, kept as "
                            + FileName.of(window.bench().file().path()) + ".",
                    false);
            if (readings != null) {
                bring(List.of(readings));
            }
        });
    }

    private Opening opening() {
        return new Opening(
                window.clock(),
                bench -> {
                    window.show(bench);
                    return window;
                },
                window::say);
    }

    @Override
    public void begin(Beginning beginning) {
        opening().begin(beginning);
    }

    /** Adds files or an instrument to the session shown. */
    void add(Beginning beginning) {
        opening().add(window, beginning);
    }

    /** Files may be let fall anywhere on the window. */
    void takesDropsOn(Scene scene) {
        scene.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
        });
        scene.setOnDragDropped(e ->
                drop(e.getDragboard().getFiles().stream().map(f -> f.toPath()).toList()));
    }

    /** What is dropped on the window: sessions for a pool, otherwise files of readings, or a bench file. */
    void drop(List<Path> paths) {
        if (window.bench().sheet().pool().isThere()
                && paths.stream()
                        .allMatch(p -> java.nio.file.Files.isDirectory(p)
                                || FileName.of(p).endsWith(".needle"))) {
            window.go(Station.CAPTURE);
            ((PoolStation) window.view(Station.CAPTURE)).take(paths);
        } else if (OpenBench.isOpen(window.bench()) && paths.stream().allMatch(Beginnings::isData)) {
            add(new Beginning.Files(paths));
        } else {
            bring(paths);
        }
    }

    /** Opens a bench file, or the preview of files of readings for the runs that come next. */
    void bring(List<Path> files) {
        List<Path> benches =
                files.stream().filter(f -> FileName.of(f).endsWith(".needle")).toList();
        if (benches.size() == 1 && files.size() == 1) {
            open(benches.get(0));
            return;
        }
        if (!benches.isEmpty()) {
            window.say(
                    "A bench file is opened alone, and not together with others: drop " + FileName.of(benches.get(0))
                            + " by itself.",
                    true);
            return;
        }
        String[] next = window.bench().schedule().next().orElse(null);
        Sheet sheet = window.bench().sheet();
        if (sheet.captures().isEmpty()) {
            window.say("This sheet captures nothing, so there is nothing to import a file into.", true);
            return;
        }
        String capture = next == null ? sheet.captures().keySet().iterator().next() : next[0];
        String level = next == null
                ? sheet.capture(capture).levels().keySet().iterator().next()
                : next[1];
        new ImportDialog(window, capture, level).show(root(), files);
    }

    @Override
    public Runnable stockroom() {
        return window::showStockroom;
    }

    @Override
    public void say(String sentence) {
        window.say(sentence, true);
    }
}
