package eagerneedle.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A time line: tasks that need a pair of hands one after another, tasks that run by themselves beside them.
 *
 * <p>Whatever runs by itself is started as early as it may; of the tasks for hands, the one on which most waits is done
 * first (longest path to the end). With one pair of hands that is a good schedule, not always the shortest one.
 *
 * @param slots in order of start
 * @param total minutes from the first start to the last end
 */
public record TimeLine(List<Slot> slots, double total) {
    /** A task: minutes it takes, tasks that must be over before, and whether somebody has to be at it. */
    public record Task(String id, String label, double minutes, List<String> after, boolean hands) {
        public Task {
            after = after == null ? List.of() : List.copyOf(after);
        }
    }

    /** A task in its place: minutes from the beginning; {@code critical} when a delay of it delays the end. */
    public record Slot(Task task, double start, double end, boolean critical) {}

    /**
     * @throws IllegalArgumentException with one sentence when tasks wait for one another in a circle or for a task that
     *     does not exist
     */
    public static TimeLine of(List<Task> tasks) {
        Map<String, Task> byId = new HashMap<>();
        tasks.forEach(t -> byId.put(t.id(), t));
        Map<String, Double> tail = new HashMap<>();
        tasks.forEach(t -> tail(t, tasks, byId, tail, 0));
        Map<String, Double> end = new HashMap<>();
        List<Slot> slots = new ArrayList<>();
        List<Task> open = new ArrayList<>(tasks);
        double handsFree = 0;
        while (!open.isEmpty()) {
            Task next = open.get(0);
            double at = Double.POSITIVE_INFINITY;
            for (Task t : open) {
                if (end.keySet().containsAll(t.after())) {
                    double ready =
                            t.after().stream().mapToDouble(end::get).max().orElse(0);
                    double start = t.hands() ? Math.max(ready, handsFree) : ready;
                    boolean first = start < at - 1e-9
                            || start < at + 1e-9
                                    && (!t.hands() && next.hands()
                                            || t.hands() == next.hands()
                                                    && tail.getOrDefault(t.id(), 0.0)
                                                            > tail.getOrDefault(next.id(), 0.0));
                    if (first) {
                        next = t;
                        at = start;
                    }
                }
            }
            open.remove(next);
            end.put(next.id(), at + next.minutes());
            if (next.hands()) {
                handsFree = at + next.minutes();
            }
            slots.add(new Slot(next, at, at + next.minutes(), false));
        }
        double total = slots.stream().mapToDouble(Slot::end).max().orElse(0);
        List<Slot> marked = slots.stream()
                .map(s -> new Slot(s.task(), s.start(), s.end(), critical(s, slots, total)))
                .sorted(Comparator.comparingDouble(Slot::start))
                .toList();
        return new TimeLine(marked, total);
    }

    /**
     * A slot is critical when it ends last or something critical starts the moment it ends, because it waited for it or
     * for its hands.
     */
    private static boolean critical(Slot s, List<Slot> slots, double total) {
        return Math.abs(s.end() - total) < 1e-9
                || slots.stream()
                        .anyMatch(n -> n != s
                                && Math.abs(n.start() - s.end()) < 1e-9
                                && (n.task().after().contains(s.task().id())
                                        || n.task().hands() && s.task().hands())
                                && s.end() > s.start()
                                && critical(n, slots, total));
    }

    private static double tail(Task t, List<Task> tasks, Map<String, Task> byId, Map<String, Double> known, int depth) {
        if (depth > tasks.size()) {
            throw new IllegalArgumentException(
                    "The tasks of the time line wait for one another in a circle (at " + t.id() + ").");
        }
        for (String a : t.after()) {
            if (!byId.containsKey(a)) {
                throw new IllegalArgumentException(
                        "The task " + t.id() + " waits for " + a + ", which is not in the time line.");
            }
        }
        double longest = 0;
        for (Task n : tasks) {
            if (n.after().contains(t.id())) {
                longest = Math.max(longest, tail(n, tasks, byId, known, depth + 1));
            }
        }
        known.put(t.id(), longest + t.minutes());
        return longest + t.minutes();
    }
}
