package eagerneedle.core.physics;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Elementary;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Spelling;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleBinaryOperator;
import java.util.function.DoubleUnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * Turns a formula into arithmetic on doubles in coherent units. Units are checked once, here; what is the same at every
 * moment is worked out once. Functions of the language beyond arithmetic are called as they are.
 */
final class PhysicsCompiler {
    private final Names names;
    /** What uncertain parts are drawn from at each evaluation; null where nothing may be drawn. */
    private final Draws.@Nullable Stream sampled;
    /** Where comparisons of rate equations are collected; null elsewhere. */
    private final @Nullable List<Switch> switches;

    private final Moment now;
    private final Physical physical;

    /**
     * @param names what names stand for
     * @param now a moment at which functions can be tried for their unit
     * @param draws of noise that is correlated in time
     * @param path of the formula, which keys such noise
     */
    PhysicsCompiler(
            Names names,
            Moment now,
            Draws draws,
            String path,
            Draws.@Nullable Stream sampled,
            @Nullable List<Switch> switches) {
        this(names, now, draws, path, sampled, switches, 0);
    }

    PhysicsCompiler(
            Names names,
            Moment now,
            Draws draws,
            String path,
            Draws.@Nullable Stream sampled,
            @Nullable List<Switch> switches,
            int depth) {
        this.names = names;
        this.now = now;
        this.physical = new Physical(this, names, now, draws, path, switches, depth);
        this.sampled = sampled;
        this.switches = switches;
    }

    Part compile(Expr e) {
        try {
            return folded(part(e));
        } catch (FormulaException known) {
            throw known;
        } catch (IllegalArgumentException | ArithmeticException bad) {
            throw new FormulaException(e.column(), String.valueOf(bad.getMessage()), bad);
        }
    }

    private Part folded(Part p) {
        if (!p.fixed()) {
            return p;
        }
        return new Part(new Arithmetic.Constant(p.code().at(now)), p.unit(), p.isTruth(), true);
    }

    private Part part(Expr e) {
        if (e instanceof Expr.Literal l) {
            return literal(l);
        } else if (e instanceof Expr.Name n) {
            return name(n);
        } else if (e instanceof Expr.Prefix p) {
            return prefix(p);
        } else if (e instanceof Expr.Infix i) {
            return infix(i);
        } else if (e instanceof Expr.Call c) {
            return call(c);
        }
        throw new FormulaException(e.column(), "A text has no place here.");
    }

    private Part literal(Expr.Literal l) {
        var r = l.reading();
        LabUnit coherent = r.unit().coherent();
        double value = r.unit().convert(r.value(), coherent);
        if (r.u() == 0) {
            return Part.fixed(value, coherent);
        }
        Draws.Stream stream = drawing(l);
        double scale = r.unit().scaleTo(coherent);
        return new Part(m -> value + scale * DrawnFormula.of(r, stream), coherent, false);
    }

    Draws.Stream drawing(Expr at) {
        if (sampled == null) {
            throw new FormulaException(
                    at.column(),
                    "Nothing is drawn here: a rate must be the same whenever it is asked for. Draw the value in "
                            + "hidden, or use flutter(sd, over: time).");
        }
        return sampled;
    }

    private Part name(Expr.Name n) {
        if (n.name().equals("none")) {
            throw new FormulaException(n.column(), "Nothing is none at a bench; say what it is.");
        }
        return names.of(n.name())
                .or(() -> Constants.of(n.name()).map(PhysicsCompiler::constant))
                .orElseThrow(() -> new FormulaException(
                        n.column(), "The rig knows no " + n.name() + NearName.hint(n.name(), names.all())));
    }

    /** A quantity that is the same at every moment. */
    static Part constant(Quantity q) {
        LabUnit coherent = q.unit().coherent();
        return Part.fixed(q.unit().convert(q.value(), coherent), coherent);
    }

    Part number(Expr e) {
        Part p = compile(e);
        if (p.isTruth()) {
            throw new FormulaException(e.column(), "A quantity is needed here, not a comparison.");
        }
        return p;
    }

    private Part truth(Expr e) {
        Part p = compile(e);
        if (!p.isTruth()) {
            throw new FormulaException(e.column(), "A comparison is needed here, not a quantity.");
        }
        return p;
    }

