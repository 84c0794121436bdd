package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.Pooling;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.PoolingCommand;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/** The sessions of a pool: what was taken of each, how its file is now, and what may be done with it. */
final class PoolModel {
    private static final int SHOWN = 3;

    /**
     * One session.
     *
     * @param values what was taken, column by column
     * @param about where it comes from, and how its file is now
     * @param reason why it is left out; empty for one that counts
     * @param changed true when its file is not what it was
     */
    record Line(
            String name,
            String title,
            String values,
            String about,
            List<String> remarks,
            String reason,
            boolean changed) {
        boolean counts() {
            return reason.isEmpty();
        }
    }

    private final Desk desk;
    private final String method;
    private Map<String, Pooling.State> states = Map.of();
    private AtomicBoolean cancelled = new AtomicBoolean(true);
    private String progress = "";

    PoolModel(Desk desk) {
        this.desk = desk;
        this.method = PooledSheet.of(desk.bench().sheet()).map(Sheet::title).orElse(pool().from());
    }

    private Pool pool() {
        return desk.bench().sheet().pool();
    }

    private Pooling pooling() {
        return new Pooling(
                pool(),
                desk.bench().session(),
                desk.bench().file().path(),
                desk.bench().clock().instant());
    }

    List<Line> lines() {
        return desk.bench().session().sources().stream().map(this::line).toList();
    }

    private Line line(PoolSource s) {
        Pooling.State state = states.getOrDefault(s.name(), Pooling.State.SAME);
        String now = switch (state) {
            case SAME -> "";
            case CHANGED -> "; its file has changed since";
            case GONE -> "; its file is not there any more";
        };
        return new Line(
                s.name(),
                s.title(),
                s.columns().keySet().stream()
                        .map(c -> s.labels().getOrDefault(c, c) + " " + values(s, c))
                        .collect(Collectors.joining(",   ")),
                s.title() + ", from " + s.file() + ", taken on " + Notation.day(s.taken()) + now + ".",
                s.remarks(),
                s.leftOut() == null ? "" : s.leftOut(),
                state == Pooling.State.CHANGED);
    }

    private static String values(PoolSource s, String column) {
        List<Quantity> all = s.quantities(column);
        return all.size() <= SHOWN
                ? all.stream().map(Notation::bracket).collect(Collectors.joining("; "))
                : Notation.bracket(all.get(0)) + " ... " + Notation.bracket(all.get(all.size() - 1)) + " (" + all.size()
                        + " rows)";
    }

    /** How many there are, and how many are expected. */
    String summary() {
        List<PoolSource> all = desk.bench().session().sources();
        long counting = all.stream().filter(PoolSource::counts).count();
        int expected = pool().sessions().size();
        String left = all.size() > counting ? ", " + (all.size() - counting) + " left out" : "";
        return counting + (counting == 1 ? " session" : " sessions") + " of '" + method + "'"
                + (counting == 1 ? " counts" : " count") + left
                + (expected > 0 ? "; " + expected + " are expected." : ".");
    }

    /** What is done at the moment; empty for nothing. */
    String progress() {
        return progress;
    }

    /** Stops taking; what was read so far is forgotten. */
    void cancel() {
        cancelled.set(true);
    }

    /**
     * Takes sessions of files and folders beside the window, all as one act.
     *
     * @param here runs what the window shows
     * @param show called when there is something new to show
     * @param refused told what could not be taken, in one sentence each
     */
    void take(List<Path> paths, Executor here, Runnable show, Consumer<List<String>> refused) {
        cancel();
        AtomicBoolean mine = new AtomicBoolean();
        cancelled = mine;
        Pooling pooling = pooling();
        progress = "Looking for bench files.";
        show.run();
        CompletableFuture.supplyAsync(() -> {
                    List<Path> files = files(pooling, paths);
                    return pooling.take(
                            files,
                            f -> here.execute(() -> {
                                progress = "Taking " + FileName.of(f) + ", " + (files.indexOf(f) + 1) + " of "
                                        + files.size() + ".";
                                show.run();
                            }),
                            mine::get);
                })
                .whenCompleteAsync(
                        (taken, failed) -> {
                            progress = "";
                            if (failed != null) {
                                refused.accept(List.of(
                                        failed.getCause() == null
                                                ? failed.getMessage()
                                                : failed.getCause().getMessage()));
                            } else if (!mine.get()) {
                                taken.act().ifPresent(desk.bench()::apply);
                                refused.accept(
                                        taken.sources().isEmpty()
                                                        && taken.refused().isEmpty()
                                                ? List.of("There is no bench file in that folder.")
                                                : taken.refused());
                                states = pooling().states();
                            }
                            show.run();
                        },
                        here);
    }

    private static List<Path> files(Pooling pooling, List<Path> paths) {
        List<Path> all = new ArrayList<>();
        for (Path p : paths) {
            try {
                all.addAll(pooling.files(p));
            } catch (IOException e) {
                throw new IllegalArgumentException(FileName.of(p) + " cannot be read; check its folder.", e);
            }
        }
        return all;
    }

    /** Takes a session again whose file has changed. */
    void again(String name, Executor here, Runnable show, Consumer<List<String>> refused) {
        desk.bench().session().sources().stream()
                .filter(s -> s.name().equals(name))
                .findFirst()
                .ifPresent(s -> take(List.of(pooling().file(s)), here, show, refused));
    }

    /** Looks how the files are now, beside the window. */
    void look(Executor here, Runnable show) {
        Pooling pooling = pooling();
        CompletableFuture.supplyAsync(pooling::states)
                .thenAcceptAsync(
                        now -> {
                            states = now;
                            show.run();
                        },
                        here);
    }

    void leaveOut(String name, String reason) {
        desk.bench().apply(new PoolingCommand.LeaveOut(name, reason));
    }

    void takeIn(String name) {
        desk.bench().apply(new PoolingCommand.TakeIn(name));
    }
}
