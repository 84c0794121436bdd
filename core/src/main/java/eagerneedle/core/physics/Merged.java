package eagerneedle.core.physics;

import eagerneedle.core.sheet.RigPlan;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;

/** The physics of a session, a capture and a level as one plan; what stands further in hides what has its name. */
final class Merged {
    private Merged() {}

    static RigPlan of(RigPlan session, String capture, String level) {
        RigPlan run = ofRun(session, capture, level);
        RigPlan outer = capture.equals(RigPlan.POINTS) ? withoutSignals(session) : session;
        return over(outer, run);
    }

    /** What a capture and a level say without the session. */
    static RigPlan ofRun(RigPlan session, String capture, String level) {
        RigPlan part = session.part(capture);
        return over(part, part.part(level));
    }

    /** While references are set, channels see these. */
    private static RigPlan withoutSignals(RigPlan p) {
        return new RigPlan(
                p.nature(),
                p.hidden(),
                p.state(),
                only(p.rates(), p.state().keySet()::contains),
                only(
                        p.when(),
                        n -> p.state()
                                .keySet()
                                .containsAll(Objects.requireNonNull(p.when().get(n))
                                        .set()
                                        .keySet())),
                Map.of(),
                Map.of(),
                Map.of(),
                Map.of(),
                p.circles(),
                null,
                Map.of(),
                Map.of(),
                p.uncalibrated());
    }

    private static RigPlan over(RigPlan a, RigPlan b) {
        return new RigPlan(
                a.nature(),
                both(a.hidden(), b.hidden()),
                both(a.state(), b.state()),
                both(a.rates(), b.rates()),
                both(a.when(), b.when()),
                both(a.signals(), b.signals()),
                both(a.edges(), b.edges()),
                both(a.readings(), b.readings()),
                both(a.stuck(), b.stuck()),
                a.circles(),
                b.lasts() == null ? a.lasts() : b.lasts(),
                a.truth(),
                Map.of(),
                a.uncalibrated());
    }

    private static <T> Map<String, T> both(Map<String, T> a, Map<String, T> b) {
        Map<String, T> out = new LinkedHashMap<>(a);
        out.putAll(b);
        return out;
    }

    private static <T> Map<String, T> only(Map<String, T> map, Predicate<String> which) {
        Map<String, T> out = new LinkedHashMap<>(map);
        out.keySet().removeIf(which.negate());
        return out;
    }
}
