package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.judge.Repeated;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What the runs of one level give together: their mean, and whether they scatter more than they say themselves. */
final class TogetherModel {
    private final Desk desk;

    TogetherModel(Desk desk) {
        this.desk = desk;
    }

    /** The capture of the run in hand; empty without one. */
    String capture() {
        return desk.run()
                .flatMap(x -> desk.bench().session().run(x.id()))
                .map(Run::capture)
                .filter(desk.bench().sheet().captures()::containsKey)
                .orElse("");
    }

    /** All runs of a capture over each other, by its first channel. */
    Optional<Plot> overlay(String capture) {
        Capture c = desk.bench().sheet().captures().get(capture);
        return c == null
                ? Optional.empty()
                : c.top().flatMap(top -> SessionPlots.overlay(desk.bench().reduction(), capture, top));
    }

    /** One line a level of a capture that has several runs. */
    List<Together> together(String capture) {
        return together(desk.bench().reduction(), capture);
    }

    /** What the runs of one level give together. */
    record Together(String level, String mean, String says) {}

    /** One line a level that has several runs. */
    static List<Together> together(Reduction r, String capture) {
        Map<String, List<Run>> byLevel = new LinkedHashMap<>();
        r.runs().stream()
                .filter(x -> x.capture().equals(capture) && x.takesPart())
                .forEach(x -> byLevel.computeIfAbsent(x.level(), k -> new ArrayList<>())
                        .add(x));
        List<Together> out = new ArrayList<>();
        byLevel.forEach((level, runs) -> {
            List<Ledger.Entry> entries = runs.stream()
                    .flatMap(x -> r.headline(x).stream())
                    .filter(e -> e.quantity().filter(q -> q.u() > 0).isPresent())
                    .toList();
            if (entries.size() > 1) {
                out.add(together(SessionPlots.levelLabel(r, runs.get(0)), entries));
            }
        });
        return out;
    }

    private static Together together(String level, List<Ledger.Entry> entries) {
        Repeated all = Repeated.of(
                entries.stream().map(e -> e.quantity().orElseThrow()).toList(), level);
        String runs = entries.size() + " runs";
        if (Double.isNaN(all.birge())) {
            return new Together(
                    level,
                    all.mean().toString(),
                    runs + ", not each with a noise of its own: the plain mean with their scatter");
        }
        return new Together(
                level,
                all.mean().toString(),
                runs
                        + (all.overdispersed()
                                ? ", scattering more than each says of itself ("
                                : ", scattering as their uncertainties say (")
                        + "Birge ratio " + Notation.plain(all.birge(), 2) + ")");
    }
}
