package eagerneedle.rig.simulated;

import eagerneedle.core.marking.Explanation;
import eagerneedle.core.marking.HandIn;
import eagerneedle.core.marking.Marked;
import eagerneedle.core.marking.OwnData;
import eagerneedle.core.marking.StudentMarker;
import eagerneedle.core.marking.Verdict;
import eagerneedle.core.marking.Wanted;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SampleSource;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Window;
import java.math.BigDecimal;
import java.math.MathContext;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;

/** Hand-ins made of a student's own data, rightly and wrongly, and how they are marked. */
final class MarkingRehearsal {
    private static final int MOVED = 3;

    /** How many of so many were marked as they should be. */
    static final class Count {
        int of;
        int good;
        final List<String> bad = new ArrayList<>();

        void add(boolean isGood, String what) {
            of++;
            good += isGood ? 1 : 0;
            if (!isGood) {
                bad.add(what);
            }
        }

        void add(Count other) {
            of += other.of;
            good += other.good;
            bad.addAll(other.bad);
        }

        double share() {
            return of == 0 ? 1 : (double) good / of;
        }

        @Override
        public String toString() {
            return good + "/" + of;
        }
    }

    /** By what was handed in and how many digits it had. */
    final Map<String, Map<Integer, Count>> counts = new TreeMap<>();

    private final String method;
    private final SheetReader.Located located;
    private final Session session;
    private final SampleSource samples;
    private final OwnData data;
    private final OwnData neighbour;
    private final Map<Integer, Reduction> withoutRun = new LinkedHashMap<>();
    private final Random random;

