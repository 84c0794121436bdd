package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;

/**
 * An uncertainty budget: who contributes how much to a quantity, largest first.
 *
 * <p>Leaves that carry the same label (the twenty residuals of one fit, the readings of one tape) stand in one line.
 *
 * @param of the quantity
 * @param lines sorted by share, largest first
 */
public record Budget(Quantity of, List<Line> lines) {
    /**
     * One line.
     *
     * @param label what contributes
     * @param source where it came from
     * @param type A or B; A where both kinds carry the label
     * @param contribution standard uncertainty from this line alone, in the quantity's unit
     * @param share share of the variance; shares sum to 1, and one is negative only where scatters seen together cancel
     * @param dof effective degrees of freedom of the line, infinite if known
     */
    public record Line(String label, String source, Leaf.Type type, double contribution, double share, double dof) {
        /** Combined standard uncertainty if this line were halved, from the present combined one. */
        public double combinedIfHalved(double u) {
            return u * Math.sqrt(Math.max(0, 1 - 0.75 * share));
        }
    }

    /** How far the result improves when each line is halved: one sentence for the largest line. */
    public String halveLargest() {
        if (lines.isEmpty()) {
            return "Nothing about it is uncertain.";
        }
        Line top = lines.get(0);
        String unit = of.unit().pretty().isEmpty() ? "" : " " + of.unit().pretty();
        return "Halve %s and u falls from %s%s to %s%s."
                .formatted(
                        top.label(),
                        Notation.figures(of.u(), 2),
                        unit,
                        Notation.figures(top.combinedIfHalved(of.u()), 2),
                        unit);
    }

    /** With what contributes said otherwise, such as by the labels of a sheet in place of its keys. */
    public Budget said(UnaryOperator<String> words) {
        return new Budget(
                of,
                lines.stream()
                        .map(l -> new Line(
                                words.apply(l.label()), l.source(), l.type(), l.contribution(), l.share(), l.dof()))
                        .toList());
    }

    public static Budget of(Quantity q) {
        Map<String, List<Map.Entry<Leaf, Double>>> groups = new LinkedHashMap<>();
        q.contributions()
                .entrySet()
                .forEach(e -> groups.computeIfAbsent(e.getKey().label(), k -> new ArrayList<>())
                        .add(e));
        double total = q.u() * q.u();
        List<Line> lines = new ArrayList<>();
        groups.forEach((label, entries) -> {
            Quantity line = q.keeping(leaf -> leaf.label().equals(label));
            double variance = line.u() * line.u();
            double shared = line.covariance(q);
            Leaf first = entries.get(0).getKey();
            boolean a = entries.stream().anyMatch(e -> e.getKey().type() == Leaf.Type.A);
            double dof = line.dof();
            lines.add(new Line(
                    label,
                    first.source(),
                    a ? Leaf.Type.A : Leaf.Type.B,
                    Math.sqrt(variance),
                    total == 0 ? 0 : shared / total,
                    dof));
        });
        lines.sort(Comparator.comparingDouble(Line::share).reversed().thenComparing(Line::label));
        return new Budget(q, List.copyOf(lines));
    }
}
