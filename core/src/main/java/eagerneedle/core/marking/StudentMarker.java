package eagerneedle.core.marking;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Descent;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Marks what one student handed in, number by number: see {@link OneNumber}. */
public final class StudentMarker {
    private final OwnData data;
    private final Map<String, Double> others;
    private final Asked asked;
    private final Map<String, Marked> done = new LinkedHashMap<>();

    private StudentMarker(OwnData data, Map<String, Double> others, Asked asked) {
        this.data = data;
        this.others = others;
        this.asked = asked;
    }

    /**
     * What a class was asked for beside the numbers.
     *
     * @param units whether a missing unit is a fault
     * @param u whether a missing uncertainty is one
     */
    public record Asked(boolean units, boolean u) {
        /** As the hand-ins show: what nobody at all gave was not asked for. */
        public static Asked of(List<HandIn> all) {
            return new Asked(
                    all.stream().anyMatch(h -> !h.unit().isBlank() || h.value().matches(".*\\p{L}{1,}.*")),
                    all.stream().anyMatch(h -> !h.u().isBlank() || h.value().matches(".*(\\d\\(\\d|±|\\+/-).*")));
        }
    }

    /** What another student's data give for a quantity, by what that student is called. */
    public interface Others {
        Map<String, Double> of(String quantity);
    }

    /**
     * Marks all that one student handed in, earlier quantities before those that follow from them.
     *
     * @param wanted the quantities that were asked for: those that are not there are missing
     */
    public static List<Marked> mark(
            OwnData data, List<HandIn> handIns, List<String> wanted, Asked asked, Others others) {
        Map<String, HandIn> by = new LinkedHashMap<>();
        Set<String> twice = new LinkedHashSet<>();
        List<Marked> strangers = new ArrayList<>();
        for (HandIn h : handIns) {
            Optional<String> name = name(data.sheet(), h.quantity());
            if (name.isPresent()) {
                if (by.put(name.get(), h) != null) {
                    twice.add(name.get());
                }
            } else {
                strangers.add(new Marked(
                        h,
                        h.quantity(),
                        h.quantity(),
                        null,
                        null,
                        Verdict.UNEXPLAINED,
                        List.of("The method has no result of that name."),
                        List.of(),
                        List.of()));
            }
        }
        Set<String> all = new LinkedHashSet<>(wanted);
        all.addAll(by.keySet());
        List<String> order = Descent.of(data.sheet()).stream()
                .filter(i -> i.kind() == Descent.Kind.RESULT)
                .map(Descent.Item::name)
                .toList();
        Map<String, Marked> marked = new LinkedHashMap<>();
        order.stream().filter(all::contains).forEach(q -> {
            StudentMarker m = new StudentMarker(data, others.of(q), asked);
            m.done.putAll(marked);
            HandIn h = by.get(q);
            marked.put(
                    q,
                    h == null || h.value().isBlank()
                            ? m.missing(q, h == null ? new HandIn("", q, "", "", "") : h)
                            : m.item(q, h));
        });
        List<Marked> out = new ArrayList<>();
        all.forEach(q -> Optional.ofNullable(marked.get(q))
                .ifPresent(m -> out.add(
                        twice.contains(q) ? m.noting("It was handed in more than once; the last one counts.") : m)));
        out.addAll(strangers);
        return out;
    }

    /** The result of a sheet that is called so, by its name or its label. */
    static Optional<String> name(Sheet sheet, String said) {
        if (sheet.results().containsKey(said)) {
            return Optional.of(said);
        }
        String low = said.strip().toLowerCase(java.util.Locale.ROOT);
        return sheet.results().entrySet().stream()
                .filter(e -> low.equals(e.getKey().toLowerCase(java.util.Locale.ROOT))
                        || e.getValue().label() != null
                                && low.equals(e.getValue().label().toLowerCase(java.util.Locale.ROOT)))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** What a person calls a quantity. */
    static String label(Sheet sheet, String quantity) {
        Derived d = sheet.results().get(quantity);
        return d == null || d.label() == null ? quantity : d.label();
    }

    private Marked missing(String quantity, HandIn h) {
        return new Marked(
                h,
                quantity,
                label(data.sheet(), quantity),
                null,
                data.expected(quantity).orElse(null),
                Verdict.MISSING,
                List.of(),
                List.of(),
                List.of());
    }

    private Marked item(String quantity, HandIn h) {
        GivenNumber g;
        try {
            g = GivenNumber.of(h);
        } catch (IllegalArgumentException e) {
            return new Marked(
                    h,
                    quantity,
                    label(data.sheet(), quantity),
                    null,
                    data.expected(quantity).orElse(null),
                    Verdict.UNEXPLAINED,
                    List.of("It cannot be read as a number: " + e.getMessage()),
                    List.of(),
                    List.of());
        }
        Optional<Quantity> expected = data.expected(quantity);
        if (expected.isEmpty()) {
            return new Marked(
                    h,
                    quantity,
                    label(data.sheet(), quantity),
                    g,
                    null,
                    Verdict.UNEXPLAINED,
                    List.of("The student's own data give nothing for it: "
                            + data.right().outcome(quantity).problem()),
                    List.of(),
                    List.of());
        }
        return new OneNumber(data, others, asked, done, quantity, h, g, expected.get()).marked();
    }
}
