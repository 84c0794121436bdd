package eagerneedle.app.ready;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.core.day.ReadyCheck.Row;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.store.stockroom.ReadyBook;
import eagerneedle.store.stockroom.StockroomException;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** A bench looked at before a class, without an interface. */
final class ReadyModel {
    private static final String INSTRUMENTS = "Instruments";
    private static final String ANSWERS = "Self-test";
    private static final String POINT = "Known point";
    private static final String RUN = "One run";
    private static final double SECONDS = 2;
    private static final double SAMPLES = 10;
    private static final double SETTLES = 0.3;

    private final Desk desk;
    private final ReadyBook book;
    private final Map<String, Row> rows = new LinkedHashMap<>();
    private final Map<String, ReadyCheck.Number> numbers = new LinkedHashMap<>();
    private String bench;
    private double since;
    private @Nullable ReadyCheck signed;
    private @Nullable AtPoint point;

    /** What was read at the known point, and what is to be said of it whichever bench it is. */
    private record AtPoint(ReadyCheck.Number number, boolean right, boolean calibrated, String says) {}

    /**
     * A point that the bench can be set to.
     *
     * @param part points or verify
     * @param index among those
     */
    record Point(String channel, String part, int index, Channel.PointPlan plan, String label) {}

    ReadyModel(Desk desk, ReadyBook book, String bench) {
        this.desk = desk;
        this.book = book;
        this.bench = bench;
    }

    private Sheet sheet() {
        return desk.bench().sheet();
    }

    String bench() {
        return bench;
    }

    /** Says which it is; what was read at the known point is held against the last check of that one. */
    void bench(String name) {
        if (!name.strip().equals(bench)) {
            bench = name.strip();
            rows.remove(POINT);
            if (point != null) {
                rows.put(POINT, held(point));
            }
        }
    }

    private Optional<ReadyCheck> last() {
        return book.last(bench, sheet().id());
    }

    /** What was said of this bench the last time; empty where it was never looked at. */
    String lastSays() {
        Optional<ReadyCheck> last;
        try {
            last = last();
        } catch (StockroomException e) {
            return String.valueOf(e.getMessage());
        }
        return last.map(c -> "Last signed by " + c.by() + " on " + Notation.day(c.at())
                        + (c.isReady() ? ": ready." : ": not ready."))
                .orElse("");
    }

    /** What was found so far, in the order in which it is looked at; empty rows are still to be looked at. */
    Map<String, Optional<Row>> rows() {
        Map<String, Optional<Row>> out = new LinkedHashMap<>();
        for (String what : List.of(INSTRUMENTS, ANSWERS, POINT, RUN)) {
            out.put(what, Optional.ofNullable(rows.get(what)));
        }
        return out;
    }

    /** Looks at everything that can be looked at without hands. */
    void look() {
        rows.put(INSTRUMENTS, instruments());
        rows.put(ANSWERS, answers());
        rows.put(RUN, run());
        if (points().isEmpty()) {
            rows.put(POINT, new Row(POINT, true, "No channel of this method has a point that can be set and read."));
        }
    }

    /** How long a channel is read, in s: never fewer than ten samples. */
    private static double seconds(Channel c) {
        return Math.max(SECONDS, c.rate() > 0 ? SAMPLES / c.rate() : 0);
    }

    private Row instruments() {
        Map<String, Instrument> stock = desk.stockroom().all().stream()
                .collect(Collectors.toMap(Instrument::id, i -> i, (a, b) -> a, LinkedHashMap::new));
        Set<String> used = InstrumentsInUse.serials(desk.bench().session(), sheet(), stock.keySet());
        Instant now = desk.bench().clock().instant();
        List<String> bad = new ArrayList<>();
        for (String serial : used) {
            Instrument i = stock.get(serial);
            if (i == null) {
                bad.add(serial + " is not in the stockroom.");
            } else {
                i.objection(now).ifPresent(bad::add);
            }
        }
        return new Row(
                INSTRUMENTS,
                bad.isEmpty(),
                bad.isEmpty()
                        ? used.isEmpty() ? "The sheet names none." : "Nothing against " + String.join(", ", used) + "."
                        : String.join(" ", bad));
    }

