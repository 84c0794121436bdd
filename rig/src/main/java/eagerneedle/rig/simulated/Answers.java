package eagerneedle.rig.simulated;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * The last few answers to a question that takes seconds and is always answered alike, as what rehearsals of a plan
 * find: their seeds are their numbers. Whoever takes a change of a plan back, or opens a session again, need not wait
 * again.
 *
 * @param <Q> questions, compared by what they say
 * @param <A> answers that nobody changes
 */
final class Answers<Q, A> {
    private final Map<Q, A> last;

    /** @param most how many are remembered, those that were asked for last */
    Answers(int most) {
        last = new LinkedHashMap<>(16, 0.75f, true) {
            private static final long serialVersionUID = 1;

            @Override
            protected boolean removeEldestEntry(Map.Entry<Q, A> eldest) {
                return size() > most;
            }
        };
    }

    synchronized Optional<A> to(Q question) {
        return Optional.ofNullable(last.get(question));
    }

    synchronized A remember(Q question, A answer) {
        last.put(question, answer);
        return answer;
    }
}
