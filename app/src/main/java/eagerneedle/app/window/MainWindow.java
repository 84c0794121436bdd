package eagerneedle.app.window;

import eagerneedle.app.calibrate.CalibrateStation;
import eagerneedle.app.capture.CaptureStation;
import eagerneedle.app.judge.JudgeStation;
import eagerneedle.app.plan.PlanStation;
import eagerneedle.app.record.RecordStation;
import eagerneedle.app.reduce.ReduceStation;
import eagerneedle.app.rig.RigStation;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.Progress;
import eagerneedle.app.station.Station;
import eagerneedle.app.station.StationView;
import eagerneedle.app.stockroom.StockroomView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Path;
import java.time.Clock;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/** The window: dial on top, the station's surface, the ledger at the right, the watch strip below. */
public final class MainWindow implements Desk {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM uuuu")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Stage stage;
    private final Clock clock;
    private final double pace;
    private final BorderPane root = new BorderPane();
    private final Label title = new Label();
    private final Label place = Labels.quiet("");
    private final Button undo = new Button("Undo");
    private final Button redo = new Button("Redo");
    private final StackPane surface = new StackPane();
    private final LedgerPane ledger = new LedgerPane();
    private final WatchStrip strip = new WatchStrip(id -> showRun(id));
    private final CourseDial dial = new CourseDial(this::go);
    private final Projector projector = new Projector();
    private final Finder finder = new Finder(() -> new Findables(this).all());
    private Recent recent = Recent.forNow();
    private final Map<Station, StationView> views = new EnumMap<>(Station.class);
    private Workbench bench;
    private final TrialBanner trial = new TrialBanner(() -> bench);
    private final TroubleBanner trouble;
    private final SessionDoor door = new SessionDoor(this);
    private final List<MenuAct> acts = acts();
    private LiveRig rig;
    private Run run;
    private final Stockroom stockroom;
    private StationView beside;
    private long lastFrame;
    private final AnimationTimer frames = new AnimationTimer() {
        @Override
        public void handle(long now) {
            if (now - lastFrame > 30_000_000L) {
                lastFrame = now;
                tick();
            }
        }
    };

    /** With the demonstration stockroom. */
    public MainWindow(Stage stage, Workbench bench, Clock clock, double pace) {
        this(stage, bench, clock, pace, Stockroom.demonstration());
    }

