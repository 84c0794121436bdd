package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Propagation;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * How the uncertainty of one result follows from what its formula rests on: the law in symbols under a school, then the
 * numbers (JCGM 100, 5.1.2 and 5.2.2).
 *
 * @param key the result
 * @param law the law in the formula language, such as {@code u(y)^2 = ...}; empty for the school of percent, which
 *     combines nothing
 * @param terms one a name of the formula
 * @param alone what the terms give when nothing is shared: root sum of squares, or the plain sum under the school of
 *     limits; in the result's unit
 * @param result the result, whose own uncertainty also counts what its terms share
 * @param school whose law it is
 */
public record LawOfResult(String key, String law, List<Term> terms, double alone, Quantity result, School school) {
    private static final double SHARED = 0.01;

    /**
     * One name of the formula.
     *
     * @param name as the formula has it
     * @param label what a person calls it
     * @param quantity it, in the unit in which people read it
     * @param derivative partial derivative of the result by it, in the result's unit for one unit of the quantity, so
     *     that uncertainty times derivative is the contribution as both stand written
     * @param contribution size of derivative times uncertainty (standard, or limit), in the result's unit
     */
    public record Term(String name, String label, Quantity quantity, double derivative, double contribution) {
        /**
         * The unit of the derivative, by the symbols of the result's unit and the quantity's; empty for the number one.
         */
        public String per(LabUnit result, Function<LabUnit, String> symbol) {
            String above = symbol.apply(result.difference());
            String below = symbol.apply(quantity.unit().difference());
            return below.isEmpty()
                    ? above
                    : above.equals(below)
                            ? ""
                            : (above.isEmpty() ? "1" : above) + "/"
                                    + (below.matches(".*[/*·].*") ? "(" + below + ")" : below);
        }
    }

    public LawOfResult {
        terms = List.copyOf(terms);
    }

    /** The uncertainty that the school states of the result, in its unit. */
    public double stated() {
        return school == School.LIMITS ? result.limit() : result.u();
    }

    /** True when what the terms share changes the result's uncertainty noticeably. */
    public boolean shares() {
        return Math.abs(stated() - alone) > SHARED * Math.max(stated(), alone);
    }

    /**
     * The laws of a result and of the results it rests on, that one first; results without an algebraic formula of
     * their own are left out.
     */
    static List<LawOfResult> of(Reduction r, String key, School school) {
        List<LawOfResult> out = new ArrayList<>();
        collect(r, key, school, new LinkedHashSet<>(), out);
        return out;
    }

    private static void collect(Reduction r, String key, School school, Set<String> seen, List<LawOfResult> out) {
        Derived d = r.sheet().results().get(key);
        if (d == null || !seen.add(key) || r.quantity(key).isEmpty()) {
            return;
        }
        Formula formula = Formula.parse(d.formula());
        Propagation p = Propagation.of(formula);
        boolean algebra = !p.terms().isEmpty()
                && !(p.terms().size() == 1 && p.terms().get(0).of().equals(formula.expression()));
        if (algebra) {
            one(r, key, school, p).ifPresent(out::add);
        }
        p.terms().forEach(t -> collect(r, t.name(), school, seen, out));
    }

    private static Optional<LawOfResult> one(Reduction r, String key, School school, Propagation p) {
        Quantity result = r.quantity(key).orElseThrow();
        List<Term> terms = new ArrayList<>();
        double sum = 0;
        for (Propagation.Term t : p.terms()) {
            try {
                Quantity x = r.evaluate(new Formula(t.name(), null, t.of()), java.util.Map.of());
                Quantity slope = r.evaluate(Formula.of(t.derivative()), java.util.Map.of());
                double of = school == School.LIMITS ? x.limit() : x.u();
                LabUnit step = x.unit().difference();
                Quantity part = Quantity.exact(slope.value(), slope.unit()).times(Quantity.exact(of, step));
                double contribution = Math.abs(part.value() * part.unit().scaleTo(result.unit()));
                sum += school == School.LIMITS ? contribution : contribution * contribution;
                LabUnit shown = Printed.of(x).unit();
                Quantity one = Quantity.exact(slope.value(), slope.unit()).times(Quantity.exact(1, shown.difference()));
                terms.add(new Term(
                        t.name(),
                        label(r, t.name()),
                        x.unit().isAffine() ? x : x.to(shown),
                        one.value() * one.unit().scaleTo(result.unit().difference()),
                        contribution));
            } catch (IllegalArgumentException columnOrMissing) {
                return Optional.empty();
            }
        }
        String law = school == School.LIMITS ? p.limits(key) : school == School.STANDARD ? p.standard(key) : "";
        return Optional.of(
                new LawOfResult(key, law, terms, school == School.LIMITS ? sum : Math.sqrt(sum), result, school));
    }

    private static String label(Reduction r, String name) {
        Sheet.Input input = r.sheet().inputs().get(name);
        Derived d = r.sheet().results().get(name);
        return input != null ? input.label() : d != null && d.label() != null ? d.label() : name;
    }
}
