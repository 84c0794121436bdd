package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.column;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.judge.Groups;
import eagerneedle.core.judge.Ranking;
import eagerneedle.core.judge.StandingOut;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** Rows judged against each other: which is best, which cannot be told apart, how groups differ, what is tolerated. */
final class GroupFunctions {
    private GroupFunctions() {}

    static void define() {
        Functions.define(
                Function.of("rank", column("column"), words("best").saying("largest"))
                        .described(
                                "a column with labelled rows, each with an uncertainty; best: largest or smallest",
                                "the rows from the best on, and which neighbours cannot be told apart, a sentence",
                                "rank(members('oil', 'thin', 2.0(1) V, 'thick', 5.0(1) V))",
                                "thick is better than thin."),
                GroupFunctions::rank);
        Functions.define(
                Function.of("stands_out", column("column"))
                        .described(
                                "a column of at least three labelled rows, each with an uncertainty",
                                "which rows do not belong with the others, and by how much, a sentence",
                                "stands_out(members('bench', 'a', 9.80(2) N, 'b', 9.81(2) N, 'c', 9.95(2) N))",
                                "c stands out, by 5.9 standard uncertainties; the other 2 agree."),
                GroupFunctions::standsOut);
        Functions.define(
                Function.of("between_groups", column("column"), words("set"))
                        .described(
                                "a column whose rows are members of a set, and the name of that set",
                                "standard deviation from group to group beyond the scatter within, same unit as exact",
                                "between_groups(members('day', 'a', column(1 V, 3 V), 'b', column(7 V, 9 V)), 'day')",
                                "4.123105626 V"),
                a -> scalar(Quantity.exact(
                        groups(a).between(), a.rows(0).get(0).unit().difference())));
        Functions.define(
                Function.of("grouped_mean", column("column"), words("set"))
                        .described(
                                "a column whose rows are members of a set, and the name of that set",
                                "the mean of the groups' means with what they scatter from group to group, same unit",
                                "grouped_mean(members('day', 'a', 1.0 V, 'b', 3.0 V), 'day')",
                                "2.0(10) V"),
                GroupFunctions::groupedMean);
        Functions.define(
                Function.of("conformity", quantity("x"), quantity("lowest"), quantity("highest"))
                        .described(
                                "a quantity and the two ends of its tolerance",
                                "the probability that it lies within (JCGM 106), 0 to 1 as exact",
                                "conformity(10.0(1) mm, 9.8 mm, 10.2 mm)",
                                "0.9544997361"),
                GroupFunctions::conformity);
    }

    private static Value conformity(Arguments a) {
        Quantity x = a.quantity(0);
        double low = share(a, 1, x);
        double high = share(a, 2, x);
        if (low > high) {
            throw new FormulaException(a.column(), "The lowest tolerated value lies above the highest.");
        }
        return scalar(Quantity.number(Math.max(0, high - low)));
    }

    /** Probability that x lies below an end. */
    private static double share(Arguments a, int end, Quantity x) {
        Quantity d = a.quantity(end).minus(x);
        if (d.u() == 0) {
            return d.value() >= (end == 1 ? Double.MIN_VALUE : 0) ? 1 : 0;
        }
        double z = d.value() / d.u();
        double tail = Coverage.tails(z, d.dof()) / 2;
        return z > 0 ? 1 - tail : tail;
    }

    private static RowLabels labels(Arguments a) {
        RowLabels labels = a.column(0).labels();
        if (labels == null || labels.rows().isEmpty()) {
            throw new FormulaException(
                    a.at(0).column(), "The rows of this column have no names; use a family or a column of a capture.");
        }
        return labels;
    }

    private static Value standsOut(Arguments a) {
        try {
            return new Value.Words(StandingOut.of(names(a), a.rows(0)).sentence());
        } catch (IllegalArgumentException tooFew) {
            throw new FormulaException(a.at(0).column(), String.valueOf(tooFew.getMessage()), tooFew);
        }
    }

    private static List<String> names(Arguments a) {
        return labels(a).rows().stream()
                .map(r -> r.labels().entrySet().stream()
                        .map(l -> Value.Words.member(l.getKey(), l.getValue()))
                        .collect(Collectors.joining(" ")))
                .toList();
    }

    private static Value rank(Arguments a) {
        String best = a.words("best");
        if (!best.equals("largest") && !best.equals("smallest")) {
            throw new FormulaException(a.column(), "The best is the largest or the smallest, not the " + best + ".");
        }
        List<Quantity> rows = a.rows(0);
        return new Value.Words(
                Ranking.of(names(a), rows, best.equals("largest")).sentence());
    }

    private static Groups groups(Arguments a) {
        String set = a.words(1);
        Map<String, List<Quantity>> groups = new LinkedHashMap<>();
        List<Quantity> rows = a.rows(0);
        RowLabels labels = labels(a);
        for (int i = 0; i < rows.size(); i++) {
            String member = labels.rows().get(i).labels().get(set);
            if (member == null) {
                throw new FormulaException(a.at(1).column(), "The rows of this column are no members of " + set + ".");
            }
            groups.computeIfAbsent(member, k -> new ArrayList<>())
                    .add(rows.get(i).to(rows.get(0).unit()));
        }
        if (groups.size() < 2) {
            throw new FormulaException(a.at(0).column(), "There is one group only; a scatter between needs two.");
        }
        return Groups.of(List.copyOf(groups.values()));
    }

    private static Value groupedMean(Arguments a) {
        Groups g = groups(a);
        Quantity mean = g.mean();
        double u = g.uOfMean();
        return scalar(
                u == 0
                        ? mean
                        : mean.with(
                                Leaf.typeA(
                                        a.id(),
                                        "scatter between groups",
                                        a.scope().origin(),
                                        g.count() - 1.0),
                                u));
    }
}
