package eagerneedle.store.bench;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.zip.DataFormatException;
import org.jspecify.annotations.Nullable;

/**
 * Brings what is left of a damaged bench file into a new one.
 *
 * <p>Rows are found page by page ({@link Pages}), and each is taken for what it is by its shape and its own checksum:
 * an act by the session it carries, a block by the checksum of its columns, the sheet by the checksum beside it.
 * Nothing gets a fresh checksum whose old one did not fit. What is missing is told in numbers: rows are numbered
 * without gaps, and outlines say of each block which samples it held.
 */
final class Salvage {
    private record KeptAct(String at, String says, byte[] session) {}

    private record Block(int run, String channel, RawSamples samples) {}

    private record Outline(int run, String channel, long n, double from, double to) {}

    private record Attachment(String name, String kind, byte[] bytes) {}

    private final Path damaged;
    private final Map<Long, KeptAct> acts = new TreeMap<>();
    private final Map<Long, Block> blocks = new TreeMap<>();
    private final Map<Long, Outline> outlines = new TreeMap<>();
    private final Map<Long, Attachment> attachments = new TreeMap<>();
    private final Map<Long, Run> begun = new TreeMap<>();
    private final List<String> missing = new ArrayList<>();
    private long mostBlocks;
    private long mostActs;
    private @Nullable String sheet;
    private @Nullable Long sheetChecksum;

    private Salvage(Path damaged, Pages pages) {
        this.damaged = damaged;
        if (pages.cutOff() > 0) {
            missing.add("The file is %,d bytes shorter than it was; what stood there is not known."
                    .formatted(pages.cutOff()));
        }
        pages.rows().forEach(this::take);
    }

    /** Makes the new file beside its place and puts it there when it is whole; see {@link BenchFile#repair}. */
    static Repaired beside(Path damaged, Path repaired, @Nullable String sheet) {
        if (Files.exists(repaired)) {
            throw new BenchFileException(FileName.of(repaired) + " exists already; choose another name.", false);
        }
        Path target = repaired.toAbsolutePath();
        Path work = target.resolveSibling("." + FileName.of(target) + ".part");
        try {
            Files.deleteIfExists(work);
            Repaired done = of(damaged, work, sheet);
            Files.move(work, target);
            return new Repaired(FileName.of(target), done.acts(), done.blocks(), done.samples(), done.missing());
        } catch (IOException e) {
            throw new BenchFileException(
                    Files.isReadable(damaged)
                            ? FileName.of(repaired) + " cannot be written there (" + FileOpening.brief(e)
                                    + "); choose another folder."
                            : FileName.of(damaged) + " cannot be read; it was left as it is.",
                    false,
                    e);
        } finally {
            for (String end : new String[] {"", "-wal", "-shm"}) {
                try {
                    Files.deleteIfExists(work.resolveSibling(FileName.of(work) + end));
                } catch (IOException e) {
                    work.toFile().deleteOnExit();
                }
            }
        }
    }

    /**
     * Puts everything readable into a new file.
     *
     * @param sheetInstead a method sheet to be used where the one in the file is garbled; null for none
     */
    static Repaired of(Path damaged, Path repaired, @Nullable String sheetInstead) throws IOException {
        return new Salvage(damaged, new Pages(damaged)).into(repaired, sheetInstead);
    }

    private void take(Pages.Row r) {
        if (r.values().isEmpty() || r.values().get(0) != null) {
            // Of these tables each begins with the number of its row, which is stored as nothing; outlines state
            // theirs.
            return;
        }
        if (r.values().size() >= 6
                && r.has(1, Long.class)
                && r.has(2, String.class)
                && r.has(3, Long.class)
                && r.has(4, byte[].class)
                && r.has(5, byte[].class)) {
            block(r);
        } else if (r.values().size() == 7
                && r.has(1, Long.class)
                && r.has(2, String.class)
                && r.has(3, Long.class)
                && r.has(4, Number.class)
                && r.has(5, Number.class)
                && r.has(6, byte[].class)) {
            outlines.put(
                    r.id(),
                    new Outline(
                            (int) r.number(1),
                            r.text(2),
                            r.number(3),
                            ((Number) r.values().get(4)).doubleValue(),
                            ((Number) r.values().get(5)).doubleValue()));
            mostBlocks = Math.max(mostBlocks, r.id());
        } else if (r.values().size() >= 6
                && r.has(1, String.class)
                && (r.has(2, String.class) || r.values().get(2) == null)
                && r.has(3, String.class)) {
            begun(r);
        } else if (r.values().size() == 4
                && r.has(1, String.class)
                && r.has(2, String.class)
                && (r.has(3, byte[].class) || r.values().get(3) == null)) {
            actOrAttachment(r);
        } else if (r.id() == 1 && r.values().size() <= 3 && r.has(1, String.class)) {
            sheet = r.text(1);
            sheetChecksum = r.has(2, Long.class) ? (Long) r.number(2) : null;
        }
    }