    /**
     * A window on a session.
     *
     * @param pace how fast simulated rigs run; 1 for real time
     * @param stockroom the instruments of the laboratory
     */
    public MainWindow(Stage stage, Workbench bench, Clock clock, double pace, Stockroom stockroom) {
        this.stage = stage;
        this.stockroom = stockroom;
        this.clock = clock;
        this.trouble = new TroubleBanner(() -> this.bench, clock);
        this.pace = pace;
        title.setMinWidth(0);
        place.setMinWidth(0);
        VBox names = new VBox(1, Labels.styled("Eager Needle", "program"), title, place);
        names.setPrefWidth(330);
        names.setMinWidth(200);
        names.setMaxWidth(330);
        names.setPadding(new Insets(14, 0, 0, 20));
        HBox header = new HBox(8, names, dial, tools());
        HBox.setHgrow(dial, Priority.ALWAYS);
        header.getStyleClass().add("header");
        strip.answeredBy(new WatchAnswers(() -> bench, strip));
        VBox middle = new VBox(trouble, trial, surface);
        VBox.setVgrow(surface, Priority.ALWAYS);
        BorderPane inner = new BorderPane(middle, header, ledger, strip, null);
        root.setCenter(new StackPane(inner, projector, finder));
        Scene scene = new Scene(root, 1280, 800);
        Theme.dress(scene, Theme.isDark());
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        scene.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
        });
        scene.setOnDragDropped(
                e -> e.getDragboard().getFiles().stream().findFirst().ifPresent(f -> bring(f.toPath())));
        stage.setScene(scene);
        stage.setOnShown(e -> go(dial.current()));
        stage.setMinWidth(1000);
        stage.setMinHeight(660);
        stage.setOnHidden(e -> close());
        show(bench);
        frames.start();
    }

    /** Everything the window does on request, in the order of the menu. */
    private List<MenuAct> acts() {
        return List.of(
                MenuAct.of("Start page", "Shortcut+H", this::showStart),
                MenuAct.of(
                        "New session of this method",
                        "Shortcut+N",
                        () -> begin(
                                SheetReader.read(
                                        bench.session().sheetText(),
                                        bench.sheet().id()),
                                null)),
                MenuAct.of("Open a bench file...", "Shortcut+O", door::ask),
                MenuAct.of("Save a copy...", "Shortcut+S", door::saveCopy),
                MenuAct.of("Stockroom", "Shortcut+I", this::showStockroom),
                MenuAct.of("Find anything", "/", this::find),
                MenuAct.of("What if: try choices without making them", "W", this::toggleTrying),
                MenuAct.of("For the back row", "P", projector::toggle),
                MenuAct.of("Show or hide the ledger", "L", this::toggleLedger),
                MenuAct.of("Light or dark", "Shortcut+D", () -> Theme.dress(stage.getScene(), !Theme.isDark())));
    }

    List<MenuAct> actsToFind() {
        return acts;
    }

    private Node tools() {
        undo.setId("undo");
        redo.setId("redo");
        undo.getStyleClass().add("quiet-button");
        redo.getStyleClass().add("quiet-button");
        Labels.explained(undo, "Take the last act back (Ctrl+Z)");
        Labels.explained(redo, "Do it again (Ctrl+Shift+Z)");
        undo.setOnAction(e -> step(true));
        redo.setOnAction(e -> step(false));
        MenuButton menu = new MenuButton("Session");
        menu.setId("session-menu");
        for (MenuAct a : acts) {
            MenuItem item = new MenuItem(a.label() + (a.shown().isEmpty() ? "" : "   " + a.shown()));
            item.setOnAction(e -> a.run().run());
            menu.getItems().add(item);
        }
        Button search = new Button("Find");
        search.setId("find");
        search.getStyleClass().add("quiet-button");
        Labels.explained(search, "Find anything by a word or two (/)");
        search.setOnAction(e -> find());
        HBox row = new HBox(2, undo, redo, search);
        VBox box = new VBox(8, menu, row);
        box.setPadding(new Insets(14, 16, 0, 8));
        box.setMinWidth(176);
        return box;
    }

    private void find() {
        finder.open();
    }

    private void toggleTrying() {
        if (bench.isTrying()) {
            bench.forgetTried();
        } else {
            bench.startTrying();
        }
    }

    /** Remembers sessions here from now on. */
    public void rememberIn(Recent where) {
        recent = where;
        remember();
    }

    /** From now on errors of the program itself are told in this window. */
    public void watchErrors() {
        trouble.watch();
    }

    TroubleBanner trouble() {
        return trouble;
    }

    Clock clock() {
        return clock;
    }

    /** Says one sentence in the watch strip. */
    void say(String sentence, boolean warning) {
        strip.say(sentence, warning);
    }

    Recent recent() {
        return recent;
    }

    private void remember() {
        recent.remember(
                bench.file().path(), bench.sheet().title(), bench.sheet().place(), clock.instant());
    }

    /** Opens another session in this window. */
    public void show(Workbench newBench) {
        Workbench before = bench;
        LiveRig connected = rig;
        if (connected != null && connected.isRecording()) {
            connected.finish();
        }
        rig = null;
        try {
            present(newBench);
        } catch (RuntimeException e) {
            // What cannot be shown must not take what is shown along: the session from before goes on.
            rig = connected;
            if (before != null && before != newBench) {
                present(before);
                newBench.close();
            }
            throw e;
        }
        if (connected != null) {
            connected.close();
        }
        if (before != null && before != newBench) {
            before.close();
        }
        recover();
    }

    private void present(Workbench newBench) {
        bench = newBench;
        run = bench.session().keptRuns().stream()
                .filter(Run::takesPart)
                .reduce((a, b) -> b)
                .orElse(null);
        views.clear();
        title.setText(bench.sheet().title());
        place.setText((bench.sheet().place().isEmpty() ? "" : bench.sheet().place() + " · ")
                + DAY.format(bench.session().created()));
        stage.setTitle("Eager Needle: " + bench.sheet().title());
        dial.states(s -> Progress.of(bench, s));
        bench.onChange(this::refresh);
        ledger.show(bench);
        ledger.focusRun(run);
        go(Station.PLAN);
        around();
        remember();
    }

    private void recover() {
        List<Run> unfinished = bench.file().unfinished(bench.session());
        if (!unfinished.isEmpty()) {
            try {
                unfinished.forEach(r -> bench.apply(new RunCommand.KeepRun(r.named("Recovered run " + r.id()))));
            } catch (RuntimeException refused) {
                strip.say(refused.getMessage(), true);
                return;
            }
            strip.say(
                    (unfinished.size() == 1
                                    ? "A run that was being recorded when the program ended was"
                                    : unfinished.size() + " runs that were not finished were")
                            + " recovered; look, and leave out at Reduce what is of no use.",
                    true);
        }
    }

    private void refresh() {
        if (rig != null) {
            rig.setUp(bench.session().setups());
        }
        if (beside != null) {
            beside.refresh();
        }
        view(dial.current()).refresh();
        around();
    }

    /** What stands around the station. */
    private void around() {
        ledger.refresh();
        trial.refresh();
        dial.refresh();
        strip.findings(bench.findings());
        undo.setDisable(!bench.canUndo());
        redo.setDisable(!bench.canRedo());
    }

    private void tick() {
        view(dial.current()).tick();
        projector.tick(bench, rig, dial.current());
        if (dial.current() != Station.CAPTURE) {
            strip.live(rig == null ? "" : rig.news());
        }
    }

    @Override
    public void go(Station station) {
        StationView view = view(station);
        beside = null;
        boolean animated = stage.isShowing();
        dial.point(station, animated);
        surface.getChildren().setAll(view.node());
        ledger.planned(station == Station.PLAN);
        view.refresh();
        view.focus().ifPresentOrElse(Node::requestFocus, dial::focusCurrent);
        strip.live("");
    }

    private void key(KeyEvent e) {
        if (finder.isVisible()) {
            return;
        }
        boolean typing = e.getTarget() instanceof TextInputControl;
        Optional<MenuAct> act = acts.stream().filter(a -> a.answers(e, typing)).findFirst();
        int digit = !typing
                        && !e.isShortcutDown()
                        && e.getCode().isDigitKey()
                        && !e.getText().isEmpty()
                ? "1234567".indexOf(e.getText())
                : -1;
        if (act.isPresent()) {
            act.get().run().run();
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.Z) {
            step(!e.isShiftDown());
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.Y) {
            step(false);
        } else if (e.isShortcutDown() && e.getCode() == KeyCode.F) {
            find();
        } else if (digit >= 0) {
            Station to = Station.values()[digit];
            // A key that is held comes again and again: a station that is shown already is not entered anew each time.
            if (to != dial.current() || !surface.getChildren().contains(view(to).node())) {
                go(to);
            }
        } else if (!typing && e.getCode() == KeyCode.F && projector.isVisible()) {
            projector.freeze();
        } else if (e.getCode() == KeyCode.ESCAPE && projector.isVisible()) {
            projector.toggle();
        } else {
            return;
        }
        e.consume();
    }

    private void toggleLedger() {
        ledger.setVisible(!ledger.isVisible());
        ledger.setManaged(ledger.isVisible());
    }

    private void step(boolean back) {
        Notices.attempt(root, () -> (back ? bench.undo() : bench.redo()).ifPresent(says -> strip.say(says, false)));
    }

    /**
     * Opens a bench file in this window; if it cannot be opened the present session stays and one sentence says why.
     */
    public void open(Path path) {
        door.open(path);
    }

    /**
     * Begins a session of a sheet in a file of its own, and brings readings into it unless {@code readings} is null.
     */
    void begin(SheetReader.Located sheet, Path readings) {
        door.begin(sheet, readings);
    }

    /** Opens a bench file, or the preview of a file of readings for the run that comes next. */
    void bring(Path file) {
        door.bring(file);
    }

    /** Shows the start page in place of the station. */
    public void showStart() {
        beside = null;
        surface.getChildren().setAll(new StartPage(door, recent));
    }

    void showRun(int id) {
        bench.session().run(id).ifPresent(r -> {
            choose(r);
            go(Station.REDUCE);
        });
    }

    @Override
    public Workbench bench() {
        return bench;
    }

    @Override
    public Stockroom stockroom() {
        return stockroom;
    }

    @Override
    public void showStockroom() {
        showInstrument(null);
    }

    /** Shows the stockroom with an instrument open, or without when it is null. */
    void showInstrument(String id) {
        StockroomView view = new StockroomView(this, () -> go(dial.current()));
        beside = view;
        surface.getChildren().setAll(view.node());
        if (id == null) {
            view.focus().ifPresent(Node::requestFocus);
        } else {
            view.show(id);
        }
    }

    /** Shows the lineage of a quantity in the ledger. */
    void showQuantity(Key key) {
        ledger.setVisible(true);
        ledger.setManaged(true);
        bench.session().runs().stream()
                .filter(r -> key instanceof Key.OfRun of && of.run() == r.id())
                .findFirst()
                .ifPresent(this::choose);
        ledger.reveal(key);
    }

    @Override
    public Optional<LiveRig> rig() {
        return Optional.ofNullable(rig);
    }

    @Override
    public void connect(LiveRig newRig) {
        disconnect();
        rig = newRig;
        rig.setUp(bench.session().setups());
        views.values().forEach(StationView::refresh);
    }

    @Override
    public void disconnect() {
        if (rig != null) {
            if (rig.isRecording()) {
                rig.finish();
            }
            rig.close();
            rig = null;
        }
    }

    @Override
    public Optional<Run> run() {
        return Optional.ofNullable(run);
    }

    @Override
    public void choose(Run newRun) {
        run = newRun;
        ledger.focusRun(newRun);
        view(dial.current()).refresh();
    }

    @Override
    public double pace() {
        return pace;
    }

    /** The work surface of a station, made when it is first entered. */
    public StationView view(Station station) {
        return views.computeIfAbsent(station, this::made);
    }

    private StationView made(Station station) {
        return switch (station) {
            case PLAN -> new PlanStation(this);
            case RIG -> new RigStation(this);
            case CALIBRATE -> new CalibrateStation(this);
            case CAPTURE -> new CaptureStation(this);
            case REDUCE -> new ReduceStation(this);
            case JUDGE -> new JudgeStation(this);
            case RECORD -> new RecordStation(this);
        };
    }

    public CourseDial dial() {
        return dial;
    }

    public Stage stage() {
        return stage;
    }

    private void close() {
        stage.setOnShown(null);
        stage.setOnHidden(null);
        frames.stop();
        disconnect();
        bench.close();
        stockroom.close();
    }
}
