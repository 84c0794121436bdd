package eagerneedle.app.training;

import eagerneedle.core.benches.Bench;
import eagerneedle.core.benches.Deviation;
import eagerneedle.core.marking.Wanted;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.training.Hunt;
import eagerneedle.core.watch.Finding;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Where a hidden fault could have been seen: the method is carried out twice by the simulated bench, with it and
 * without, and what differs is said.
 */
final class WhatWasToSee {
    private static final long SEED = 3;
    private static final int MOST = 3;

    private WhatWasToSee() {}

    /** One sentence each; empty where nothing was hidden. */
    static List<String> of(SheetReader.Located sheet, Hunt hunt) {
        if (hunt.hidden().isEmpty()) {
            return List.of();
        }
        Bench faulty = carriedOut(sheet, Set.copyOf(hunt.atBench()));
        Bench good = carriedOut(sheet, Set.of());
        List<String> wanted = Wanted.of(sheet.sheet());
        List<String> out = new ArrayList<>();
        new SessionWatch()
                .look(faulty.reduction(), Instant.EPOCH).stream()
                        .filter(f -> f.severity() != Finding.Severity.NOTE)
                        .sorted(Comparator.comparing(Finding::severity).reversed())
                        .map(f -> "The watches would have said: " + f.message())
                        .distinct()
                        .limit(MOST)
                        .forEach(out::add);
        List<Deviation> all = Deviation.of(faulty, good, wanted);
        all.stream().filter(Deviation::ofRun).limit(MOST).forEach(d -> out.add(said("At Reduce, ", d)));
        all.stream().filter(d -> !d.ofRun()).limit(MOST).forEach(d -> out.add(said("At Judge, ", d)));
        long lost = wanted.stream()
                .filter(r -> good.reduction().quantity(r).isPresent()
                        && faulty.reduction().quantity(r).isEmpty())
                .count();
        if (lost > 0) {
            out.add("At Judge, " + lost + (lost == 1 ? " result has" : " results have") + " no value with it.");
        }
        return out;
    }

    private static Bench carriedOut(SheetReader.Located sheet, Set<String> faults) {
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), SEED, faults), Instant.EPOCH);
        return new Bench(
                "bench",
                sheet,
                r.session(),
                (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
    }

    private static String said(String where, Deviation d) {
        return where + d.label() + ": about " + number(d.own().value()) + " in place of "
                + number(d.other().value())
                + (d.own().unit().pretty().isEmpty() ? "" : " " + d.own().unit().pretty()) + ".";
    }

    private static String number(double v) {
        return Notation.plain(v, 3);
    }
}
