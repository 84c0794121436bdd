package eagerneedle.app.station;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Session;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import java.util.List;

/** How far the stations of a session have come. */
public final class Progress {
    private Progress() {}

    /** How far a station has come. */
    public static Station.State of(Workbench bench, Station station) {
        Session s = bench.session();
        List<Finding> findings = bench.findings();
        boolean taken = !s.keptRuns().isEmpty();
        return switch (station) {
            case PLAN -> of(s.measured().size(), bench.sheet().inputs().size());
            case RIG ->
                of(
                        bench.sheet().prepare().stream()
                                .filter(p -> s.signOffs().containsKey(p.id()))
                                .count(),
                        bench.sheet().prepare().size());
            case CALIBRATE ->
                findings.stream().map(Finding::rule).anyMatch(Progress::callsForCalibration)
                        ? Station.State.ATTENTION
                        : of(calibrated(bench), wanted(bench));
            case CAPTURE ->
                taken(
                        taken,
                        bench.schedule().next().isPresent()
                                || findings.stream()
                                        .anyMatch(f -> f.run() > 0 && f.severity() == Finding.Severity.WRONG));
            case REDUCE ->
                taken(
                        taken,
                        bench.schedule().next().isPresent()
                                || findings.stream()
                                        .anyMatch(f -> f.run() > 0 && f.severity() != Finding.Severity.NOTE));
            case JUDGE ->
                taken(
                        !bench.reduction().comparisons().isEmpty(),
                        bench.reduction().comparisons().size()
                                        < bench.sheet().comparisons().size()
                                || bench.schedule().next().isPresent()
                                || !bench.reduction().comparisons().stream()
                                        .allMatch(
                                                c -> c.agrees(bench.reduction().speaks(c.id()))));
            case RECORD ->
                of(
                        bench.sheet().finish().stream()
                                .filter(p -> s.signOffs().containsKey(p.id()))
                                .count(),
                        bench.sheet().finish().size());
        };
    }

    private static boolean callsForCalibration(Rule rule) {
        return rule == Rule.CALIBRATION_FAILED || rule == Rule.CALIBRATION_OVERDUE || rule == Rule.NOT_CALIBRATED;
    }

    private static long wanted(Workbench bench) {
        return bench.sheet().channels().values().stream()
                .filter(c -> c.calibration() != null)
                .count();
    }

    private static long calibrated(Workbench bench) {
        return bench.sheet().channels().keySet().stream()
                .filter(c -> bench.session().calibrationOf(c, bench.sheet()).isPresent())
                .count();
    }

    private static Station.State of(long done, long all) {
        return done == 0 ? Station.State.NOT_YET : done < all ? Station.State.ATTENTION : Station.State.DONE;
    }

    private static Station.State taken(boolean any, boolean wanting) {
        return !any ? Station.State.NOT_YET : wanting ? Station.State.ATTENTION : Station.State.DONE;
    }
}
