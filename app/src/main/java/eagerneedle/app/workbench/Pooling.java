package eagerneedle.app.workbench;

import eagerneedle.core.reduce.PoolTaking;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.PoolingCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Pool;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFileException;
import eagerneedle.store.bench.ClosedCopy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.stream.Stream;

/**
 * Takes sessions from bench files into a pool. It looks at a session of the pool and changes nothing itself, so that it
 * can work beside the window; what it found is one act, to be carried out there.
 */
public final class Pooling {
    private final Pool pool;
    private final Session session;
    private final Path folder;
    private final Path own;
    private final Instant now;

    /**
     * Of a pool.
     *
     * @param file its own bench file; those of its sessions are named from there
     */
    public Pooling(Pool pool, Session session, Path file, Instant now) {
        this.pool = pool;
        this.session = session;
        this.own = file.toAbsolutePath().normalize();
        this.folder = Objects.requireNonNull(own.getParent());
        this.now = now;
    }

    /** What came of taking several files. */
    public record Taken(List<PoolSource> sources, List<String> refused) {
        /** The act that takes them; empty where there is none. */
        public Optional<Command> act() {
            List<Command> acts = sources.stream()
                    .map(s -> (Command) new PoolingCommand.Take(s))
                    .toList();
            if (acts.size() < 2) {
                return acts.stream().findFirst();
            }
            List<String> says = new ArrayList<>();
            says.add("Took " + acts.size() + " sessions into the pool: "
                    + String.join(", ", sources.stream().map(PoolSource::name).toList()) + ".");
            sources.forEach(s -> s.remarks().forEach(r -> says.add(s.name() + ": " + r)));
            return Optional.of(new Command.Together(String.join(" ", says), acts));
        }
    }

    /** The bench files of a folder, without the pool's own; of a file itself. */
    public List<Path> files(Path path) throws IOException {
        if (!Files.isDirectory(path)) {
            return List.of(path);
        }
        try (Stream<Path> all = Files.list(path)) {
            return all.filter(p -> FileName.of(p).endsWith(".needle")
                            && !FileName.of(p).startsWith("."))
                    .filter(p -> !p.toAbsolutePath().normalize().equals(own))
                    .sorted()
                    .toList();
        }
    }

    /**
     * Reduces sessions and takes what the pool wants of them; those that cannot be taken are told, and the others are
     * taken.
     *
     * @param before told of each file before it is read
     * @param cancelled asked between files
     */
    public Taken take(List<Path> files, Consumer<Path> before, BooleanSupplier cancelled) {
        List<PoolSource> sources = new ArrayList<>();
        List<String> refused = new ArrayList<>();
        for (Path file : files) {
            if (cancelled.getAsBoolean()) {
                return new Taken(List.of(), List.of());
            }
            before.accept(file);
            try {
                sources.add(taken(file, sources));
            } catch (BenchFileException | IllegalArgumentException e) {
                refused.add(e.getMessage());
            }
        }
        return new Taken(sources, refused);
    }

    private PoolSource taken(Path file, List<PoolSource> others) {
        if (file.toAbsolutePath().normalize().equals(own)) {
            throw new IllegalArgumentException(FileName.of(file) + " is the pool itself.");
        }
        List<PoolSource> known = new ArrayList<>(session.sources());
        known.addAll(others);
        try (ClosedCopy copy = ClosedCopy.of(file)) {
            known.stream()
                    .filter(s -> s.digest().equals(copy.digest()))
                    .findFirst()
                    .ifPresent(s -> {
                        throw new IllegalArgumentException(FileName.of(file) + " is in the pool already, as " + s.name()
                                + ", and has not changed.");
                    });
            PoolSource taken = PoolTaking.of(
                    pool,
                    copy.file().session(),
                    copy.file(),
                    new PoolTaking.Origin(name(file, known), written(file), copy.digest(), now));
            return known.stream()
                    .filter(s ->
                            s.beginning().equals(taken.beginning()) && !s.name().equals(taken.name()))
                    .findFirst()
                    .map(s -> taken.with("It began as the same session as " + s.name()
                            + "; what was read before they parted counts as read twice."))
                    .orElse(taken);
        }
    }

    /** The name of the file; that of a file that was taken before stays. */
    private String name(Path file, List<PoolSource> known) {
        String base = FileName.of(file).replaceFirst("\\.needle$", "");
        String name = base;
        for (int i = 2; ; i++) {
            String wanted = name;
            Optional<PoolSource> there =
                    known.stream().filter(s -> s.name().equals(wanted)).findFirst();
            if (there.isEmpty() || there.get().file().equals(written(file))) {
                return name;
            }
            name = base + " " + i;
        }
    }

    /** From the folder of the pool where that can be said. */
    private String written(Path file) {
        Path whole = file.toAbsolutePath().normalize();
        try {
            return folder.relativize(whole).toString().replace('\\', '/');
        } catch (IllegalArgumentException elsewhere) {
            return whole.toString();
        }
    }

    /** How the file of a source is now. */
    public enum State {
        SAME,
        CHANGED,
        GONE
    }

    /** The files of all sources, by name; a file that cannot be read counts as gone. */
    public Map<String, State> states() {
        Map<String, State> out = new LinkedHashMap<>();
        for (PoolSource s : session.sources()) {
            Path file = file(s);
            try {
                out.put(
                        s.name(),
                        !Files.isRegularFile(file)
                                ? State.GONE
                                : ClosedCopy.digest(file).equals(s.digest()) ? State.SAME : State.CHANGED);
            } catch (IOException unreadable) {
                out.put(s.name(), State.GONE);
            }
        }
        return out;
    }

    /** Where the file of a source was. */
    public Path file(PoolSource source) {
        return folder.resolve(source.file()).normalize();
    }
}
