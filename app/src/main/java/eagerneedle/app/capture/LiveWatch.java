package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Meanwhile;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Capture;
import javafx.application.Platform;
import javafx.scene.control.Label;

/**
 * What the watches say of the last second: one line here and in the watch strip, and the samples they point at shaded
 * on the traces.
 */
final class LiveWatch {
    private static final long EVERY = 150_000_000L;
    /** Of many channels: a second of each is looked at, and once in half a second is often enough. */
    private static final long APART = 30_000_000L;

    private final Desk desk;
    private final LiveTraces traces;
    private final Label line = Labels.wrapped("");
    private final LiveWatchModel model;
    private final Meanwhile looking = new Meanwhile(Platform::runLater);
    private long last;

    LiveWatch(Desk desk, LiveTraces traces) {
        this.desk = desk;
        this.traces = traces;
        this.model = new LiveWatchModel(
                n -> desk.bench().session().channel(desk.bench().sheet(), n), traces::exact);
        line.setId("live-watch");
        line.getStyleClass().add("attention");
        clear();
    }

    Label line() {
        return line;
    }

    /** Says nothing: there is nothing that lasts. */
    void clear() {
        looking.forget();
        model.forget();
        Labels.says(line, "");
        Notices.live(line, "");
    }

    /** Looks at the next channel when it is its turn: many channels never hold one frame up. */
    void tick(LiveRig rig, Capture plan) {
        long now = System.nanoTime();
        if (plan.channels().isEmpty()
                || !looking.isFree()
                || now - last < Math.max(APART, EVERY / plan.channels().size())) {
            return;
        }
        last = now;
        if (desk.bench().isSilent()) {
            says(rig.news());
            return;
        }
        looking.work(model.look(rig, plan), seen -> {
            model.take(seen);
            traces.points(seen.channel(), seen.findings());
            String news = rig.news();
            says(news.isEmpty() ? model.says(plan) : news);
        });
    }

    private void says(String sentence) {
        Labels.says(line, sentence.isEmpty() ? "" : "▲ " + sentence);
        Notices.live(line, sentence);
    }
}
