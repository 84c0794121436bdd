package eagerneedle.app.capture;

import eagerneedle.app.capture.PoolModel.Line;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/**
 * Capture for a method that takes its rows from other sessions: which are in, what was taken of each, and which are
 * left out and why. Where the method captures runs of its own as well, they are taken below.
 */
public final class PoolStation implements StationView {
    private final PoolModel model;
    private final VBox all = new VBox(12);
    private final Label summary = Labels.wrapped("");
    private final Label progress = Labels.quiet("");
    private final Button cancel = new Button("Cancel");
    private final VBox box = new VBox(8);
    private final Label none =
            Labels.wrapped("No session is in the pool yet. Take bench files or a whole folder of them,"
                    + " or drop them on the window; each is reduced by its own sheet.");
    private final Rows<Line> rows = Rows.changing(box, Line::name, l -> new Row(), Row::show);
    private final @Nullable CaptureStation below;

    public PoolStation(Desk desk) {
        this.model = new PoolModel(desk);
        this.below = desk.bench().sheet().captures().isEmpty() ? null : new CaptureStation(desk);
        summary.setId("pool-summary");
        progress.setId("pool-progress");
        Button files = new Button("Take sessions...");
        files.setId("take-sessions");
        files.setOnAction(e -> askFiles());
        Labels.explained(files, "Take what this method wants from bench files that are closed");
        Button folder = new Button("Take a folder...");
        folder.setId("take-folder");
        folder.getStyleClass().add("quiet-button");
        folder.setOnAction(e -> askFolder());
        Labels.explained(folder, "Take all bench files of a folder, such as one to which every bench publishes");
        cancel.setId("cancel-taking");
        cancel.getStyleClass().add("quiet-button");
        cancel.setOnAction(e -> model.cancel());
        HBox doing = new HBox(10, files, folder, progress, cancel);
        doing.setAlignment(Pos.CENTER_LEFT);
        ScrollPane scroll = new ScrollPane(new VBox(8, none, box));
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        all.getStyleClass().add("surface");
        all.getChildren().addAll(Labels.heading("Sessions in the pool"), summary, doing, scroll);
        if (below != null) {
            scroll.setMaxHeight(Theme.px(240));
            VBox.setVgrow(below.node(), Priority.ALWAYS);
            all.getChildren().add(below.node());
        }
        model.look(Platform::runLater, this::refresh);
    }

    private void askFiles() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Sessions to take");
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Bench files", "*.needle"));
        List<File> chosen = chooser.showOpenMultipleDialog(all.getScene().getWindow());
        if (chosen != null) {
            take(chosen.stream().map(File::toPath).toList());
        }
    }

    private void askFolder() {
        DirectoryChooser chooser = new DirectoryChooser();
        chooser.setTitle("A folder of sessions to take");
        File chosen = chooser.showDialog(all.getScene().getWindow());
        if (chosen != null) {
            take(List.of(chosen.toPath()));
        }
    }

    /** Takes sessions of files and folders. */
    public void take(List<Path> paths) {
        model.take(paths, Platform::runLater, this::refresh, this::refused);
    }

    private void refused(List<String> sentences) {
        if (!sentences.isEmpty()) {
            Notices.warn(all, String.join(" ", sentences));
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(all.lookup("#take-sessions"));
    }

    @Override
    public void refresh() {
        List<Line> lines = model.lines();
        summary.setText(model.summary());
        rows.show(lines);
        Labels.shown(none, lines.isEmpty());
        Labels.says(progress, model.progress());
        cancel.setVisible(!model.progress().isEmpty());
        if (below != null) {
            below.refresh();
        }
    }

    @Override
    public void tick() {
        if (below != null) {
            below.tick();
        }
    }

    /** One session. */
    private final class Row extends VBox {
        private final Label name = Labels.section("");
        private final Label values = Labels.figure("");
        private final Label about = Labels.wrapped("");
        private final Label remarks = Labels.attention("");
        private final TextField why = new TextField();
        private final Button out = new Button("Leave out");
        private final Button in = new Button("Take in");
        private final Button again = new Button("Take again");
        private @Nullable Line line;

        Row() {
            super(4);
            getStyleClass().add("card");
            about.getStyleClass().add("quiet");
            values.setWrapText(true);
            Region gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            HBox head = new HBox(10, name, gap, again, in, why, out);
            head.setAlignment(Pos.CENTER_LEFT);
            why.setPromptText("why it counts nowhere");
            why.setPrefColumnCount(24);
            why.setMinWidth(Theme.px(190));
            why.setOnAction(e -> leave());
            for (Button b : List.of(out, in, again)) {
                b.getStyleClass().add("quiet-button");
                b.setMinWidth(USE_PREF_SIZE);
            }
            out.setOnAction(e -> leave());
            in.setOnAction(e -> Notices.attempt(this, () -> model.takeIn(line().name())));
            again.setOnAction(e -> model.again(
                    line().name(), Platform::runLater, PoolStation.this::refresh, PoolStation.this::refused));
            Labels.explained(out, "It stays in the file and counts nowhere; say why first");
            Labels.explained(in, "Let it count again");
            Labels.explained(again, "Its file has changed: reduce it anew and take what it says now");
            getChildren().addAll(head, values, about, remarks);
        }

        private Line line() {
            return Objects.requireNonNull(line);
        }

        private void leave() {
            if (Notices.attempt(this, () -> model.leaveOut(line().name(), why.getText()))) {
                why.clear();
            }
        }

        void show(Line now) {
            line = now;
            setId("pool-" + now.name());
            name.setText(now.name());
            values.setText(now.values());
            about.setText(now.counts() ? now.about() : now.about() + " Left out: " + now.reason() + ".");
            Labels.says(remarks, String.join(" ", now.remarks()));
            Labels.styled(values, "quiet", !now.counts());
            Labels.styled(name, "quiet", !now.counts());
            only(out, now.counts());
            only(why, now.counts());
            only(in, !now.counts());
            only(again, now.changed());
            why.setAccessibleText("Why " + now.name() + " is left out");
            out.setAccessibleText("Leave " + now.name() + " out");
            in.setAccessibleText("Take " + now.name() + " in");
        }

        private void only(Node node, boolean shown) {
            Labels.shown(node, shown);
        }
    }
}