    /** Whether every channel of what is connected sends readings that its sensor could give. */
    private Row answers() {
        Optional<LiveRig> rig = desk.rig();
        if (sheet().devices().isEmpty()) {
            return new Row(ANSWERS, true, "Everything is read by eye.");
        }
        if (rig.isEmpty()) {
            return new Row(ANSWERS, false, "Nothing is connected: connect it at Rig.");
        }
        List<String> bad = new ArrayList<>();
        int good = 0;
        for (String name : rig.get().channels()) {
            Channel c = desk.bench().session().channel(sheet(), name);
            RawSamples raw = rig.get().last(name, seconds(c));
            if (c.chain().isEmpty() || c.toChain().converter().step() <= 0) {
                good += raw.size() > 0 ? 1 : 0;
            } else if (raw.size() == 0) {
                bad.add(c.label() + " sends nothing.");
            } else if (LiveReadings.trace(c, raw).size() == 0) {
                bad.add(c.label() + " is beyond the reach of its chain: a lead is open, or the range is too small.");
            } else {
                good++;
            }
        }
        if (rig.get().lost() > 0) {
            bad.add(rig.get().lost() + " samples came and were lost.");
        }
        return new Row(
                ANSWERS,
                bad.isEmpty() && good > 0,
                bad.isEmpty()
                        ? good == 0
                                ? "No channel has sent anything yet; look again."
                                : rig.get().label() + " answers; " + good + (good == 1 ? " channel" : " channels")
                                        + " within reach."
                        : String.join(" ", bad));
    }

    /** The points at which a channel can be looked at, the ones that test a calibration first. */
    List<Point> points() {
        List<Point> out = new ArrayList<>();
        sheet().channels().forEach((name, c) -> {
            if (c.calibration() == null
                    || c.calibration().typed()
                    || c.calibration().toRelation() == Relation.CLOSURE) {
                return;
            }
            add(out, name, c, "verify", c.calibration().verify());
            add(out, name, c, "points", c.calibration().points());
        });
        return out;
    }

    private static void add(List<Point> out, String name, Channel c, String part, List<Channel.PointPlan> plans) {
        for (int i = 0; i < plans.size(); i++) {
            out.add(new Point(
                    name,
                    part,
                    i,
                    plans.get(i),
                    c.label() + ": " + Notation.asWritten(plans.get(i).words())));
        }
    }

    /**
     * Says that the bench is set to a point, or is about to be; a simulated one sets itself.
     *
     * @throws IllegalArgumentException with one sentence where nothing is connected
     */
    void set(Point p) {
        LiveRig rig = desk.rig()
                .orElseThrow(() -> new IllegalArgumentException("Nothing is connected: connect it at Rig first."));
        try {
            rig.arrange(Map.of(
                    "channel",
                    p.channel(),
                    "part",
                    p.part(),
                    "point",
                    Integer.toString(p.index()),
                    "reference",
                    p.plan().reference()));
        } catch (IOException e) {
            throw new IllegalArgumentException(String.valueOf(e.getMessage()), e);
        }
        since = rig.end(p.channel()) + SETTLES;
        point = null;
        rows.remove(POINT);
        numbers.remove(POINT);
    }

    /**
     * Reads what stands there now, and holds it against the reference and the last check.
     *
     * @throws IllegalArgumentException with one sentence where there is nothing steady to read
     */
    void read(Point p) {
        LiveRig rig = desk.rig()
                .orElseThrow(() -> new IllegalArgumentException("Nothing is connected: connect it at Rig first."));
        Channel c = desk.bench().session().channel(sheet(), p.channel());
        WindowStatistics w = LiveReadings.of(c, LiveReadings.since(rig.last(p.channel(), seconds(c)), since))
                .filter(s -> s.n() >= seconds(c) * c.rate() / 2)
                .orElseThrow(() -> new IllegalArgumentException("Too few samples since it was set: read it again in "
                        + Notation.plain(Math.ceil(seconds(c)), 2) + " s."));
        Quantity reference = desk.bench()
                .reduction()
                .evaluate(p.plan().reference(), "ready", "reference")
                .to(c.labUnit());
        Optional<Calibration> kept = desk.bench().session().calibrationOf(p.channel(), c);
        CalibrationPoint here =
                CalibrationPoint.computed(p.plan().words(), reference, w.mean(), w.uMean(), w.n(), true);
        Instant now = desk.bench().clock().instant();
        Optional<Quantity> error = kept.flatMap(k ->
                k.withAfter(new AfterUse(now, List.of(here), AfterUse.Use.TELL)).driftFound());
        ReadyCheck.Number number =
                new ReadyCheck.Number(p.channel() + "/" + p.plan().words(), p.label(), w.mean(), w.uMean(), c.unit());
        numbers.put(POINT, number);
        String allowed = c.calibrationPlan().tolerance();
        double tolerance = allowed == null ? 0 : difference(c, allowed);
        boolean right = error.isEmpty()
                || Math.abs(error.get().value()) <= Math.max(2 * error.get().u(), tolerance);
        String says = error.map(e -> " It is off by " + Notation.bracket(e) + " by the calibration in force.")
                .orElse(" There is no calibration yet to hold it against.");
        // What a sensor shows without its calibration may change from term to term; the calibration takes that out.
        point = new AtPoint(number, right, kept.isPresent(), says);
        rows.put(POINT, held(point));
    }

