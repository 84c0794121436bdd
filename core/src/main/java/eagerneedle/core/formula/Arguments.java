package eagerneedle.core.formula;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Pattern;

/** The arguments of one call: by position, by name, checked for kind. */
final class Arguments {
    private final Evaluator evaluator;
    private final Expr.Call call;
    private final String signature;
    private final Map<Integer, Value> values = new LinkedHashMap<>();

    Arguments(Evaluator evaluator, Expr.Call call, String signature) {
        this.evaluator = evaluator;
        this.call = call;
        this.signature = signature;
        for (Expr.Argument a : call.arguments()) {
            if (a.name() != null && !Pattern.compile("\\b" + a.name() + ":").matcher(signature).find()) {
                throw new FormulaException(call.column(), call.function() + " has no argument called " + a.name() + "; it is written " + signature + ".");
            }
        }
    }

    Scope scope() {
        return evaluator.scope();
    }

    String id() {
        return evaluator.freshId();
    }

    int column() {
        return call.column();
    }

    Expr at(int i) {
        int seen = 0;
        for (Expr.Argument a : call.arguments()) {
            if (a.name() == null && seen++ == i) {
                return a.value();
            }
        }
        throw new FormulaException(call.column(), call.function() + " is written " + signature + "; argument " + (i + 1) + " is missing.");
    }

    Value value(int i) {
        Value v = values.get(i);
        if (v == null) {
            v = evaluator.evaluate(at(i));
            values.put(i, v);
        }
        return v;
    }

    Value each(int i, Function<Quantity, Quantity> op) {
        return evaluator.each(value(i), at(i), op::apply);
    }

    Quantity quantity(int i) {
        return Evaluator.scalar(value(i), at(i));
    }

    double number(int i) {
        return Evaluator.pureNumber(quantity(i), at(i), "Argument " + (i + 1) + " of " + call.function());
    }

    String words(int i) {
        if (value(i) instanceof Value.Words w) {
            return w.text();
        }
        throw new FormulaException(at(i).column(), "A text in quotes is needed here, not " + value(i).described() + ".");
    }

    List<Quantity> rows(int i) {
        if (value(i) instanceof Value.Column c) {
            if (c.rows().isEmpty()) {
                throw new FormulaException(at(i).column(), Spelling.of(at(i)) + " has no rows yet: capture or import a run first.");
            }
            return c.rows();
        }
        throw new FormulaException(at(i).column(), "A column of values is needed here, not " + value(i).described() + ".");
    }

    /** How many arguments were given by position. */
    int positional() {
        return (int) call.arguments().stream().filter(a -> a.name() == null).count();
    }

    /** One column, or several quantities that make one. */
    List<Quantity> rowsOrAll() {
        return positional() == 1 ? rows(0) : all();
    }

    List<Quantity> all() {
        at(0);
        List<Quantity> out = new ArrayList<>();
        for (int i = 0; i < positional(); i++) {
            Quantity q = quantity(i);
            if (!out.isEmpty() && !q.unit().fits(out.get(0).unit())) {
                throw new FormulaException(at(i).column(), q + " does not go in a column with " + out.get(0) + ".");
            }
            out.add(q);
        }
        return out;
    }

    Trace trace(int i) {
        if (value(i) instanceof Value.Signal s) {
            return s.trace();
        }
        throw new FormulaException(at(i).column(), "A trace is needed here, not " + value(i).described() + ".");
    }

    Fit fit(int i) {
        if (value(i) instanceof Value.Fitted f) {
            return f.fit();
        }
        throw new FormulaException(at(i).column(), "A fit is needed here, not " + value(i).described() + ".");
    }

    Trace windowed(int i) {
        Trace t = trace(i);
        String name = words("window", null);
        if (name == null) {
            return t;
        }
        return t.within(namedWindow(name, t));
    }

    String words(String name, String otherwise) {
        Expr e = named(name);
        if (e == null) {
            return otherwise;
        }
        if (evaluator.evaluate(e) instanceof Value.Words w) {
            return w.text();
        }
        throw new FormulaException(e.column(), "The argument " + name + " takes a text in quotes.");
    }

    double number(String name, double otherwise) {
        Expr e = named(name);
        return e == null ? otherwise : Evaluator.pureNumber(Evaluator.scalar(evaluator.evaluate(e), e), e, "The argument " + name);
    }

    Quantity quantity(String name, String otherwise) {
        Expr e = named(name);
        if (e != null) {
            return Evaluator.scalar(evaluator.evaluate(e), e);
        }
        Reading r = Reading.parse(otherwise);
        return Quantity.exact(r.value(), r.unit());
    }

    boolean has(String name) {
        return named(name) != null;
    }

    /** An integer given by name, between two bounds. */
    int whole(String name, int otherwise, int least, int most) {
        double d = number(name, otherwise);
        if (d != Math.rint(d) || d < least || d > most) {
            throw new FormulaException(call.column(), "The argument " + name + " is a whole number from " + least + " to " + most + ", not " + d + ".");
        }
        return (int) d;
    }

    int whole(int i, int least, int most) {
        double d = number(i);
        if (d != Math.rint(d) || d < least || d > most) {
            throw new FormulaException(at(i).column(), "A whole number from " + least + " to " + most + " is needed here, not " + d + ".");
        }
        return (int) d;
    }

    /** The position given to a trace by name, from the session. */
    Window namedWindow(String name, Trace t) {
        return scope().window(name, t).orElseThrow(() -> new FormulaException(call.column(),
                "No window \"" + name + "\" could be proposed on " + t.name() + "; set one by hand."));
    }

    private Expr named(String name) {
        return call.arguments().stream().filter(a -> name.equals(a.name())).map(Expr.Argument::value).findFirst().orElse(null);
    }
}
