package eagerneedle.app.settings;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.CoverageBox;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Settings;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.stockroom.Kit;
import eagerneedle.core.stockroom.Site;
import java.io.File;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/** What is set once: how the program looks, to which bench this machine belongs, where sessions are kept. */
public final class SettingsView implements StationView {
    /** Where settings are kept, and what follows them at once. */
    public interface Kept {
        Settings now();

        void look(boolean dark, boolean asSystem);

        void textSize(int percent);

        void numbers(Settings.Numbers how);

        void manner(Settings.Manner how);

        void bench(String name);

        /** @throws IllegalArgumentException with one sentence where nothing can be kept there */
        void folder(String path);
    }

    private static final String BY_SHEET = "as the sheet says";
    private static final String NO_BENCH = "no bench";
    private static final List<String> LOOKS = List.of("light", "dark", "as the desktop");
    private final Kept kept;
    private final ScrollPane scroll = new ScrollPane();
    private final GridPane grid = new GridPane();
    private final TextField folder = new TextField();
    private final ChoiceBox<String> look = OneOf.of("set-look", "Light or dark", LOOKS, s -> s);
    private final ChoiceBox<Integer> size;
    private boolean showing;

    /** @param back leads to the session again */
    public SettingsView(Kept kept, Site site, Runnable back) {
        this.kept = kept;
        List<Integer> sizes = new ArrayList<>();
        for (int p = Theme.SMALLEST; p <= Theme.LARGEST; p += 10) {
            sizes.add(p);
        }
        size = OneOf.of("set-size", "Size of text", sizes, p -> p + " %");
        grid.setHgap(16);
        grid.setVgap(12);
        row("Colours", look, "dark for a darkened room");
        row("Text", size, "Ctrl and + or - anywhere");
        numbers(site);
        manner();
        List<String> benches = new ArrayList<>(List.of(NO_BENCH));
        site.kits().stream().map(Kit::bench).forEach(benches::add);
        ChoiceBox<String> bench = OneOf.of("set-bench", "Bench of this machine", benches, b -> b);
        row(
                "This machine",
                bench,
                site.kits().isEmpty()
                        ? "the laboratory names no benches yet (site.yaml)"
                        : "sessions that begin here have its instruments");
        folder.setId("set-folder");
        folder.setPromptText(Home.folder().toString());
        folder.setAccessibleText("Folder in which new sessions are kept");
        folder.setPrefWidth(Theme.px(360));
        folder.setOnAction(e -> keepFolder());
        Button choose = new Button("Choose...");
        choose.setOnAction(e -> {
            File f = new DirectoryChooser().showDialog(scroll.getScene().getWindow());
            if (f != null) {
                folder.setText(f.toString());
                keepFolder();
            }
        });
        Button keep = new Button("Keep");
        keep.setId("set-folder-keep");
        keep.setOnAction(e -> keepFolder());
        row("New sessions", new HBox(8, folder, choose, keep), "");
        row("The laboratory", Labels.wrapped(Home.siteFolder().toString()), "what it says for all, and its stockroom");
        Button close = new Button("Back");
        close.setId("set-back");
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> back.run());
        VBox all = new VBox(16, Labels.heading("Settings"), grid, close);
        all.setId("settings");
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        look.setOnAction(e -> {
            if (!showing && look.getValue() != null) {
                kept.look("dark".equals(look.getValue()), "as the desktop".equals(look.getValue()));
            }
        });
        size.setOnAction(e -> {
            if (!showing && size.getValue() != null) {
                kept.textSize(size.getValue());
            }
        });
        String own = kept.now().bench();
        bench.setValue(benches.contains(own) ? own : NO_BENCH);
        bench.setOnAction(e -> kept.bench(NO_BENCH.equals(bench.getValue()) ? "" : bench.getValue()));
        folder.setText(kept.now().folder());
        refresh();
    }

    private void numbers(Site site) {
        String here = site.comma() ? "comma" : "point";
        ChoiceBox<String> decimal = OneOf.of(
                "set-decimal",
                "Decimal sign",
                List.of("", "point", "comma"),
                d -> d.isEmpty() ? "as the laboratory: " + here : d);
        Settings.Numbers now = kept.now().numbers();
        decimal.setValue(now.decimal() == null ? "" : now.decimal().name().toLowerCase(Locale.ROOT));
        row("Decimal sign", decimal, "on screen and on paper; files and formulas always have a point");
        ChoiceBox<Double> coverage = CoverageBox.of("set-coverage");
        CoverageBox.show(coverage, now.coverage());
        row("Coverage", coverage, "of stated intervals, in sessions that begin here; Judge changes it in one");
        List<String> schools = new ArrayList<>(List.of(BY_SHEET));
        for (School s : School.values()) {
            schools.add(s.label());
        }
        ChoiceBox<String> school = OneOf.of("set-school", "School of uncertainty", schools, s -> s);
        school.setValue(now.school() == null ? BY_SHEET : now.school().label());
        row("School", school, "in use in sessions that begin here; Judge changes it in one");
        for (ChoiceBox<?> box : List.of(decimal, coverage, school)) {
            box.setOnAction(e -> kept.numbers(new Settings.Numbers(
                    decimal.getValue().isEmpty()
                            ? null
                            : DecimalSign.valueOf(decimal.getValue().toUpperCase(Locale.ROOT)),
                    coverage.getValue(),
                    Arrays.stream(School.values())
                            .filter(s -> s.label().equals(school.getValue()))
                            .findFirst()
                            .orElse(null))));
        }
    }

    private void manner() {
        CheckBox sound = new CheckBox("a tone when a reading is due, and when a run is over");
        sound.setId("set-sound");
        sound.setSelected(kept.now().manner().sound());
        CheckBox still = new CheckBox("nothing moves that need not");
        still.setId("set-still");
        still.setSelected(kept.now().manner().still());
        for (CheckBox box : List.of(sound, still)) {
            box.setOnAction(e -> kept.manner(new Settings.Manner(sound.isSelected(), still.isSelected())));
        }
        row("Sound", sound, "");
        row("Motion", still, "the needle of the dial goes to its place at once");
    }

    private void row(String words, Node control, String says) {
        int n = grid.getRowCount();
        Label label = Labels.quiet(words);
        label.setMinWidth(Label.USE_PREF_SIZE);
        HBox both = new HBox(12, control, Labels.quiet(says));
        both.setAlignment(Pos.CENTER_LEFT);
        grid.add(label, 0, n);
        grid.add(both, 1, n);
    }

    private void keepFolder() {
        if (Notices.attempt(scroll, () -> kept.folder(folder.getText()))) {
            Notices.tell(
                    scroll,
                    folder.getText().isBlank()
                            ? "New sessions are kept in the usual place."
                            : "New sessions are kept in " + folder.getText().strip() + ".");
        }
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(look);
    }

    @Override
    public void refresh() {
        showing = true;
        Settings s = kept.now();
        look.setValue(s.asSystem() ? "as the desktop" : Theme.isDark() ? "dark" : "light");
        size.setValue(Theme.textSize());
        showing = false;
    }

    @Override
    public void tick() {
        // Nothing moves by itself.
    }
}
