package eagerneedle.app.benches;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.BesideOrBelow;
import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.benches.Benches;
import eagerneedle.picture.BenchesPicture;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import org.jspecify.annotations.Nullable;

/** All benches of one method on one picture, read again as they publish. */
public final class BenchesView implements StationView {
    private static final long AGAIN_NS = 4_000_000_000L;

    private final BenchesModel model = new BenchesModel();
    private final Supplier<BenchFile> own;
    private final BorderPane all = new BorderPane();
    private final TextField folder = new TextField();
    private final Button read = new Button("Read");
    private final ProgressBar bar = new ProgressBar(0);
    private final Label state = Labels.wrapped("");
    private final ChoiceBox<BenchesModel.Result> result =
            OneOf.of("benches-result", "Result that is held together", List.of(), BenchesModel.Result::label);
    private final PictureView picture = new PictureView("All benches on one scale", null);
    private final VBox says = new VBox(8);
    private final Rows<String> lines = new Rows<>(says, BenchesView::line);
    private final VBox counted = new VBox(4);
    private final Rows<String> counts = Rows.changing(
            counted, Function.identity(), this::counting, (box, name) -> box.setSelected(model.counts(name)));
    private final AtomicBoolean going = new AtomicBoolean();
    private final BesideOrBelow body;
    private @Nullable Together shown;
    private long next = Long.MAX_VALUE;
    private String seen = "";

