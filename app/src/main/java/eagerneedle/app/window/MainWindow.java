package eagerneedle.app.window;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.Progress;
import eagerneedle.app.station.Station;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.training.Hunt;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
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
    private final WatchStrip strip = new WatchStrip(id -> leads().toRun(id));
    private final CourseDial dial = new CourseDial(this::go);
    private final Projector projector = new Projector();
    private final Finder finder = new Finder(() -> new Findables(this).all());
    private final Remembered remembered = new Remembered();
    private final Restyling restyling;
    private final Views views = new Views(this, b -> door().add(b));

    @SuppressWarnings("NullAway.Init") // shown before the window is made
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
    private final ConnectedRig rig = new ConnectedRig();
    private final Whereabouts leads = new Whereabouts(this, side, ledger);
    private final RunInHand run = new RunInHand();
    private final Stockroom stockroom;
    private final Aside aside;
    private final Frames frames = new Frames(this::tick);

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
        this.restyling = new Restyling(this, header, ledger, strip);
        this.aside = new Aside(this, surface, side, clock);
        this.trouble = new TroubleBanner(() -> Optional.of(this.bench.file()), clock);
        this.pace = pace;
        strip.answeredBy(new WatchAnswers(() -> bench, strip));
        hunting = new HuntBanner(this, clock);
        VBox middle = new VBox(trouble, guide, trial, hunting, new Room(surface));
        BorderPane inner = new BorderPane(middle, header, ledger, strip, null);
        root.setCenter(new StackPane(inner, projector, finder));
        Scene scene = new Scene(root, 1280, 800);
        Theme.dress(scene, Theme.isDark());
        scene.addEventFilter(KeyEvent.KEY_PRESSED, new WindowKeys(this, acts)::pressed);
        door.takesDropsOn(scene);
        ledger.onLine(key -> new LineOf(key, bench.session()).in(aside.desk()));
        stage.setScene(scene);
        stage.setOnShown(e -> go(dial.current()));
        stage.setMinWidth(Theme.px(1000));
        stage.setMinHeight(Theme.px(660));
        stage.setOnHidden(e -> close());
        show(bench);
        frames.start();
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

    Views views() {
        return views;
    }

    HuntBanner hunting() {
        return hunting;
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
        remembered.in(where);
        remembered.add(bench, clock);
    }

    KeptSettings kept() {
        return kept;
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
        return remembered.recent();
    }

    /** Opens another session in this window. */
    public void show(Workbench newBench) {
        Workbench before = bench;
        LiveRig connected = rig.laidAside();
        try {
            present(newBench);
        } catch (RuntimeException e) {
            // What cannot be shown must not take what is shown along: the session from before goes on.
            rig.takeUp(connected);
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
        name();
        dial.states(s -> Progress.of(bench, s));
        bench.onChange(this::refresh);
        go(Station.PLAN);
        around();
        remembered.add(bench, clock);
    }

    private void refresh() {
        if (!laidOutBy.equals(bench.session().sheetText())) {
            layOut();
        }
        if (run.follow(bench)) {
            ledger.focusRun(run.orNull());
        }
        rig.setUp(bench.session());
        aside.refresh();
        view(dial.current()).refresh();
        around();
    }

    /** The sheet was changed: stations that were laid out by it are made anew, and its instruments if they changed. */
    private void layOut() {
        laidOutBy = bench.session().sheetText();
        if (!rig.fits(bench.sheet())) {
            disconnect();
            say("The sheet has other instruments or channels now; connect again at Rig.", true);
        }
        views.forgetLaidOut();
        name();
        if (!aside.isShown() && !shows(dial.current())) {
            go(dial.current());
        }
    }

    /** Title, header and ledger say which sheet this is. */
    private void name() {
        stage.setTitle("Eager Needle: " + bench.sheet().title());
        header.show(bench);
        ledger.show(bench);
        ledger.focusRun(run.orNull());
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
        projector.tick(bench, rig.orNull(), dial.current());
        if (dial.current() != Station.CAPTURE) {
            strip.live(rig.news());
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

    /** What makes everything shown anew, with text of another size or numbers written otherwise. */
    Restyling restyling() {
        return restyling;
    }

    LedgerSide side() {
        return side;
    }

    void step(boolean back) {
        if (aside.step(back)) {
            return;
        }
        Notices.attempt(root, () -> (back ? bench.undo() : bench.redo()).ifPresent(says -> strip.say(says, false)));
    }

    /** Shows the start page in place of the station. */
    public void showStart() {
        aside.leave();
        side.leave();
        surface.getChildren().setAll(new StartPage(door, recent()));
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
        return remembered.files(bench);
    }

    @Override
    public void showStockroom() {
        aside.stockroom(null);
    }

    @Override
    public void showPutRight(String serial) {
        aside.putRight(serial);
    }

    @Override
    public void showReady() {
        aside.ready();
    }

    @Override
    public Optional<Hunt> hunt() {
        return hunting.hidden();
    }

    /** What takes the surface in place of a station. */
    public Aside aside() {
        return aside;
    }

    /** Shows the station again that something stood in place of. */
    void back() {
        go(dial.current());
    }

    Whereabouts leads() {
        return leads;
    }

    @Override
    public Optional<LiveRig> rig() {
        return rig.get();
    }

    @Override
    public void connect(LiveRig newRig) {
        rig.connect(newRig);
        rig.setUp(bench.session());
        views.refresh();
    }

    @Override
    public void disconnect() {
        rig.disconnect();
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