    private Part prefix(Expr.Prefix p) {
        if (p.op().equals("not")) {
            Part a = truth(p.operand());
            return Part.truth(m -> 1 - a.code().at(m), a.fixed());
        }
        Part a = number(p.operand());
        return p.op().equals("+") ? a : new Part(m -> -a.code().at(m), a.unit(), a.fixed());
    }

    private Part infix(Expr.Infix i) {
        if (i.op().equals("and") || i.op().equals("or")) {
            Part left = truth(i.left());
            Part right = truth(i.right());
            Code a = left.code();
            Code b = right.code();
            boolean both = i.op().equals("and");
            return Part.truth(
                    m -> both ? Math.min(a.at(m), b.at(m)) : Math.max(a.at(m), b.at(m)), left.fixed() && right.fixed());
        }
        Part a = number(i.left());
        Part b = number(i.right());
        boolean fixed = a.fixed() && b.fixed();
        return switch (i.op()) {
            case "*" -> part(Arithmetic.product(a.code(), b.code()), a.unit().times(b.unit()), fixed);
            case "/" -> part(Arithmetic.quotient(a.code(), b.code()), a.unit().per(b.unit()), fixed);
            case "^" -> power(i, a, b);
            case "+" -> part(Arithmetic.sum(alike(i, a, b).code(), b.code()), a.unit(), fixed);
            case "-" -> part(Arithmetic.difference(alike(i, a, b).code(), b.code()), a.unit(), fixed);
            default -> compared(i, Arithmetic.difference(alike(i, a, b).code(), b.code()), fixed);
        };
    }

    private static Part part(Code code, LabUnit unit, boolean fixed) {
        return new Part(code, unit.coherent(), fixed);
    }

    private static Part two(Part a, Part b, DoubleBinaryOperator op, LabUnit unit) {
        Code x = a.code();
        Code y = b.code();
        return new Part(m -> op.applyAsDouble(x.at(m), y.at(m)), unit.coherent(), a.fixed() && b.fixed());
    }

    static Part alike(Expr.Infix i, Part a, Part b) {
        if (!a.unit().fits(b.unit())) {
            throw new FormulaException(
                    i.column(),
                    "In '" + Spelling.of(i) + "': " + a.unit().named() + " and "
                            + b.unit().named() + " do not go together.");
        }
        return a;
    }

    private Part compared(Expr.Infix i, Code d, boolean fixed) {
        boolean below = i.op().startsWith("<");
        if (i.op().equals("==") || i.op().equals("!=")) {
            boolean same = i.op().equals("==");
            return Part.truth(m -> d.at(m) == 0 == same ? 1 : 0, fixed);
        }
        boolean equal = i.op().endsWith("=");
        if (switches != null && !fixed) {
            Switch s = new Switch(d, below, equal);
            switches.add(s);
            return Part.truth(s, false);
        }
        return Part.truth(
                m -> {
                    double v = d.at(m);
                    return (v == 0 ? equal : v < 0 == below) ? 1 : 0;
                },
                fixed);
    }

    private Part power(Expr.Infix i, Part a, Part b) {
        if (!b.unit().isDimensionless()) {
            throw new FormulaException(i.right().column(), "An exponent must be a pure number.");
        }
        if (b.fixed()) {
            double p = b.code().at(now);
            Code x = a.code();
            LabUnit unit = a.unit().power(p).coherent();
            return p == 2
                    ? new Part(m -> square(x.at(m)), unit, a.fixed())
                    : new Part(m -> StrictMath.pow(x.at(m), p), unit, a.fixed());
        }
        if (!a.unit().isDimensionless()) {
            throw new FormulaException(
                    i.left().column(), "With an exponent that changes, the base must be a pure number.");
        }
        return two(a, b, StrictMath::pow, LabUnit.ONE);
    }

    private static double square(double x) {
        return x * x;
    }

    private Part call(Expr.Call c) {
        return switch (c.function()) {
            case "if" -> choice(c);
            case "dry" -> physical.dry(c);
            case "flutter" -> physical.flutter(c);
            case "root" -> physical.root(c);
            case "limit", "uncertain" -> DrawnFormula.isDraw(c) ? physical.spread(c) : library(c);
            case "sqrt" -> {
                Part a = argument(c, 0);
                yield one(a, StrictMath::sqrt, a.unit().power(0.5));
            }
            case "abs" -> {
                Part a = argument(c, 0);
                yield one(a, Math::abs, a.unit());
            }
            case "min" -> several(c, Math::min);
            case "max" -> several(c, Math::max);
            case "hypot" -> several(c, StrictMath::hypot);
            case "mod" -> several(c, (x, y) -> x - y * Math.floor(x / y));
            default -> {
                Elementary f = Elementary.named(c.function());
                yield f == null || c.arguments().size() != 1 ? library(c) : elementary(c, f);
            }
        };
    }

