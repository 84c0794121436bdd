package eagerneedle.core.physics;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The functions that only physics has: dry friction, noise that is correlated in time, draws, and roots. */
final class Physical {
    private final PhysicsCompiler of;
    private final Names names;
    private final Moment now;
    private final Draws draws;
    private final String path;
    private final @Nullable List<Switch> switches;
    private final int depth;
    private int flutters;

    /** @param depth how many roots it stands in */
    Physical(
            PhysicsCompiler of,
            Names names,
            Moment now,
            Draws draws,
            String path,
            @Nullable List<Switch> switches,
            int depth) {
        this.of = of;
        this.names = names;
        this.now = now;
        this.draws = draws;
        this.path = path;
        this.switches = switches;
        this.depth = depth;
    }

    Part dry(Expr.Call c) {
        if (c.arguments().size() != 3) {
            throw new FormulaException(c.column(), "dry is written dry(speed, drive, grip).");
        }
        Part speed = of.argument(c, 0);
        Part drive = of.argument(c, 1);
        Part grip = of.argument(c, 2);
        if (!drive.unit().fits(grip.unit())) {
            throw new FormulaException(
                    c.column(),
                    "The drive in " + drive.unit().named() + " and the grip in "
                            + grip.unit().named() + " must be of one kind.");
        }
        if (switches == null) {
            throw new FormulaException(c.column(), "dry has its place in rates.");
        }
        int state = speed.code() instanceof PhysicsCompiler.State s ? s.index() : -1;
        Switch.Dry s = new Switch.Dry(speed.code(), drive.code(), grip.code(), state);
        switches.add(s);
        return new Part(s, drive.unit(), false);
    }

    Part flutter(Expr.Call c) {
        Part sd = of.argument(c, 0);
        Part over = of.argument(c, 1);
        if (c.arguments().size() != 2 || !over.unit().fits(LabUnit.SECOND)) {
            throw new FormulaException(c.column(), "flutter is written flutter(sd, over: 3 s).");
        }
        if (!over.fixed()) {
            throw new FormulaException(c.column(), "The time over which it flutters must not change.");
        }
        Flutter f =
                new Flutter(draws.stream(path + "~" + flutters++), over.code().at(now));
        return new Part(m -> sd.code().at(m) * f.at(m), sd.unit(), false);
    }

    Part spread(Expr.Call c) {
        boolean even = c.function().equals("limit");
        Part about = of.argument(c, 0);
        Part wide = of.argument(c, 1);
        Draws.Stream stream = of.drawing(c);
        PhysicsCompiler.alike(
                new Expr.Infix(
                        "+", c.arguments().get(0).value(), c.arguments().get(1).value(), c.column()),
                about,
                wide);
        return new Part(
                m -> about.code().at(m) + wide.code().at(m) * (even ? stream.even() : stream.normal()),
                about.unit(),
                false);
    }

    Part root(Expr.Call c) {
        if (c.arguments().size() != 3 || !(c.arguments().get(0).value() instanceof Expr.Text text)) {
            throw new FormulaException(c.column(), "root is written root('formula in x', from: 0 A, to: 60 mA).");
        }
        Part from = of.argument(c, 1);
        Part to = of.argument(c, 2);
        PhysicsCompiler.alike(
                new Expr.Infix(
                        "-", c.arguments().get(1).value(), c.arguments().get(2).value(), c.column()),
                from,
                to);
        int level = depth;
        Expr inside = Formula.parse(text.text()).expression();
        Part f = within(inside, from, level, false);
        // Where nothing but x can change, neither does the root; a condition may hide what can.
        boolean still = !text.text().contains("if")
                && from.fixed()
                && to.fixed()
                && within(inside, from, level, true).fixed();
        Code code =
                m -> Root.of(f.code(), m, level, from.code().at(m), to.code().at(m));
        return new Part(code, from.unit(), still);
    }

    /** The formula of a root over its x, which is taken for something that stands still or not. */
    private Part within(Expr inside, Part from, int level, boolean still) {
        Names inner = new Names() {
            @Override
            public Optional<Part> of(String name) {
                return name.equals("x")
                        ? Optional.of(new Part(m -> m.sought[level], from.unit(), still))
                        : names.of(name);
            }

            @Override
            public Collection<String> all() {
                return names.all();
            }
        };
        return new PhysicsCompiler(inner, now, draws, path, null, null, depth + 1).number(inside);
    }
}
