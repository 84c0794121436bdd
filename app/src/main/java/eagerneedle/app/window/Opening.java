package eagerneedle.app.window;

import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.Beginning;
import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.OpenBench;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.rig.driver.Driver;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.application.Platform;

/**
 * Begins sessions without a method, or adds files and instruments to one. Files are read and instruments asked beside
 * the window; what cannot be read, or does not answer, is told in one sentence and begins nothing.
 *
 * @param into makes the window of a session
 * @param say tells one sentence, and whether it is a warning
 */
record Opening(Clock clock, Function<Workbench, MainWindow> into, java.util.function.BiConsumer<String, Boolean> say) {
    private static final double RATE = 10;

    void begin(Beginning beginning) {
        if (beginning instanceof Beginning.Files f) {
            say.accept("Reading...", false);
            beside(() -> OpenBench.read(f.paths()), data -> {
                MainWindow window = into.apply(bench(OpenBench.title(f.paths()), "", b -> OpenBench.bring(b, data)));
                shown(window, data);
            });
        } else if (beginning instanceof Beginning.Instrument i) {
            say.accept("Asking the instrument...", false);
            beside(i::who, who -> {
                String title = who.label().isBlank() ? "Instrument" : who.label();
                MainWindow window = into.apply(bench(title, "", b -> took(b, i, who)));
                connect(window, i);
            });
        } else if (beginning instanceof Beginning.Question q) {
            try {
                if (q.text().isBlank()) {
                    throw new IllegalArgumentException("Write what is to be found; it may be changed later.");
                }
                into.apply(bench(q.text(), q.text(), b -> {}));
            } catch (RuntimeException e) {
                say.accept(Fault.said(e), true);
            }
        }
    }

    /** Adds files or an instrument to the session that is shown. */
    void add(MainWindow window, Beginning beginning) {
        if (beginning instanceof Beginning.Files f) {
            say.accept("Reading...", false);
            beside(() -> OpenBench.read(f.paths()), data -> {
                OpenBench.bring(window.bench(), data);
                shown(window, data);
            });
        } else if (beginning instanceof Beginning.Instrument i) {
            say.accept("Asking the instrument...", false);
            beside(i::who, who -> {
                took(window.bench(), i, who);
                connect(window, i);
            });
        } else {
            begin(beginning);
        }
    }

    private static void took(Workbench bench, Beginning.Instrument i, Driver.Description who) {
        bench.apply(new SheetCommand.Write(
                i.in(bench.session().sheetText(), who),
                "Took the inputs of " + (who.label().isBlank() ? "the instrument" : who.label()) + " as channels."));
    }

    private Workbench bench(String title, String question, Consumer<Workbench> first) {
        Session session = OpenBench.begun(title, question, clock.instant());
        BenchFile file = Home.begin(OpenBench.id(session), session);
        Path path = file.path();
        Workbench bench = null;
        try {
            bench = new Workbench(file, clock);
            first.accept(bench);
            return bench;
        } catch (RuntimeException e) {
            if (bench == null) {
                file.close();
            } else {
                bench.close();
            }
            try {
                Files.deleteIfExists(path);
            } catch (IOException stays) {
                e.addSuppressed(stays);
            }
            throw e;
        }
    }

    private void shown(MainWindow window, OpenBench.Data data) {
        List.copyOf(window.bench().session().keptRuns()).stream()
                .reduce((a, b) -> b)
                .ifPresent(window::choose);
        window.go(Station.REDUCE);
        window.say(
                "Kept as " + FileName.of(window.bench().file().path()) + "." + data.says(),
                !data.says().isEmpty());
    }

    private void connect(MainWindow window, Beginning.Instrument i) {
        List<String> devices = List.copyOf(window.bench().sheet().devices().keySet());
        String device = devices.get(devices.size() - 1);
        window.go(Station.CAPTURE);
        Workbench bench = window.bench();
        beside(() -> LiveRig.at(bench.sheet(), device, i.address(), RATE), rig -> {
            if (window.bench() == bench) {
                window.connect(rig);
                window.go(Station.CAPTURE);
                window.say("Connected: start a run to keep what is seen.", false);
            } else {
                rig.close();
            }
        });
    }

    private interface Work<T> {
        T done() throws IOException;
    }

    private <T> void beside(Work<T> work, Consumer<T> then) {
        Thread t = new Thread(
                () -> {
                    try {
                        T found = work.done();
                        Platform.runLater(() -> {
                            try {
                                then.accept(found);
                            } catch (RuntimeException e) {
                                say.accept(Fault.said(e), true);
                            }
                        });
                    } catch (IOException | RuntimeException e) {
                        Platform.runLater(() -> say.accept(Fault.said(e), true));
                    }
                },
                "beginning");
        t.setDaemon(true);
        t.start();
    }
}
