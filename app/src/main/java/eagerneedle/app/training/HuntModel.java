package eagerneedle.app.training;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.training.Hunt;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** A fault that is hunted in a session: the clock, the answers there are, and what is said in the end. */
public final class HuntModel {
    /** The choice of who found nothing wrong. */
    public static final String NOTHING = "";

    private final Hunt hunt;
    private final Workbench bench;
    private final Clock clock;
    private final Instant begun;
    private final Path kept;

    /**
     * Begins the hunt; the watches of the session fall silent.
     *
     * @param kept the file of the progress
     */
    public HuntModel(Hunt hunt, Workbench bench, Clock clock, Path kept) {
        this.hunt = hunt;
        this.bench = bench;
        this.clock = clock;
        this.kept = kept;
        begun = clock.instant();
        bench.silence(true);
    }

    public Hunt hunt() {
        return hunt;
    }

    /** The session in which it is hunted. */
    public Workbench bench() {
        return bench;
    }

    /** How long it has lasted, such as {@code 3:07}. */
    public String lasted() {
        long s = seconds();
        return "%d:%02d".formatted(s / 60, s % 60);
    }

    private long seconds() {
        return Math.max(0, Duration.between(begun, clock.instant()).toSeconds());
    }

    /** What may be wrong, by id; nothing comes last. */
    public Map<String, String> faults() {
        Map<String, String> out = new LinkedHashMap<>();
        hunt.faults().forEach(m -> out.put(m.id(), m.label()));
        out.put(NOTHING, "nothing: all is as it should be");
        return out;
    }

    /** What may be known of it, by the id of the fault, in another order than the faults. */
    public Map<String, String> remedies() {
        List<Sheet.Mistake> all = new ArrayList<>(hunt.faults());
        Collections.shuffle(all, new Random(bench.session().created().getEpochSecond()));
        Map<String, String> out = new LinkedHashMap<>();
        all.forEach(m -> out.put(m.id(), m.says()));
        out.put(NOTHING, "nothing has to be done");
        return out;
    }

    /** Takes the answer, ends the hunt, and says what was hidden and what could have been seen. */
    public List<String> answer(String fault, String remedy) {
        Hunt.Judged judged = hunt.judge(fault, remedy);
        List<String> out = new ArrayList<>(judged.says());
        out.add("It took " + lasted() + ".");
        TrainingProgress.read(kept)
                .with(new TrainingProgress.Hunted(
                        bench.sheet().id(),
                        hunt.hidden().map(Sheet.Mistake::id).orElse(NOTHING),
                        judged.fault(),
                        judged.remedy(),
                        seconds()))
                .keep(kept);
        end();
        return out;
    }

    /** What the watches would have said while they were silent, the worst first. */
    public List<String> watched() {
        return bench.findings().stream()
                .sorted(java.util.Comparator.comparing(eagerneedle.core.watch.Finding::severity)
                        .reversed())
                .map(eagerneedle.core.watch.Finding::line)
                .distinct()
                .limit(5)
                .toList();
    }

    /** The watches speak again. */
    public void end() {
        bench.silence(false);
    }
}