    private void block(Pages.Row r) {
        try {
            RawSamples samples =
                    SampleBlocks.unpack(r.bytes(4), r.bytes(5), r.has(6, Long.class) ? (int) r.number(6) : 1);
            if (samples.size() == r.number(3)) {
                blocks.put(r.id(), new Block((int) r.number(1), r.text(2), samples));
                mostBlocks = Math.max(mostBlocks, r.id());
            }
        } catch (DataFormatException | IllegalArgumentException notSamples) {
            return;
        }
    }

    private void begun(Pages.Row r) {
        try {
            Instant started = Instant.parse(r.text(3));
            begun.put(
                    r.id(),
                    r.has(6, byte[].class)
                            ? SessionJson.unpackRun(r.bytes(6))
                            : Run.captured(
                                    (int) r.id(),
                                    r.text(1),
                                    r.text(2),
                                    started,
                                    r.has(4, String.class) ? r.text(4) : "",
                                    r.has(5, String.class) ? r.text(5) : Run.COUNTS));
        } catch (DateTimeParseException | IOException | IllegalArgumentException garbled) {
            return;
        }
    }

    private void actOrAttachment(Pages.Row r) {
        try {
            Instant.parse(r.text(1));
            byte[] session = r.bytes(3);
            if (session == null || read(session) != null) {
                acts.put(r.id(), new KeptAct(r.text(1), r.text(2), session));
            }
            mostActs = Math.max(mostActs, r.id());
        } catch (DateTimeParseException notAnAct) {
            if (r.bytes(3) != null) {
                attachments.put(r.id(), new Attachment(r.text(1), r.text(2), r.bytes(3)));
            }
        }
    }

    private static @Nullable Session read(byte[] packed) {
        try {
            return SessionJson.unpack(packed);
        } catch (IOException | IllegalArgumentException e) {
            return null;
        }
    }

    private Repaired into(Path repaired, @Nullable String sheetInstead) {
        Session last = null;
        long lastAct = 0;
        for (Map.Entry<Long, KeptAct> e : acts.entrySet()) {
            Session s =
                    e.getValue().session() == null ? null : read(e.getValue().session());
            last = s == null ? last : s;
            lastAct = s == null ? lastAct : e.getKey();
        }
        if (last == null) {
            throw new BenchFileException(
                    "No session could be read in " + FileName.of(damaged)
                            + ", so nothing could be repaired; the file was left as it is.",
                    false);
        }
        String text = sheetText(sheetInstead);
        Session whole = last.sheetText().isEmpty() ? last.withSheetText(text) : last;
        account(lastAct, whole);
        try (BenchFile to = BenchFile.create(repaired, whole.withSheetText(text))) {
            to.together(() -> {
                acts.values().forEach(a -> to.carryAct(a.at(), a.says(), a.session()));
                blocks.values().forEach(b -> to.append(b.run(), b.channel(), b.samples()));
                begun.values().forEach(to::begin);
                attachments.values().forEach(a -> to.attach(a.name(), a.kind(), a.bytes()));
                to.save(
                        whole,
                        Instant.now(),
                        "Repaired from " + FileName.of(damaged) + ". " + String.join(" ", missing));
            });
        }
        return new Repaired(
                FileName.of(repaired),
                acts.size(),
                blocks.size(),
                blocks.values().stream().mapToLong(b -> b.samples().size()).sum(),
                missing);
    }

    /** The sheet as it was written; where it is garbled, one from elsewhere, and never itself with a fresh checksum. */
    private String sheetText(@Nullable String instead) {
        boolean whole = sheet != null && (sheetChecksum == null || Schema.checksum(sheet) == sheetChecksum);
        if (whole) {
            if (sheetChecksum == null) {
                missing.add("The method sheet has no checksum in this older file and could not be checked.");
            }
            return Objects.requireNonNull(sheet);
        }
        for (String id : SheetReader.shipped()) {
            if (sheetChecksum != null && Schema.checksum(SheetReader.shippedText(id)) == sheetChecksum) {
                missing.add("The method sheet was garbled; it is the shipped one called " + id
                        + ", taken from the program.");
                return SheetReader.shippedText(id);
            }
        }
        if (instead == null) {
            throw new BenchFileException(
                    "The method sheet in " + FileName.of(damaged) + " is " + (sheet == null ? "lost" : "garbled")
                            + ", so that its numbers would mean something else; repair it with the sheet it was "
                            + "made with (another sheet, or --sheet). "
                            + "It holds " + blocks.size() + " readable blocks of samples and " + acts.size()
                            + " notebook lines, and was left as it is.",
                    false);
        }
        SheetReader.read(instead, "the sheet given");
        missing.add(
                "The method sheet was " + (sheet == null ? "lost" : "garbled") + "; the one given was put in its place"
                        + (sheetChecksum != null && Schema.checksum(instead) == sheetChecksum
                                ? ", and is the same."
                                : " and is not the same."));
        return instead;
    }

