package eagerneedle.app;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;

/** A desk without a window: what models ask of the program around them. */
public final class PlainDesk implements Desk, AutoCloseable {
    public static final Clock CLOCK = Clock.fixed(Instant.parse("2026-11-23T12:00:00Z"), ZoneOffset.UTC);

    private final Workbench bench;
    private final Stockroom stockroom = Stockroom.demonstration();
    private LiveRig rig;
    private Run run;

    private PlainDesk(Workbench bench) {
        this.bench = bench;
    }

    /** At a new session of a method. */
    public static PlainDesk fresh(Path folder, String method) {
        String text = SheetReader.shippedText(method);
        return new PlainDesk(new Workbench(
                BenchFile.create(folder.resolve(method + ".needle"), Session.start(text, method, CLOCK.instant())),
                CLOCK));
    }

    /** At a session that was carried out on the simulated rig of a method. */
    public static PlainDesk rehearsed(Path folder, String method) {
        return at(Rehearsed.in(folder, method));
    }

    /** At the session of a bench file. */
    public static PlainDesk at(Path file) {
        return new PlainDesk(new Workbench(BenchFile.open(file), CLOCK));
    }

    /** Carries the plan out, and waits until that is done. */
    public PlainDesk rehearsed() throws InterruptedException {
        bench.planRehearsal().begin(Runnable::run);
        while (bench.planRehearsal().isRunning()) {
            Thread.sleep(5);
        }
        return this;
    }

    @Override
    public Workbench bench() {
        return bench;
    }

    @Override
    public Optional<LiveRig> rig() {
        return Optional.ofNullable(rig);
    }

    @Override
    public void connect(LiveRig newRig) {
        rig = newRig;
    }

    @Override
    public void disconnect() {
        rig = null;
    }

    @Override
    public List<Path> sessions() {
        return List.of(bench.file().path());
    }

    @Override
    public void go(Station station) {}

    @Override
    public Stockroom stockroom() {
        return stockroom;
    }

    @Override
    public void showReady() {}

    @Override
    public void showStockroom() {}

    @Override
    public Optional<Run> run() {
        return Optional.ofNullable(run);
    }

    @Override
    public void choose(Run newRun) {
        run = newRun;
    }

    @Override
    public double pace() {
        return 1;
    }

    @Override
    public void close() {
        bench.close();
        stockroom.close();
    }
}
