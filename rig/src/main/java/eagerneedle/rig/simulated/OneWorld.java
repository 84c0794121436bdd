package eagerneedle.rig.simulated;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/**
 * What the stand-ins of one bench share: the moment at which a run begins, whichever of them is told first, and what is
 * set at one of them and felt at all. May be used from any thread.
 */
public final class OneWorld {
    private final Map<String, Integer> rounds = new HashMap<>();
    private final List<Consumer<Map<String, String>>> benches = new ArrayList<>();
    private int round;
    private long began;

    /** How much later than the first an instrument begins, s of our own clock. */
    synchronized double late(String instrument) {
        int mine = rounds.merge(instrument, 1, Integer::sum);
        if (mine > round) {
            round = mine;
            began = System.nanoTime();
        }
        return (System.nanoTime() - began) / 1e9;
    }

    synchronized void joined(Consumer<Map<String, String>> bench) {
        benches.add(bench);
    }

    /** True for several instruments. */
    synchronized boolean isShared() {
        return benches.size() > 1;
    }

    /** What is set at one instrument is so for the whole bench. */
    void tell(Map<String, String> what) {
        List<Consumer<Map<String, String>>> all;
        synchronized (this) {
            all = List.copyOf(benches);
        }
        all.forEach(b -> b.accept(what));
    }
}