    private Row held(AtPoint read) {
        Row against = ReadyCheck.held(POINT, read.number(), last());
        return new Row(POINT, read.right() && (against.good() || read.calibrated()), against.says() + read.says());
    }

    private static double difference(Channel c, String text) {
        Reading r = Reading.parse(text);
        return r.value() * r.unit().scaleTo(c.labUnit());
    }

    /** The last run that was kept, by the first number that belongs to it. */
    private Row run() {
        Reduction r = desk.bench().reduction();
        numbers.remove(RUN);
        Optional<Run> run = desk.bench().session().keptRuns().stream()
                .filter(Run::takesPart)
                .reduce((a, b) -> b);
        if (run.isEmpty()) {
            return new Row(RUN, false, "No run is kept yet: take one at Capture.");
        }
        for (Map.Entry<String, Derived> d : Objects.requireNonNull(
                        sheet().captures().get(run.get().capture()))
                .quantities()
                .entrySet()) {
            Optional<Quantity> q = r.ofRun(run.get(), d.getKey()).quantity();
            if (q.isPresent() && d.getValue().label() != null) {
                ReadyCheck.Number n = new ReadyCheck.Number(
                        run.get().capture() + "/" + run.get().level() + "/" + d.getKey(),
                        run.get().name() + ", " + d.getValue().label(),
                        q.get().value(),
                        q.get().u(),
                        q.get().unit().symbol());
                numbers.put(RUN, n);
                return ReadyCheck.held(RUN, n, last());
            }
        }
        return new Row(RUN, false, run.get().name() + " gives no number yet; look at it at Reduce.");
    }

    /** True when everything was looked at, so that it can be signed. */
    boolean canSign() {
        return rows().values().stream().allMatch(Optional::isPresent);
    }

    /**
     * Keeps the check with the laboratory and in the notebook of the session.
     *
     * @throws IllegalArgumentException with one sentence where something was not looked at, or nobody is named
     */
    ReadyCheck sign(String by) {
        if (bench.isBlank()) {
            throw new IllegalArgumentException("Say which bench this is.");
        }
        if (by.isBlank()) {
            throw new IllegalArgumentException("Say who signs.");
        }
        List<String> staff = desk.site().staff();
        if (!staff.isEmpty() && !staff.contains(by.strip())) {
            throw new IllegalArgumentException(
                    by.strip() + " is not among the staff of the laboratory: " + String.join(", ", staff) + ".");
        }
        if (!canSign()) {
            throw new IllegalArgumentException("Look at everything first: "
                    + rows().entrySet().stream()
                            .filter(e -> e.getValue().isEmpty())
                            .map(e -> e.getKey().toLowerCase(java.util.Locale.ROOT))
                            .collect(Collectors.joining(", "))
                    + " is still open.");
        }
        ReadyCheck check = new ReadyCheck(
                desk.bench().clock().instant(),
                bench,
                sheet().id(),
                by.strip(),
                List.copyOf(rows.values()),
                List.copyOf(numbers.values()));
        book.add(check);
        signed = check;
        desk.bench()
                .apply(new RecordCommand.AddNote(
                        check.at(),
                        "Ready check of " + bench + ", signed by " + by.strip() + ": "
                                + (check.isReady() ? "ready" : "not ready") + ". "
                                + check.rows().stream()
                                        .map(r -> r.what() + ": " + r.says())
                                        .collect(Collectors.joining(" ")),
                        List.of()));
        return check;
    }

    Optional<ReadyCheck> signed() {
        return Optional.ofNullable(signed);
    }
}