    Part argument(Expr.Call c, int i) {
        if (c.arguments().size() <= i) {
            throw new FormulaException(c.column(), c.function() + " needs " + (i + 1) + " arguments or more.");
        }
        return number(c.arguments().get(i).value());
    }

    private static Part one(Part a, DoubleUnaryOperator f, LabUnit unit) {
        return new Part(m -> f.applyAsDouble(a.code().at(m)), unit.coherent(), a.fixed());
    }

    private Part elementary(Expr.Call c, Elementary f) {
        Part a = argument(c, 0);
        if (!a.unit().isDimensionless()) {
            throw new FormulaException(
                    c.column(),
                    c.function() + " takes a pure number or an angle, not "
                            + a.unit().named() + ".");
        }
        boolean angle = f == Elementary.ASIN || f == Elementary.ACOS || f == Elementary.ATAN;
        DoubleUnaryOperator g = switch (f) {
            case SIN -> StrictMath::sin;
            case COS -> StrictMath::cos;
            case TAN -> StrictMath::tan;
            case ASIN -> StrictMath::asin;
            case ACOS -> StrictMath::acos;
            case ATAN -> StrictMath::atan;
            case EXP -> StrictMath::exp;
            case LN -> StrictMath::log;
            case LOG10 -> StrictMath::log10;
            case SINH -> StrictMath::sinh;
            case COSH -> StrictMath::cosh;
            case TANH -> StrictMath::tanh;
            case LOG2 -> f::valueAt;
        };
        return one(a, g, angle ? LabUnit.RADIAN : LabUnit.ONE);
    }

    private Part several(Expr.Call c, DoubleBinaryOperator f) {
        Part all = argument(c, 0);
        for (int k = 1; k < c.arguments().size(); k++) {
            Part next = argument(c, k);
            if (!next.unit().fits(all.unit())) {
                throw new FormulaException(
                        c.arguments().get(k).value().column(),
                        next.unit().named() + " does not go with " + all.unit().named() + ".");
            }
            all = two(all, next, f, all.unit());
        }
        return all;
    }

    private Part choice(Expr.Call c) {
        if (c.arguments().size() != 3) {
            throw new FormulaException(c.column(), "if is written if(condition, a, b).");
        }
        Part condition = truth(c.arguments().get(0).value());
        if (condition.fixed()) {
            // Only the branch that is taken has to make sense.
            return compile(
                    c.arguments().get(condition.code().at(now) == 1 ? 1 : 2).value());
        }
        Part a = compile(c.arguments().get(1).value());
        Part b = compile(c.arguments().get(2).value());
        if (a.isTruth() != b.isTruth() || !a.isTruth() && !a.unit().fits(b.unit())) {
            throw new FormulaException(
                    c.arguments().get(2).value().column(),
                    "The two ways of if must be of one kind: " + a.said() + " and " + b.said() + " are not.");
        }
        return new Part(
                m -> condition.code().at(m) == 1 ? a.code().at(m) : b.code().at(m), a.unit(), a.isTruth(), false);
    }

    /** A state as it is now. */
    record State(int index) implements Code {
        @Override
        public double at(Moment m) {
            return m.y[index];
        }
    }

    private Part library(Expr.Call c) {
        List<Expr.Argument> given = new ArrayList<>();
        List<Part> parts = new ArrayList<>();
        for (Expr.Argument a : c.arguments()) {
            if (a.value() instanceof Expr.Text) {
                given.add(a);
            } else {
                given.add(new Expr.Argument(a.name(), new Expr.Name("argument_" + parts.size(), c.column())));
                parts.add(number(a.value()));
            }
        }
        LibraryCall call = LibraryCall.of(new Expr.Call(c.function(), List.copyOf(given), c.column()), parts, now);
        return new Part(call, call.unit(), parts.stream().allMatch(Part::fixed));
    }
}