    private void account(long lastAct, Session session) {
        long actsLost = mostActs - acts.size();
        if (actsLost > 0) {
            missing.add(
                    actsLost + (actsLost == 1 ? " notebook line could" : " notebook lines could") + " not be read.");
        }
        if (lastAct < mostActs) {
            missing.add("The session is as it stood after act " + lastAct + " of " + mostActs
                    + "; look what was done after that.");
        }
        settle(session);
        List<Integer> homeless = blocks.values().stream()
                .map(Block::run)
                .distinct()
                .filter(run -> session.run(run).isEmpty())
                .sorted()
                .toList();
        if (!homeless.isEmpty()) {
            missing.add("Samples of " + (homeless.size() == 1 ? "run " : "runs ")
                    + String.join(", ", homeless.stream().map(String::valueOf).toList())
                    + " belong to no run of that session; they are offered as unfinished runs when the "
                    + "file is opened.");
            homeless.stream()
                    .filter(run -> !begun.containsKey((long) run))
                    .forEach(run -> begun.put((long) run, unnamed(run, session)));
        }
        long lost = 0;
        long samples = 0;
        for (long seq = 1; seq <= mostBlocks; seq++) {
            if (!blocks.containsKey(seq)) {
                lost++;
                Outline o = outlines.get(seq);
                samples += o == null ? 0 : o.n();
                if (lost <= 12) {
                    missing.add(
                            o == null
                                    ? "Block " + seq + " of samples could not be read."
                                    : "Run %d lacks %,d samples of %s from %.4g s to %.4g s."
                                            .formatted(o.run(), o.n(), o.channel(), o.from(), o.to()));
                }
            }
        }
        if (lost > 12) {
            missing.add("In all %d blocks could not be read, %,d samples by what outlines say of them."
                    .formatted(lost, samples));
        }
        if (!attachments.isEmpty()) {
            missing.add("Attached files (" + attachments.size() + ") carry no checksum; look at them.");
        }
    }

    /**
     * No checksum covers the run and the channel of a block's row; its outline says both a second time. Where they
     * differ, the one that fits the session is followed, and told.
     */
    private void settle(Session session) {
        Map<String, Long> often =
                blocks.values().stream().collect(Collectors.groupingBy(Block::channel, Collectors.counting()));
        outlines.values().forEach(o -> often.merge(o.channel(), 1L, Long::sum));
        for (Map.Entry<Long, Outline> e : outlines.entrySet()) {
            Block b = blocks.get(e.getKey());
            Outline o = e.getValue();
            if (b == null || b.run() == o.run() && b.channel().equals(o.channel())) {
                continue;
            }
            boolean ofBlock = session.run(b.run()).isPresent()
                    && often.getOrDefault(b.channel(), 0L) > often.getOrDefault(o.channel(), 0L);
            boolean byOutline = !ofBlock && session.run(o.run()).isPresent();
            if (byOutline) {
                blocks.put(e.getKey(), new Block(o.run(), o.channel(), b.samples()));
            }
            missing.add("Block " + e.getKey() + " of samples says run " + b.run() + ", " + b.channel()
                    + ", and its outline run " + o.run() + ", " + o.channel() + "; "
                    + (byOutline ? "the outline" : "the block") + " was followed. Look at both.");
        }
    }

    /** A run of which nothing but samples is left, put where the sheet has its first capture. */
    private Run unnamed(int run, Session session) {
        Run like = session.runs().isEmpty()
                ? null
                : session.runs().get(session.runs().size() - 1);
        return like != null
                ? Run.captured(run, like.capture(), like.level(), session.created(), "repaired", like.rawUnit())
                : Run.captured(
                        run,
                        SheetReader.read(session.sheetText(), "sheet")
                                .sheet()
                                .captures()
                                .keySet()
                                .iterator()
                                .next(),
                        "",
                        session.created(),
                        "repaired",
                        Run.COUNTS);
    }
}
