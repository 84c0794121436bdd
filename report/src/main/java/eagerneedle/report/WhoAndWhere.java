package eagerneedle.report;

import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.AtBench;
import eagerneedle.core.stockroom.Correction;
import java.util.ArrayList;
import java.util.List;

/** Who worked at which bench, who of the staff agreed, and what was put right afterwards. */
final class WhoAndWhere {
    private WhoAndWhere() {}

    /** One sentence each. */
    static List<String> of(Reduction r) {
        AtBench bench = r.session().bench();
        List<String> out = new ArrayList<>();
        if (!bench.operator().isEmpty()) {
            out.add("At the bench: " + bench.operator() + ".");
        }
        List<String> benches = new ArrayList<>(bench.earlier().stream()
                .map(AtBench.Stay::bench)
                .filter(b -> !b.isEmpty())
                .toList());
        if (!bench.bench().isEmpty()) {
            benches.add(bench.bench());
        }
        if (!benches.isEmpty()) {
            out.add("Instruments of " + String.join(", then of ", benches) + ".");
        }
        String cautions = bench.agreed().getOrDefault("cautions", "");
        if (!cautions.isEmpty()) {
            out.add("Cautions taken over by " + cautions + ".");
        }
        for (Correction c : r.session().corrections()) {
            out.add("Put right afterwards by " + c.by() + ": " + c.standard() + ", " + c.says() + ", because " + c.why()
                    + ".");
        }
        return out;
    }

    /** Who of the staff agreed to a step, after a blank; empty for nobody. */
    static String agreed(Reduction r, String step) {
        String by = r.session().bench().agreed().getOrDefault(step, "");
        return by.isEmpty() ? "" : " by " + by;
    }
}
