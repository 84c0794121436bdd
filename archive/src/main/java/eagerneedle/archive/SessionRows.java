package eagerneedle.archive;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.watch.Finding;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What an archive keeps of a session. Free texts are not kept, since anybody may be named in them: notes, titles,
 * reasons, names of runs and of files stay in the bench file.
 */
final class SessionRows {
    /** Share of a variance that is rounding. */
    private static final double SMALL = 1e-12;

    private static final double YEAR = 365.2425 * 86400;

    private final Writer to;
    private final String session;
    private final Reduction r;
    private final String method;
    private final int year;

    /** @param session what it is known by */
    SessionRows(Writer to, String session, Reduction reduction) {
        this.to = to;
        this.session = session;
        this.r = reduction;
        method = folder(reduction.sheet().id());
        year = reduction.session().created().atZone(ZoneOffset.UTC).getYear();
    }

    /** A method as a folder may be called: an id, cleaned of what is none. */
    static String folder(String id) {
        String clean = id.replaceAll("[^A-Za-z0-9_-]", "_");
        return clean.isEmpty() ? "_" : clean;
    }

    /** A moment as a year with its fraction, the same for every engine that reads it. */
    static double years(Instant at) {
        return 1970 + at.getEpochSecond() / YEAR;
    }

    /** The term of a moment: spring to April, summer to August, autumn after. */
    static String term(Instant at) {
        int month = at.atZone(ZoneOffset.UTC).getMonthValue();
        return at.atZone(ZoneOffset.UTC).getYear() + (month <= 4 ? " spring" : month <= 8 ? " summer" : " autumn");
    }

    private void add(ArchiveTable t, @Nullable Object... values) {
        to.add(t, session, method, year, values);
    }

    /**
     * Writes all rows.
     *
     * @param people who took part, by pseudonym
     * @param bytes of the bench file
     * @param samples whether raw samples are kept too
     */
    void write(List<String> people, long bytes, boolean samples) {
        Session s = r.session();
        add(
                ArchiveTable.SESSIONS,
                r.sheet().title(),
                s.bench().bench(),
                term(s.created()),
                years(s.created()),
                s.created(),
                s.keptRuns().size(),
                bytes);
        people.forEach(p -> add(ArchiveTable.PEOPLE, p));
        for (Run run : s.runs()) {
            run(run, samples);
        }
        results();
        comparisons();
        calibrations();
        instruments();
        choices();
        for (Finding f : new SessionWatch().look(r, s.created())) {
            add(
                    ArchiveTable.FINDINGS,
                    f.run() > 0 ? f.run() : null,
                    f.watch(),
                    f.severity().name(),
                    f.channel());
        }
    }

    private void run(Run run, boolean samples) {
        long n = 0;
        for (String channel : r.sheet().channels().keySet()) {
            RawSamples raw = r.source().samples(run.id(), channel);
            n += raw.size();
            if (samples) {
                for (int i = 0; i < raw.size(); i++) {
                    add(ArchiveTable.SAMPLES, run.id(), channel, raw.time()[i], raw.values()[i]);
                }
            }
        }
        add(ArchiveTable.RUNS, run.id(), run.capture(), run.level(), run.started(), n, run.takesPart());
        if (!run.takesPart() || !r.sheet().captures().containsKey(run.capture())) {
            return;
        }
        r.sheet()
                .capture(run.capture())
                .quantities()
                .forEach((name, d) -> r.ofRun(run, name)
                        .quantity()
                        .ifPresent(q -> quantity(run.id(), run.capture() + "." + name, d.label(), q)));
    }

    private void quantity(@Nullable Integer run, String name, @Nullable String label, Quantity q) {
        double dof = q.dof();
        add(
                ArchiveTable.QUANTITIES,
                run,
                name,
                label,
                q.value(),
                q.u(),
                Double.isInfinite(dof) ? null : dof,
                q.unit().symbol());
    }

