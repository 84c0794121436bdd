package eagerneedle.core.marking;

import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Numbers that two students with different data both handed in, though the data of one of them at least do not give
 * them: how rarely that happens by itself. It is pointed out, never judged: two may have worked at one table.
 */
public final class SharedDigits {
    /** Rarer than so among all pairs of a class. */
    private static final double RARE = 1e-3;

    private SharedDigits() {}

    /**
     * What one student handed in.
     *
     * @param unit whose data they had: within a group sharing is no news
     */
    public record Work(String student, String unit, List<Marked> items) {}

    /**
     * Two students with the same numbers.
     *
     * @param chance how often two who do not know each other would agree so
     */
    public record Pair(String a, String b, List<String> quantities, double chance) {
        /** In careful words. */
        public String says() {
            return a + " and " + b + " handed in the same digits for " + String.join(", ", quantities)
                    + ", and their own data do not give them to both. By chance that is rarer than one in "
                    + Notation.sentence("%,.0f", Math.min(1e9, Math.floor(1 / chance)))
                    + ". There may be a good reason: ask before anything is concluded.";
        }
    }

    public static List<Pair> of(List<Work> all) {
        List<Pair> out = new ArrayList<>();
        double pairs = Math.max(1, all.size() * (all.size() - 1) / 2.0);
        for (int i = 0; i < all.size(); i++) {
            for (Work b : all.subList(i + 1, all.size())) {
                Work a = all.get(i);
                if (!a.unit().equals(b.unit())) {
                    Pair p = pair(a, b);
                    if (!p.quantities().isEmpty() && p.chance() * pairs < RARE) {
                        out.add(p);
                    }
                }
            }
        }
        return out;
    }

    private static Pair pair(Work a, Work b) {
        Map<String, Marked> other = new LinkedHashMap<>();
        b.items().forEach(m -> other.put(m.quantity(), m));
        List<String> same = new ArrayList<>();
        double chance = 1;
        for (Marked m : a.items()) {
            Marked o = other.get(m.quantity());
            if (o == null || m.given() == null || o.given() == null || m.expected() == null || o.expected() == null) {
                continue;
            }
            boolean equal = m.given().value() == o.given().value()
                    && m.given().step() == o.given().step()
                    && m.given().unit().equals(o.given().unit());
            boolean honest = m.verdict().isRightNumber() && o.verdict().isRightNumber();
            if (equal && !honest) {
                same.add(m.label());
                // That the second falls into the same last digit, wherever its own data may lead.
                Chance c = new Chance(o.expected().value(), o.expected().u());
                chance *= Math.min(1, c.anywhere(m.given().value(), m.given().step()));
            }
        }
        return new Pair(a.student(), b.student(), List.copyOf(same), chance);
    }
}
