package eagerneedle.app.window;

import eagerneedle.app.benches.BenchesView;
import eagerneedle.app.marking.ClassroomView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.Progress;
import eagerneedle.app.station.Station;
import eagerneedle.app.station.StationView;
import eagerneedle.app.training.TrainingView;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.app.writing.WritingView;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.training.Hunt;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/** The window: dial on top, the station's surface, the ledger at the right, the watch strip below. */
public final class MainWindow implements Desk {
    private final Stage stage;
    private final Clock clock;
    private final double pace;
    private final BorderPane root = new BorderPane();
    private final StackPane surface = new StackPane();
    private final LedgerPane ledger = new LedgerPane();
    private final LedgerSide side = new LedgerSide(ledger);
    private final WatchStrip strip = new WatchStrip(id -> showRun(id));
    private final CourseDial dial = new CourseDial(this::go);
    private final Projector projector = new Projector();
    private final Finder finder = new Finder(() -> new Findables(this).all());
    private Recent recent = Recent.forNow();
    private final Views views = new Views(this, b -> door().add(b));
    private Workbench bench;
    private final TrialBanner trial = new TrialBanner(() -> bench);
    private final TroubleBanner trouble;
    private final HuntBanner hunting;
    private final GuideBanner guide = new GuideBanner(this);
    private final SessionDoor door = new SessionDoor(this);
    private final List<MenuAct> acts = MenuAct.of(this);
    private final Toolbar tools = new Toolbar(acts, this::step, this::find);
    private final Header header = new Header(dial, tools);
    private String laidOutBy = "";
    private final KeptSettings kept = new KeptSettings(this, ledger);
    private LiveRig rig;
    private final RunInHand run = new RunInHand();
    private final Stockroom stockroom;
    private final Aside aside;
    private final Frames frames = new Frames(this::tick);

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
        this.aside = new Aside(this, surface, side, clock);
        this.trouble = new TroubleBanner(() -> this.bench, clock);
        this.pace = pace;
        strip.answeredBy(new WatchAnswers(() -> bench, strip));
        hunting = new HuntBanner(this, clock);
        VBox middle = new VBox(trouble, guide, trial, hunting, room());
        BorderPane inner = new BorderPane(middle, header, ledger, strip, null);
        root.setCenter(new StackPane(inner, projector, finder));
        Scene scene = new Scene(root, 1280, 800);
        Theme.dress(scene, Theme.isDark());
        scene.addEventFilter(KeyEvent.KEY_PRESSED, new WindowKeys(this, acts)::pressed);
        scene.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
        });
        scene.setOnDragDropped(e -> door.drop(
                e.getDragboard().getFiles().stream().map(f -> f.toPath()).toList()));
        ledger.onLine(key -> new LineOf(key, bench.session()).in(showDesk()));
        stage.setScene(scene);
        stage.setOnShown(e -> go(dial.current()));
        stage.setMinWidth(Theme.px(1000));
        stage.setMinHeight(Theme.px(660));
        stage.setOnHidden(e -> close());
        show(bench);
        frames.start();
    }

    /** Where the surface stands. With large text in a small window it is scrolled to, and nothing leaves the window. */
    private ScrollPane room() {
        ScrollPane room = new ScrollPane(surface) {
            /** Whatever is pressed in it keeps the keyboard: arrows move edges and cursors, not the page. */
            @Override
            public void requestFocus() {}
        };
        room.setId("room");
        room.getStyleClass().add("bare");
        room.setFitToWidth(true);
        room.setFitToHeight(true);
        room.setMinSize(0, 0);
        room.setFocusTraversable(false);
        VBox.setVgrow(room, Priority.ALWAYS);
        return room;
    }

    GuideBanner guide() {
        return guide;
    }

    TrialBanner trial() {
        return trial;
    }

    List<MenuAct> actsToFind() {
        return acts;
    }

    void find() {
        finder.open();
    }

    SessionDoor door() {
        return door;
    }

    boolean isFinding() {
        return finder.isVisible();
    }

    Projector projector() {
        return projector;
    }

    /** True while a station's own surface is shown, not the stockroom or the start page in its place. */
    boolean shows(Station station) {
        return station == dial.current()
                && surface.getChildren().contains(view(station).node());
    }

    /** Remembers sessions here from now on. */
    public void rememberIn(Recent where) {
        recent = where;
        remember();
    }

    KeptSettings kept() {
        return kept;
    }

    /** Takes what was set last time, and keeps there what is set from now on. */
    void settingsIn(Path file) {
        kept.in(file);
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
        Recovery.of(bench).ifPresent(says -> strip.say(says, true));
    }

    private void present(Workbench newBench) {
        bench = newBench;
        hunting.shows(bench);
        laidOutBy = bench.session().sheetText();
        run.open(bench);
        views.forget();
        header.show(bench);
        stage.setTitle("Eager Needle: " + bench.sheet().title());
        dial.states(s -> Progress.of(bench, s));
        bench.onChange(this::refresh);
        ledger.show(bench);
        ledger.focusRun(run.orNull());
        go(Station.PLAN);
        around();
        remember();
    }

    private void refresh() {
        if (!laidOutBy.equals(bench.session().sheetText())) {
            layOut();
        }
        if (run.follow(bench)) {
            ledger.focusRun(run.orNull());
        }
        if (rig != null) {
            rig.setUp(bench.session().setups());
        }
        aside.refresh();
        view(dial.current()).refresh();
        around();
    }

    /** The sheet was changed: stations that were laid out by it are made anew, and its instruments if they changed. */
    private void layOut() {
        laidOutBy = bench.session().sheetText();
        stage.setTitle("Eager Needle: " + bench.sheet().title());
        if (rig != null && !rig.fits(bench.sheet())) {
            disconnect();
            say("The sheet has other instruments or channels now; connect again at Rig.", true);
        }
        views.forgetLaidOut();
        header.show(bench);
        ledger.show(bench);
        ledger.focusRun(run.orNull());
        if (!aside.isShown() && !shows(dial.current())) {
            go(dial.current());
        }
    }

    /** What stands around the station. */
    private void around() {
        ledger.refresh();
        trial.refresh();
        dial.refresh();
        strip.silent(bench.isSilent());
        strip.findings(bench.findings());
        tools.refresh(bench);
    }

    private void tick() {
        view(dial.current()).tick();
        aside.tick();
        hunting.tick();
        projector.tick(bench, rig, dial.current());
        if (dial.current() != Station.CAPTURE) {
            strip.live(rig == null ? "" : rig.news());
        }
    }

    @Override
    public void go(Station station) {
        StationView view = view(station);
        aside.leave();
        boolean animated = stage.isShowing();
        dial.point(station, animated);
        surface.getChildren().setAll(view.node());
        side.show();
        ledger.planned(station == Station.PLAN);
        view.refresh();
        view.focus().ifPresentOrElse(Node::requestFocus, dial::focusCurrent);
        strip.live("");
    }

    /** Shows everything with text of a size in percent, as far as {@link Theme} goes. */
    void textSize(int percent) {
        Theme.textSize(percent);
        Theme.dress(stage.getScene(), Theme.isDark());
        views.forget();
        header.resize();
        ledger.resize();
        strip.resize();
        ledger.refresh();
        kept.keep();
        again();
    }

    /** After numbers are written otherwise: whatever shows some is made anew. */
    void restyled() {
        views.forget();
        bench.sayAgain();
        header.show(bench);
        again();
    }

    /** Shows where one is once more; what stands beside the stations stays. */
    private void again() {
        if (!aside.isShown()) {
            go(dial.current());
        }
    }

    void toggleLedger() {
        side.toggle();
    }

    void step(boolean back) {
        if (aside.step(back)) {
            return;
        }
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

    /** Shows the start page in place of the station. */
    public void showStart() {
        aside.leave();
        side.leave();
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
    public List<Path> sessions() {
        List<Path> known = new ArrayList<>(List.of(bench.file().path()));
        recent.entries().forEach(e -> known.add(e.file()));
        return InstrumentsInUse.files(known);
    }

    @Override
    public void showStockroom() {
        showInstrument(null);
    }

    @Override
    public void showPutRight(String serial) {
        aside.putRight(serial);
    }

    @Override
    public void showReady() {
        aside.ready();
    }

    /** Shows the method desk with the session's sheet. */
    public WritingView showDesk() {
        return aside.desk();
    }

    /** Shows the classroom: data given out, and what comes back marked. */
    public ClassroomView showClassroom() {
        return aside.classroom();
    }

    /** Shows all benches of a folder on one picture. */
    public BenchesView showBenches() {
        return aside.benches();
    }

    /** Shows the training of readings and of faults. */
    public TrainingView showTraining() {
        return aside.training();
    }

    /** Begins a session at whose simulated bench a fault is hidden. */
    void hunt(SheetReader.Located sheet) {
        hunting.begin(sheet);
    }

    @Override
    public Optional<Hunt> hunt() {
        return hunting.hidden();
    }

    Aside aside() {
        return aside;
    }

    /** Shows the stockroom with an instrument open, or without when it is null. */
    void showInstrument(String id) {
        aside.stockroom(id);
    }

    /** Shows the station again that something stood in place of. */
    void back() {
        go(dial.current());
    }

    /** Shows the lineage of a quantity in the ledger. */
    void showQuantity(Key key) {
        side.ask();
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
        views.refresh();
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
        return run.get();
    }

    @Override
    public void choose(Run newRun) {
        run.take(newRun);
        ledger.focusRun(newRun);
        view(dial.current()).refresh();
    }

    @Override
    public double pace() {
        return pace;
    }

    /** The work surface of a station, made when it is first entered. */
    public StationView view(Station station) {
        return views.of(station);
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
