package eagerneedle.app.benches;

import eagerneedle.core.benches.Bench;
import eagerneedle.core.benches.Benches;
import eagerneedle.core.benches.Cause;
import eagerneedle.core.judge.StandingOut;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Derived;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What benches show together of one result, and what is to be said of it.
 *
 * @param result its name in the sheet
 * @param label what people call it
 * @param all every bench that has it and was not left out
 * @param rest without those that do not belong with the others; null where that is no other
 * @param causes by bench that does not belong with the others, by what it differs
 * @param without benches that do not have it, each with the reason
 */
public record Together(
        String result,
        String label,
        Benches all,
        @Nullable Benches rest,
        Map<String, List<Cause>> causes,
        Map<String, String> without) {
    private static final double DOUBT = 0.05;

    /**
     * Holds benches together.
     *
     * @throws IllegalArgumentException with one sentence where fewer than two have the result
     */
    public static Together of(List<Bench> benches, String result) {
        List<Benches.Row> rows = new ArrayList<>();
        Map<String, String> without = new LinkedHashMap<>();
        LabUnit unit = null;
        for (Bench b : benches) {
            Benches.Row row = b.row(result).orElse(null);
            if (row == null) {
                String why = b.reduction().outcome(result).problem();
                without.put(b.name(), why == null ? "it has no value" : why);
            } else if (unit != null && !row.value().unit().fits(unit)) {
                without.put(b.name(), "its unit " + row.value().unit().named() + " is of another kind");
            } else {
                unit = row.value().unit();
                rows.add(row);
            }
        }
        String label = label(benches, result);
        if (rows.size() < 2) {
            throw new IllegalArgumentException("Fewer than two benches have " + label + " yet."
                    + without.entrySet().stream()
                            .findFirst()
                            .map(e -> " " + e.getKey() + ": " + e.getValue())
                            .orElse(""));
        }
        Benches all = Benches.of(rows);
        List<String> apart = all.namesApart();
        List<Benches.Row> left = all.without(apart);
        Benches rest = apart.isEmpty() || left.size() < 2 ? null : Benches.of(left);
        Map<String, List<Cause>> causes = new LinkedHashMap<>();
        if (rest != null) {
            List<Bench> good = benches.stream()
                    .filter(b -> left.stream().anyMatch(r -> r.name().equals(b.name())))
                    .toList();
            benches.stream()
                    .filter(b -> apart.contains(b.name()))
                    .forEach(b -> causes.put(
                            b.name(), Cause.of(b, good, result, rest.mean().value())));
        }
        return new Together(result, label, all, rest, causes, without);
    }

    private static String label(List<Bench> benches, String result) {
        return benches.stream()
                .map(b -> b.reduction().sheet().results().get(result))
                .filter(d -> d != null && d.label() != null)
                .findFirst()
                .map(Derived::label)
                .orElse(result);
    }

    /** What is to be said of them, the most important first. */
    public List<String> says() {
        List<String> out = new ArrayList<>();
        for (StandingOut.Apart a : all.apart()) {
            out.add(apart(a));
        }
        Benches of = rest == null ? all : rest;
        out.add((rest == null ? "The benches" : "The others") + agreement(of));
        out.add((rest == null
                        ? "Together they give "
                        : "Without " + String.join(", ", all.namesApart()) + " they give ")
                + Notation.bracket(of.mean())
                + (rest == null ? "." : ", with all " + Notation.bracket(all.mean()) + "."));
        without.forEach((name, why) -> out.add(name + " has no " + label + ": " + sentence(why)));
        return out;
    }

    private String agreement(Benches of) {
        String chi = Double.isNaN(of.chi2())
                ? ""
                : " (chi-square " + Notation.plain(of.chi2(), 3) + " of "
                        + (of.rows().size() - 1) + ", " + percent(of.probability()) + " by chance)";
        if (of.between() == 0) {
            return " agree within what each says of itself" + chi + ".";
        }
        String scatter = Notation.plain(of.between(), 2) + of.mean().unit().afterNumber();
        return of.probability() >= DOUBT
                ? " agree within what each says of itself" + chi + "; a scatter between them of " + scatter
                        + " is allowed for."
                : " differ by more than each says of itself" + chi + ": a scatter of " + scatter
                        + " between benches is in none of their budgets.";
    }

    private String apart(StandingOut.Apart a) {
        Benches others = java.util.Objects.requireNonNull(rest == null ? all : rest);
        Quantity own = all.rows().stream()
                .filter(r -> r.name().equals(a.name()))
                .findFirst()
                .orElseThrow()
                .value();
        String first = a.name() + " stands apart: " + Notation.bracket(own) + ", the others "
                + Notation.bracket(others.mean()) + ", " + Notation.plain(a.by(), 2)
                + " standard uncertainties away.";
        List<Cause> why = causes.getOrDefault(a.name(), List.of());
        if (why.isEmpty()) {
            return first + " Nothing in its data explains it alone: look at the bench itself.";
        }
        Cause c = why.get(0);
        return first + " It differs by " + c.label() + ": " + mine(c) + ", on the others "
                + Notation.plain(c.others(), 4) + c.own().unit().afterNumber() + "; with theirs it would give "
                + Notation.bracket(c.result()) + ".";
    }

    private static String mine(Cause c) {
        return c.own().u() > 0
                ? Notation.bracket(c.own())
                : Notation.plain(c.own().value(), 4) + c.own().unit().afterNumber();
    }

    private static String percent(double p) {
        return p < 0.001 ? "less than " + Notation.fixed(0.1, 1) + " %" : Notation.plain(100 * p, 2) + " %";
    }

    private static String sentence(String why) {
        return why.endsWith(".") ? why : why + ".";
    }
}