    private void results() {
        r.sheet()
                .results()
                .forEach((name, d) -> r.quantity(name).ifPresent(q -> {
                    quantity(null, name, d.label(), q);
                    Map<String, Double> byLabel = new LinkedHashMap<>();
                    Map<String, String> sources = new LinkedHashMap<>();
                    Quantity linear = q.linear();
                    for (Map.Entry<Leaf, Double> e : linear.contributions().entrySet()) {
                        byLabel.merge(e.getKey().label(), e.getValue() * e.getValue(), Double::sum);
                        sources.putIfAbsent(
                                e.getKey().label(), String.valueOf(e.getKey().source()));
                    }
                    double rest = q.u() * q.u()
                            - byLabel.values().stream()
                                    .mapToDouble(Double::doubleValue)
                                    .sum();
                    if (rest > SMALL * q.u() * q.u()) {
                        byLabel.put("what is not in proportion", rest);
                        sources.put("what is not in proportion", "second order");
                    }
                    byLabel.forEach((label, square) -> add(
                            ArchiveTable.CONTRIBUTIONS,
                            name,
                            label,
                            sources.get(label),
                            Math.sqrt(square),
                            q.unit().symbol()));
                }));
    }

    private void comparisons() {
        for (Comparison c : r.comparisons()) {
            LabUnit unit = c.result().unit();
            add(
                    ArchiveTable.COMPARISONS,
                    c.id(),
                    c.label(),
                    c.result().value(),
                    c.result().u(),
                    c.reference().in(unit),
                    c.reference().u() * c.reference().unit().scaleTo(unit),
                    unit.symbol(),
                    c.agrees(r.speaks(c.id())));
        }
    }

    private void calibrations() {
        for (Calibration c : r.session().calibrations()) {
            @Nullable Double[] line = line(c);
            List<String> chain = c.chain();
            add(
                    ArchiveTable.CALIBRATIONS,
                    c.channel(),
                    c.kind(),
                    c.reference(),
                    chain == null ? "" : String.join(" ", chain),
                    c.taken(),
                    c.due(),
                    years(c.taken()),
                    line[0],
                    line[1],
                    line[2],
                    line[3],
                    c.unit());
        }
    }

    /** Slope and intercept of a relation with their uncertainties; nothing where it has none. */
    private static @Nullable Double[] line(Calibration c) {
        @Nullable Double[] out = new Double[4];
        try {
            if (c.closure() == null) {
                List<Quantity> p = c.coefficients();
                if (p.size() > 1) {
                    out[0] = p.get(1).value();
                    out[1] = p.get(1).u();
                }
                if (!p.isEmpty()) {
                    out[2] = p.get(0).value();
                    out[3] = p.get(0).u();
                }
            }
        } catch (FitException e) {
            Arrays.fill(out, null);
        }
        return out;
    }

    /** Serials that the session names, in its chains and in what its inputs are read with. */
    private void instruments() {
        Set<String> serials = new LinkedHashSet<>();
        Sheet sheet = r.sheet();
        sheet.channels()
                .keySet()
                .forEach(name -> r.session().channel(sheet, name).chain().stream()
                        .filter(l -> l.instrument() != null)
                        .forEach(l -> serials.add(l.instrument())));
        r.session().tied().values().forEach(i -> serials.add(i.id()));
        serials.forEach(
                s -> add(ArchiveTable.INSTRUMENTS, s, r.session().bench().bench()));
    }

    private void choices() {
        Session s = r.session();
        if (s.school() != null) {
            add(ArchiveTable.CHOICES, "school", s.school().name());
        }
        if (s.coverageChosen() != null) {
            add(ArchiveTable.CHOICES, "coverage", s.coverage().percent());
        }
        s.picked().forEach((what, way) -> add(ArchiveTable.CHOICES, what, way));
        long left = s.keptRuns().stream().filter(x -> x.leftOut() != null).count();
        if (left > 0) {
            add(ArchiveTable.CHOICES, "runs left out", Long.toString(left));
        }
        String windows = s.keptRuns().stream()
                .flatMap(x -> x.windows().keySet().stream())
                .distinct()
                .sorted()
                .collect(Collectors.joining(" "));
        if (!windows.isEmpty()) {
            add(ArchiveTable.CHOICES, "windows moved", windows);
        }
        s.corrections().forEach(c -> add(ArchiveTable.CHOICES, "put right", c.standard()));
    }
}
