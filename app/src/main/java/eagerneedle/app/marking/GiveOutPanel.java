package eagerneedle.app.marking;

import eagerneedle.app.classroom.ClassSet;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassList;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/** Data of their own for a class, from the sheet of the open session: a list, a folder, a passphrase. */
final class GiveOutPanel extends VBox {
    private final Supplier<String> sheet;
    private final Clock clock;
    private final TextField list = new TextField();
    private final TextField folder = new TextField();
    private final PasswordField passphrase = new PasswordField();
    private final TextField faults = new TextField("0");
    private final Button make = new Button("Give out");
    private final ProgressBar bar = new ProgressBar(0);
    private final Label state = Labels.quiet("");
    private final AtomicBoolean going = new AtomicBoolean();

    /** @param sheet the text of the sheet whose data are given out */
    GiveOutPanel(Supplier<String> sheet, Clock clock) {
        super(8);
        this.sheet = sheet;
        this.clock = clock;
        getStyleClass().add("card");
        list.setId("class-list");
        folder.setId("class-folder");
        passphrase.setId("class-passphrase");
        faults.setId("class-faults");
        make.setId("class-make");
        bar.setVisible(false);
        bar.setMaxWidth(Double.MAX_VALUE);
        state.setWrapText(true);
        state.setId("class-state");
        make.setOnAction(e -> make());
        Labels.explained(make, "Makes a folder with a data set and a form for everybody, and the sealed key");
        getChildren()
                .addAll(
                        Labels.section("Give out"),
                        Labels.wrapped(
                                "Each student, or each group, gets data of their own from this method's rig, and a"
                                        + " form to hand in. What is true of them stays in a key that only the passphrase opens."),
                        new Fields()
                                .with(
                                        "list of students",
                                        list,
                                        new Fields.Choosing(
                                                "Choose...",
                                                () -> Files.askToOpen(this, "list of students", "*.csv", "*.txt")))
                                .with("new folder", folder)
                                .with("passphrase", passphrase)
                                .with("sets with a mistake at the bench", faults),
                        new FlowPane(8, 6, make),
                        bar,
                        state);
    }

    private void make() {
        if (going.get()) {
            going.set(false);
            return;
        }
        Notices.attempt(this, () -> {
            if (list.getText().isBlank() || folder.getText().isBlank()) {
                throw new IllegalArgumentException("Name the list of students and a new folder.");
            }
            if (passphrase.getText().strip().length() < 8) {
                throw new IllegalArgumentException("A passphrase has eight characters or more.");
            }
            int n = number(faults.getText());
            ClassList who = ClassList.read(Path.of(list.getText().strip()));
            SheetReader.Located located = SheetTrial.readOfSession(sheet.get(), "the sheet");
            ClassSet set = ClassSet.fromRig(located, who, null, clock.instant());
            begin(
                    set,
                    Path.of(folder.getText().strip()),
                    passphrase.getText().strip().toCharArray(),
                    n);
        });
    }

    private static int number(String text) {
        try {
            return Integer.parseInt(text.strip());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + text.strip() + "' is not a number of sets.", e);
        }
    }

    private void begin(ClassSet set, Path to, char[] words, int n) {
        going.set(true);
        make.setText("Stop");
        bar.setVisible(true);
        bar.setProgress(0);
        state.setText("");
        CompletableFuture.supplyAsync(() -> {
                    try {
                        return set.make(to, words, n, (done, of) -> {
                            Platform.runLater(() -> bar.setProgress((double) done / of));
                            return going.get();
                        });
                    } catch (IOException e) {
                        throw new UncheckedIOException(FileName.of(to) + " cannot be written there.", e);
                    }
                })
                .whenComplete((made, failed) -> Platform.runLater(() -> {
                    going.set(false);
                    make.setText("Give out");
                    bar.setVisible(false);
                    state.setText(failed == null ? told(made, to) : said(failed));
                }));
    }

    private static String told(ClassFolder made, Path to) {
        int sets = made.list().units().size();
        return sets + (sets == 1 ? " data set" : " data sets") + " in " + FileName.of(to) + "/" + ClassFolder.GIVEN
                + ", with forms to hand in; the sealed key lies beside them.";
    }

    /** The sentence of what went wrong. */
    static String said(Throwable failed) {
        return Fault.said(failed);
    }
}