    MarkingRehearsal(String method, long seed) {
        this.method = method;
        located = SheetTrial.read(SheetReader.shippedText(method), method);
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), seed, Set.of()), Instant.EPOCH);
        session = r.session();
        samples = (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE);
        data = new OwnData(located, session, samples);
        Rehearsal other = Rehearsal.of(located, Rigs.of(located.sheet(), seed + 1, Set.of()), Instant.EPOCH);
        neighbour = new OwnData(
                located,
                other.session(),
                (run, channel) -> other.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
        random = new Random(seed);
    }

    private Count count(String what, int digits) {
        return counts.computeIfAbsent(what, k -> new TreeMap<>()).computeIfAbsent(digits, k -> new Count());
    }

    static String rounded(double v, int digits) {
        return new BigDecimal(v).round(new MathContext(digits)).toString();
    }

    private static double step(double v, int digits) {
        BigDecimal b = new BigDecimal(v).round(new MathContext(digits));
        return Math.pow(10, b.precision() - b.scale() - digits);
    }

    private Marked mark(String quantity, double v, int digits) {
        List<HandIn> one = List.of(new HandIn("one", quantity, rounded(v, digits), "", ""));
        return StudentMarker.mark(data, one, List.of(quantity), new StudentMarker.Asked(false, false), q -> Map.of())
                .get(0);
    }

    void all(int digits) {
        for (String q : Wanted.of(data.sheet())) {
            if (data.expected(q).isEmpty()) {
                continue;
            }
            Quantity is = data.expected(q).get();
            String what = method + " " + q + " " + digits;
            right(q, is.value(), digits, "correct", what);
            ways(q, digits, what);
            windows(q, digits, what);
            mistakes(q, is, digits, what);
            rows(q, is, digits, what);
            neighbours(q, is, digits, what);
            unknown(q, is, digits, what);
        }
    }

    /** A run that was forgotten: what that moves by less than other hands would is right all the same. */
    private void rows(String q, Quantity is, int digits, String what) {
        for (Run run : data.right().runs()) {
            if (run.takesPart()) {
                Optional<Quantity> without = withoutRun
                        .computeIfAbsent(
                                run.id(), id -> reduced(new RunCommand.DiscardRun(id, "forgotten").apply(session)))
                        .quantity(q);
                if (without.isEmpty()
                        || mark(q, without.get().value(), digits).verdict().isRightNumber()) {
                    continue;
                }
                OptionalDouble v = OptionalDouble.of(without.get().value());
                named(q, is, digits, v, "row-" + run.id(), "row left out", what);
            }
        }
    }

    /** The number that belongs to another student's data. */
    private void neighbours(String q, Quantity is, int digits, String what) {
        Optional<Quantity> theirs = neighbour.expected(q);
        if (theirs.isEmpty() || Math.abs(theirs.get().value() - is.value()) <= MOVED * step(is.value(), digits)) {
            return;
        }
        double v = theirs.get().value();
        List<HandIn> one = List.of(new HandIn("one", q, rounded(v, digits), "", ""));
        Marked m = StudentMarker.mark(
                        data, one, List.of(q), new StudentMarker.Asked(false, false), x -> Map.of("two", v))
                .get(0);
        if (!m.verdict().isRightNumber()) {
            count("another's data", digits)
                    .add(
                            m.explanations().stream().limit(2).anyMatch(e -> e.id().equals("data-two")),
                            what + " " + v + " of " + is + ": " + m.verdict() + m.notes()
                                    + m.explanations().stream()
                                            .map(Explanation::id)
                                            .toList());
        }
    }

    /** A wrong number, and a later one that was rightly reckoned from it. */
    void chains(int digits) {
        List<String> wanted = Wanted.of(data.sheet());
        for (String a : wanted) {
            for (String b : wanted) {
                if (a.equals(b)
                        || data.expected(a).isEmpty()
                        || data.expected(b).isEmpty()) {
                    continue;
                }
                Quantity is = data.expected(a).get();
                String wrong = rounded(is.value() * (1.13 + 0.1 * random.nextDouble()), digits);
                Sheet.Mistake put = new Sheet.Mistake(
                        "put " + a + wrong,
                        "put",
                        Map.of(
                                a,
                                "(" + new BigDecimal(wrong).toPlainString() + " "
                                        + is.unit().symbol() + ")"),
                        "");
                OptionalDouble v = data.mistaken(put, b);
                double right = data.expected(b).get().value();
                if (v.isEmpty() || Math.abs(v.getAsDouble() - right) <= 4 * step(v.getAsDouble(), digits)) {
                    continue;
                }
                List<HandIn> both = List.of(
                        new HandIn("one", a, wrong, "", ""),
                        new HandIn("one", b, rounded(v.getAsDouble(), digits), "", ""));
                List<Marked> m = StudentMarker.mark(
                        data, both, List.of(a, b), new StudentMarker.Asked(false, false), x -> Map.of());
                Marked later = m.stream()
                        .filter(x -> x.quantity().equals(b))
                        .findFirst()
                        .orElseThrow();
                Marked first = m.stream()
                        .filter(x -> x.quantity().equals(a))
                        .findFirst()
                        .orElseThrow();
                if (first.verdict().isRightNumber() || later.verdict() == Verdict.ANOTHER_WAY) {
                    // Right by another way as well, and so it stands.
                    continue;
                }
                count("chain of two", digits)
                        .add(
                                later.verdict() == Verdict.FOLLOWED
                                        && later.followsFrom().equals(List.of(a)),
                                method + " " + a + " = " + wrong + " (" + first.verdict() + "), " + b + " = "
                                        + rounded(v.getAsDouble(), digits) + " of "
                                        + data.expected(b).get() + ": "
                                        + later.verdict() + later.notes());
            }
        }
    }

    private void right(String q, double v, int digits, String kind, String what) {
        Marked m = mark(q, v, digits);
        count(kind, digits)
                .add(
                        m.verdict().isRightNumber(),
                        what + " " + rounded(v, digits) + " of " + m.expected() + ": " + m.verdict());
    }

    private void ways(String q, int digits, String what) {
        for (Sheet.Offer o : data.sheet().offers()) {
            for (String way : o.choice().ways().keySet()) {
                Reduction r = reduced(new ReducingCommand.PickWay(o.key(), way, way).apply(session));
                r.quantity(q).ifPresent(v -> right(q, v.value(), digits, "other way", what + " by " + way));
            }
        }
    }

    private Reduction reduced(Session s) {
        return new Reducer(located, samples).reduce(s);
    }

    private void windows(String q, int digits, String what) {
        Session s = session;
        boolean any = false;
        for (Run run : data.right().runs()) {
            for (String w : data.sheet().captures().get(run.capture()).windows().keySet()) {
                Window is = data.right().window(run, w).orElse(null);
                if (is != null && run.takesPart()) {
                    double by = is.length() * 0.1;
                    double from = Math.max(0, is.from() + by * (random.nextDouble() - 0.5));
                    double to = is.to() + by * (random.nextDouble() - 0.5);
                    try {
                        s = new ReducingCommand.SetWindow(run.id(), w, new Window(from, to, "by hand")).apply(s);
                        any = true;
                    } catch (IllegalArgumentException none) {
                        // Beyond the run.
                    }
                }
            }
        }
        if (any) {
            reduced(s).quantity(q).ifPresent(v -> right(q, v.value(), digits, "other windows", what));
        }
    }

    private void mistakes(String q, Quantity is, int digits, String what) {
        List<Sheet.Mistake> all = data.sheet().reckoningMistakes();
        for (int i = 0; i < all.size(); i++) {
            Sheet.Mistake a = all.get(i);
            named(q, is, digits, data.mistaken(a, q), a.id(), "single mistake", what);
            for (Sheet.Mistake b : all.subList(i + 1, all.size())) {
                if (a.change().keySet().stream().anyMatch(b.change()::containsKey)) {
                    continue;
                }
                Map<String, String> both = new LinkedHashMap<>(a.change());
                both.putAll(b.change());
                String id = a.id() + "+" + b.id();
                OptionalDouble v = data.mistaken(new Sheet.Mistake(id, id, both, ""), q);
                boolean isOne = v.isPresent()
                        && (same(v.getAsDouble(), data.mistaken(a, q)) || same(v.getAsDouble(), data.mistaken(b, q)));
                if (!isOne) {
                    named(q, is, digits, v, id, "two mistakes", what);
                }
            }
        }
        for (Sheet.Mistake slip : data.slips()) {
            named(q, is, digits, data.mistaken(slip, q), slip.id(), "slip of the sheet", what);
        }
        for (double f : new double[] {-1, 2, 0.5, Math.PI, 1 / (2 * Math.PI)}) {
            named(q, is, digits, OptionalDouble.of(f * is.value()), f == -1 ? "sign" : "factor", "general slip", what);
        }
        named(q, is, digits, OptionalDouble.of(1 / is.value()), "reciprocal", "general slip", what);
    }

    private static boolean same(double v, OptionalDouble w) {
        return w.isPresent() && Math.abs(v - w.getAsDouble()) <= 1e-9 * Math.abs(v);
    }

    private void named(String q, Quantity is, int digits, OptionalDouble v, String id, String kind, String what) {
        if (v.isEmpty() || v.getAsDouble() == 0 || !Double.isFinite(v.getAsDouble())) {
            return;
        }
        double step = step(v.getAsDouble(), digits);
        if (Math.abs(v.getAsDouble() - is.value()) <= MOVED * step) {
            return;
        }
        Marked m = mark(q, v.getAsDouble(), digits);
        List<Explanation> two =
                m.explanations().subList(0, Math.min(2, m.explanations().size()));
        boolean isNamed = two.stream()
                .anyMatch(e -> e.id().equals(id)
                        || e.id().startsWith(id)
                        || Math.abs(e.value() - v.getAsDouble()) <= 1e-9 * Math.abs(v.getAsDouble()));
        count(kind, digits)
                .add(
                        isNamed,
                        what + " " + id + " " + rounded(v.getAsDouble(), digits) + " of " + is + ": " + m.verdict()
                                + " "
                                + m.notes() + " "
                                + m.explanations().stream().map(Explanation::id).toList());
    }

    private void unknown(String q, Quantity is, int digits, String what) {
        for (int i = 0; i < 12; i++) {
            double v = is.value() * (i % 2 == 0 ? Math.exp(random.nextGaussian()) : 1 + 0.3 * random.nextGaussian());
            double step = step(v, digits);
            if (v == 0 || Math.abs(v - is.value()) < Math.max(MOVED * step, 3 * is.u())) {
                continue;
            }
            Marked m = mark(q, v, digits);
            if (m.verdict() == Verdict.ANOTHER_WAY) {
                // By chance within what other windows give: nobody can tell it from right work.
                count("unknown, taken for right", digits).add(false, what + " " + v + m.notes());
                continue;
            }
            count("unknown", digits)
                    .add(
                            m.verdict() == Verdict.UNEXPLAINED,
                            what + " " + rounded(v, digits) + " of " + is + ": " + m.verdict() + " "
                                    + m.explanations().stream()
                                            .map(Explanation::id)
                                            .toList());
        }
    }
}
