package eagerneedle.app.capture;

import eagerneedle.core.event.Edges;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.trace.RawSamples;
import java.util.ArrayList;
import java.util.List;

/**
 * What a light gate says while it is captured, as words; a dash for what is not known yet.
 *
 * @param edges how many edges there were
 * @param block how long the last block was
 * @param period from the last block to the one before
 * @param mean of the newest periods, with its uncertainty and what is suspicious among them
 */
record GateFigures(String edges, String block, String period, String mean) {
    private static final int NEWEST = 12;
    private static final String NOT_YET = "—";

    /** From samples of the gate's state, 1 while it is blocked. */
    static GateFigures of(RawSamples states) {
        List<List<Double>> e = edges(states);
        List<Double> blocks = e.get(0);
        List<Double> clears = e.get(1);
        int n = blocks.size();
        return new GateFigures(
                Long.toString(n + clears.size()),
                lastBlock(blocks, clears),
                n > 1 ? Notation.plain(1e3 * (blocks.get(n - 1) - blocks.get(n - 2)), 6) + " ms" : NOT_YET,
                n > 3 ? mean(blocks.subList(Math.max(0, n - NEWEST - 1), n)) : NOT_YET);
    }

    /**
     * Moments at which a gate changed, from samples of its state: every edge, blocked first when it was clear at the
     * start.
     *
     * @return moments in s; [0] those of blocking, [1] those of clearing
     */
    static List<List<Double>> edges(RawSamples states) {
        List<List<Double>> out = List.of(new ArrayList<>(), new ArrayList<>());
        for (int i = 0; i < states.size(); i++) {
            boolean now = states.values()[i] > 0.5;
            boolean before = i == 0 ? !now : states.values()[i - 1] > 0.5;
            if (i > 0 && now != before) {
                out.get(now ? 0 : 1).add(states.time()[i]);
            } else if (i == 0 && now) {
                out.get(0).add(states.time()[0]);
            }
        }
        return out;
    }

    private static String lastBlock(List<Double> blocks, List<Double> clears) {
        if (clears.isEmpty()) {
            return NOT_YET;
        }
        double end = clears.get(clears.size() - 1);
        return blocks.stream()
                .filter(b -> b < end)
                .reduce((a, b) -> b)
                .map(b -> Notation.plain(1e3 * (end - b), 5) + " ms")
                .orElse(NOT_YET);
    }

    private static String mean(List<Double> blocks) {
        double[] newest = blocks.stream().mapToDouble(d -> d).toArray();
        int gaps = newest.length - 1;
        double mean = (newest[gaps] - newest[0]) / gaps;
        double sum = 0;
        for (int i = 0; i < gaps; i++) {
            sum += Math.pow(newest[i + 1] - newest[i] - mean, 2);
        }
        double u = Math.sqrt(sum / (gaps - 1) / gaps);
        Edges train = Edges.of(newest);
        return Notation.bracketed(1e3 * mean, 1e3 * u) + " ms of " + gaps
                + (train.suspects().isEmpty()
                        ? ""
                        : "  ▲ " + train.suspects().get(0).sentence());
    }
}