    /**
     * The benches beside a session.
     *
     * @param own the session's bench file, which can be published into the folder
     * @param back leads to the session again
     */
    public BenchesView(Supplier<BenchFile> own, Runnable back) {
        this.own = own;
        all.getStyleClass().add("surface");
        all.setId("benches");
        folder.setId("benches-folder");
        folder.setPromptText("folder into which the benches publish");
        folder.setAccessibleText("Folder into which the benches publish");
        folder.setOnAction(e -> read());
        HBox.setHgrow(folder, Priority.ALWAYS);
        Button choose = new Button("Choose...");
        choose.setOnAction(e -> choose());
        read.setId("benches-read");
        read.getStyleClass().add("default-act");
        read.setOnAction(e -> read());
        Button publish = new Button("Publish this session");
        publish.setId("benches-publish");
        publish.setOnAction(e -> publish());
        Labels.explained(publish, "Writes a closed copy of the session at this window into the folder, whole at once");
        Button copy = new Button("Copy table");
        copy.setId("benches-copy");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copy());
        Button png = new Button("Picture...");
        png.getStyleClass().add("quiet-button");
        png.setOnAction(e -> Files.savePng(picture, "benches"));
        Button close = new Button("Back");
        close.setId("benches-back");
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> back.run());
        for (Button b : List.of(choose, read, publish, copy, png, close)) {
            b.setMinWidth(Region.USE_PREF_SIZE);
        }
        result.setPrefWidth(Theme.px(340));
        HBox line = new HBox(8, folder, choose, read, publish);
        FlowPane acts = new FlowPane(8, 6, Labels.quiet("result"), result, copy, png, close);
        acts.setRowValignment(javafx.geometry.VPos.CENTER);
        Labels.shown(bar, false);
        bar.setMaxWidth(Double.MAX_VALUE);
        state.setId("benches-state");
        VBox top = new VBox(8, Labels.heading("All benches"), line, bar, state, acts);
        top.setPadding(new Insets(0, 0, 10, 0));
        says.setId("benches-says");
        counted.setId("benches-counted");
        VBox beside = new VBox(12, says, Labels.section("Benches that count"), counted);
        beside.setPrefWidth(Theme.px(330));
        picture.setPrefWidth(Theme.px(640));
        body = new BesideOrBelow(picture, beside);
        ScrollPane scroll = new ScrollPane(body);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        body.setVisible(false);
        result.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> hold());
        all.setTop(top);
        all.setCenter(scroll);
        all.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        all.setOnDragDropped(e -> {
            dropped(e.getDragboard().getFiles().get(0).toPath());
            e.consume();
        });
        state.setText("Every bench publishes a closed copy of its session into a folder; here they are held together.");
    }

    /** A folder of benches, or one of them, is dropped here. */
    public void dropped(Path p) {
        Path of = java.nio.file.Files.isDirectory(p) ? p : FileName.folder(p);
        folder.setText(of.toString());
        read(of);
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(folder);
    }

    @Override
    public void refresh() {
        // What the session does changes nothing here.
    }

    /** Looks now and then whether a bench has published anew. */
    @Override
    public void tick() {
        Path of = model.where();
        if (of != null && System.nanoTime() > next && !going.get()) {
            next = System.nanoTime() + AGAIN_NS;
            if (!seen.equals(listed(of))) {
                read(of);
            }
        }
    }

    private static String listed(Path of) {
        File[] files = of.toFile().listFiles((dir, name) -> name.endsWith(".needle"));
        return files == null
                ? ""
                : java.util.Arrays.stream(files)
                        .map(f -> f.getName() + f.lastModified() + " " + f.length())
                        .sorted()
                        .collect(Collectors.joining("|"));
    }

    private void choose() {
        File f = new DirectoryChooser().showDialog(all.getScene().getWindow());
        if (f != null) {
            dropped(f.toPath());
        }
    }

    private void read() {
        if (going.get()) {
            going.set(false);
        } else if (folder.getText().isBlank()) {
            Notices.warn(all, "Name the folder into which the benches publish, or drop it here.");
        } else {
            read(Path.of(folder.getText().strip()));
        }
    }

    /** Reads a folder; nothing is in the way meanwhile. */
    public CompletableFuture<?> read(Path of) {
        if (!going.compareAndSet(false, true)) {
            return CompletableFuture.completedFuture(null);
        }
        folder.setText(of.toString());
        read.setText("Stop");
        busy(true);
        String now = listed(of);
        return CompletableFuture.runAsync(() -> model.read(of, (done, n) -> {
                    Platform.runLater(() -> bar.setProgress((double) done / n));
                    return going.get();
                }))
                .whenComplete((none, failed) -> Platform.runLater(() -> {
                    going.set(false);
                    read.setText("Read");
                    busy(false);
                    seen = now;
                    next = System.nanoTime() + AGAIN_NS;
                    if (failed == null) {
                        show();
                    } else {
                        state.setText(Fault.said(failed));
                    }
                }));
    }

    private void busy(boolean on) {
        bar.setProgress(0);
        Labels.shown(bar, on);
    }

    private void show() {
        List<String> names = model.names();
        List<String> problems = model.problems();
        state.setText(model.title() + ": " + names.size() + (names.size() == 1 ? " bench." : " benches.")
                + (problems.isEmpty() ? "" : " " + String.join(" ", problems)));
        counts.show(names);
        BenchesModel.Result before = result.getValue();
        List<BenchesModel.Result> results = model.results();
        if (!results.equals(result.getItems())) {
            result.getItems().setAll(results);
        }
        if (before != null && results.contains(before)) {
            result.getSelectionModel().select(before);
        } else {
            result.getSelectionModel().selectFirst();
        }
        hold();
    }

    private CheckBox counting(String name) {
        CheckBox box = new CheckBox(name);
        box.setOnAction(e -> {
            model.count(name, box.isSelected());
            hold();
        });
        return box;
    }

    /** Holds together what counts. */
    private void hold() {
        BenchesModel.Result of = result.getValue();
        body.setVisible(of != null);
        if (of == null) {
            return;
        }
        try {
            Together t = model.together(of.name());
            shown = t;
            Benches rest = t.rest();
            double height = Theme.px(BenchesPicture.height(t.all().rows().size()));
            picture.setMinHeight(height);
            picture.setPrefHeight(height);
            picture.show(
                    (s, w, h) -> BenchesPicture.paint(s, t.all(), rest == null ? t.all() : rest, t.label(), w, null));
            lines.show(t.says());
        } catch (IllegalArgumentException e) {
            shown = null;
            picture.show((s, w, h) -> {});
            lines.show(List.of(Fault.said(e)));
        }
    }

    private static Label line(String sentence) {
        Label l = Labels.wrapped(sentence);
        Labels.styled(l, "attention", l.getText().contains(" stands apart: "));
        return l;
    }

    private void copy() {
        Together t = shown;
        if (t != null) {
            Copied.table(BenchesModel.table(t).stream()
                    .map(cells -> String.join("\t", cells))
                    .collect(Collectors.joining("\n")));
            Notices.tell(all, "The table of " + t.label() + " is on the clipboard.");
        }
    }

    /** Publishes the session at this window. */
    private void publish() {
        if (folder.getText().isBlank()) {
            Notices.warn(all, "Name the folder into which this session is to be published.");
            return;
        }
        Path of = Path.of(folder.getText().strip());
        Notices.attempt(all, () -> {
            BenchFile file = own.get();
            Path to = of.resolve(FileName.of(file.path()));
            if (to.toAbsolutePath()
                    .normalize()
                    .equals(file.path().toAbsolutePath().normalize())) {
                throw new IllegalArgumentException("This session lies in that folder itself; choose another one.");
            }
            Files.written(to, file::copyTo);
            Notices.tell(all, FileName.of(to) + " is published.");
            read(of);
        });
    }

    /** Lets go of the copies. */
    @Override
    public void left() {
        going.set(false);
        model.close();
    }
}
