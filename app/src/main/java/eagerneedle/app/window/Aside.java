package eagerneedle.app.window;

import eagerneedle.app.benches.BenchesView;
import eagerneedle.app.day.DayView;
import eagerneedle.app.day.PutRightView;
import eagerneedle.app.marking.ClassroomView;
import eagerneedle.app.ready.ReadyView;
import eagerneedle.app.settings.SettingsView;
import eagerneedle.app.station.StationView;
import eagerneedle.app.stockroom.StockroomView;
import eagerneedle.app.training.HuntModel;
import eagerneedle.app.training.HuntView;
import eagerneedle.app.training.TrainingProgress;
import eagerneedle.app.training.TrainingView;
import eagerneedle.app.writing.WritingView;
import java.time.Clock;
import java.util.Random;
import javafx.scene.Node;
import javafx.scene.layout.StackPane;
import org.jspecify.annotations.Nullable;

/** What takes the surface in place of a station and leads back to it: the method desk, the classroom, the stockroom. */
public final class Aside {
    private final MainWindow window;
    private final StackPane surface;
    private final LedgerSide side;
    private final Clock clock;
    private @Nullable StationView shown;
    private @Nullable PutRightView right;

    Aside(MainWindow window, StackPane surface, LedgerSide side, Clock clock) {
        this.window = window;
        this.surface = surface;
        this.side = side;
        this.clock = clock;
    }

    /** The method desk with the session's sheet. */
    public WritingView desk() {
        return show(new WritingView(window, window::back));
    }

    /** The classroom: data given out, and what comes back marked. */
    public ClassroomView classroom() {
        return show(new ClassroomView(() -> window.bench().session().sheetText(), clock, window::back));
    }

    /** All benches of a folder on one picture. */
    public BenchesView benches() {
        return show(new BenchesView(() -> window.bench().file(), window::back));
    }

    /** The training of readings and of faults. */
    public TrainingView training() {
        TrainingProgress.rescued(HuntBanner.progress()).ifPresent(says -> window.say(says, true));
        return show(new TrainingView(
                new Random(),
                HuntBanner.progress(),
                () -> window.bench().session().sheetText(),
                window.hunting()::begin,
                window::back));
    }

    SettingsView settings() {
        return show(new SettingsView(window.kept(), window.site(), window::back));
    }

    DayView day() {
        return show(new DayView(window::back));
    }

    /** A standard put right; what was written for it is still there when it is opened again for the same one. */
    PutRightView putRight(String serial) {
        PutRightView before = right;
        if (before == null || !serial.isEmpty() && !serial.equals(before.standard())) {
            before = new PutRightView(serial, window.bench().session().bench().operator(), clock, window::back);
            right = before;
        }
        return show(before);
    }

    ReadyView ready() {
        return show(new ReadyView(window, window::back));
    }

    HuntView hunt(HuntModel model, Runnable over) {
        return show(new HuntView(model, over, window::back));
    }

    /** The stockroom with an instrument open, or without when it is null. */
    void stockroom(@Nullable String id) {
        StockroomView view = new StockroomView(window, window::back);
        put(view);
        if (id == null) {
            view.focus().ifPresent(Node::requestFocus);
        } else {
            view.show(id);
        }
    }

    private <T extends StationView> T show(T view) {
        put(view);
        view.focus().ifPresent(Node::requestFocus);
        return view;
    }

    private void put(StationView view) {
        leave();
        shown = view;
        side.leave();
        surface.getChildren().setAll(view.node());
    }

    /** Something else takes the surface. */
    void leave() {
        if (shown != null) {
            shown.left();
        }
        shown = null;
    }

    boolean isShown() {
        return shown != null;
    }

    void refresh() {
        if (shown != null) {
            shown.refresh();
        }
    }

    void tick() {
        if (shown != null) {
            shown.tick();
        }
    }

    /** Takes an act of its own back, or does it again; false leaves that to the session. */
    boolean step(boolean back) {
        return shown != null && shown.step(back);
    }
}
