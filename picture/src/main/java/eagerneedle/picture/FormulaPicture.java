package eagerneedle.picture;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Spelling;
import eagerneedle.core.quantity.Reading;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Sets an equation as print does: fractions, roots, powers, indices, Greek letters; names italic, functions and units
 * upright.
 */
public final class FormulaPicture {
    private static final Map<String, String> GREEK = Map.ofEntries(
            Map.entry("alpha", "α"),
            Map.entry("beta", "β"),
            Map.entry("gamma", "γ"),
            Map.entry("delta", "δ"),
            Map.entry("epsilon", "ε"),
            Map.entry("eta", "η"),
            Map.entry("theta", "θ"),
            Map.entry("lambda", "λ"),
            Map.entry("mu", "μ"),
            Map.entry("nu", "ν"),
            Map.entry("pi", "π"),
            Map.entry("rho", "ρ"),
            Map.entry("sigma", "σ"),
            Map.entry("tau", "τ"),
            Map.entry("phi", "φ"),
            Map.entry("omega", "ω"));
    private static final Set<String> BARE = Set.of("sin", "cos", "tan", "ln", "exp");

    /** A piece of a set formula: its size and how it paints itself with its baseline at a place. */
    private interface Box {
        double width();

        double ascent();

        double descent();

        void paint(Surface s, double x, double baseline);
    }

    private record Made(double width, double ascent, double descent, Painter painter) implements Box {
        @Override
        public void paint(Surface s, double x, double baseline) {
            painter.paint(s, x, baseline);
        }
    }

    private interface Painter {
        void paint(Surface s, double x, double baseline);
    }

    private final Surface measure;
    private final Ink ink;
    /** How many fractions what is set now is part of: inside one a division has a stroke. */
    private int fractions;

    private FormulaPicture(Surface measure, Ink ink) {
        this.measure = measure;
        this.ink = ink;
    }

    /** Size of a set equation. */
    public record Size(double width, double ascent, double descent) {}

    /** Paints an equation such as {@code a = b / c} with its left edge and baseline at a place. */
    public static Size paint(Surface s, String equation, double x, double baseline, double size, Ink ink) {
        Box b = new FormulaPicture(s, ink).equation(equation, size);
        b.paint(s, x, baseline);
        return new Size(b.width(), b.ascent(), b.descent());
    }

    public static Size measure(Surface s, String equation, double size) {
        Box b = new FormulaPicture(s, Ink.INK).equation(equation, size);
        return new Size(b.width(), b.ascent(), b.descent());
    }

    /**
     * Sets an equation into no more than a width: what is too long goes on below, broken before a plus or minus sign.
     *
     * @return its height from {@code top}, in points
     */
    public static double paintWithin(
            Surface s, String equation, double x, double top, double size, double width, Ink ink) {
        FormulaPicture f = new FormulaPicture(s, ink);
        String[] sides = sides(equation).toArray(String[]::new);
        Box left = f.row(List.of(
                f.box(Formula.parse(sides[0].strip()).expression(), size, 0), f.word("  =  ", Lettering.text(size))));
        List<Box> line = new ArrayList<>(List.of(left));
        double used = left.width();
        double y = top;
        List<Box> parts = new ArrayList<>();
        f.terms(Formula.parse(sides[sides.length - 1].strip()).expression(), size, parts);
        for (Box part : parts) {
            if (line.size() > 1 && used + part.width() > width) {
                y = f.finish(s, line, x, y);
                line = new ArrayList<>(List.of(f.word(" ".repeat(8), Lettering.text(size))));
                used = line.get(0).width();
            }
            line.add(part);
            used += part.width();
        }
        return f.finish(s, line, x, y) - top;
    }

    private double finish(Surface s, List<Box> line, double x, double top) {
        Box b = row(line);
        b.paint(s, x, top + b.ascent() + 3);
        return top + b.ascent() + b.descent() + 8;
    }

    /** The terms of a sum, each with its sign before it. */
    private void terms(Expr e, double size, List<Box> into) {
        if (e instanceof Expr.Infix i && (i.op().equals("+") || i.op().equals("-"))) {
            terms(i.left(), size, into);
            into.add(row(List.of(
                    word(i.op().equals("-") ? " − " : " + ", Lettering.text(size)),
                    box(i.right(), size, i.op().equals("-") ? 4 : 3))));
        } else {
            into.add(box(e, size, 3));
        }
    }

    /** What stands between the equals signs of an equation: a comparison, an argument and a text keep theirs. */
    static List<String> sides(String equation) {
        List<String> out = new ArrayList<>();
        int depth = 0;
        char quote = 0;
        int from = 0;
        for (int i = 0; i < equation.length(); i++) {
            char c = equation.charAt(i);
            if (quote != 0) {
                quote = c == quote ? 0 : quote;
            } else if (c == '"' || c == '\'') {
                quote = c;
            } else if (c == '(' || c == ')') {
                depth += c == '(' ? 1 : -1;
            } else if (c == '=' && depth == 0) {
                boolean compares = i > 0 && "=<>!".indexOf(equation.charAt(i - 1)) >= 0
                        || i + 1 < equation.length() && equation.charAt(i + 1) == '=';
                if (!compares) {
                    out.add(equation.substring(from, i));
                    from = i + 1;
                }
            }
        }
        out.add(equation.substring(from));
        return out;
    }

    private Box equation(String text, double size) {
        List<Box> boxes = new ArrayList<>();
        for (String side : sides(text)) {
            if (!boxes.isEmpty()) {
                boxes.add(word("  =  ", Lettering.text(size)));
            }
            boxes.add(box(Formula.parse(side.strip()).expression(), size, 0));
        }
        return row(boxes);
    }

    private Box box(Expr e, double size, int outer) {
        if (e instanceof Expr.Literal l) {
            Reading r = l.reading();
            String number = l.text().replaceAll("\\s*[\\p{L}°%µΩ].*$", "");
            return word(
                    number + (r.unit().symbol().isEmpty() ? "" : " " + r.unit().pretty()), Lettering.text(size));
        } else if (e instanceof Expr.Text t) {
            return word("“" + t.text() + "”", Lettering.text(size));
        } else if (e instanceof Expr.Name n) {
            return symbol(n.name(), size);
        } else if (e instanceof Expr.Prefix p) {
            Box b = row(
                    List.of(word(p.op().equals("-") ? "−" : p.op(), Lettering.text(size)), box(p.operand(), size, 6)));
            return outer > 4 ? bracketed(b, size) : b;
        } else if (e instanceof Expr.Call c) {
            return call(c, size);
        }
        return infix((Expr.Infix) e, size, outer);
    }

    private Box infix(Expr.Infix i, double size, int outer) {
        int rank = Spelling.rank(i.op());
        boolean product = i.op().equals("*") || i.op().equals("/");
        if (product && i.left() instanceof Expr.Prefix p && p.op().equals("-")) {
            // Minus a product: its first factor needs no brackets of its own.
            Box b = row(List.of(
                    word("−", Lettering.text(size)),
                    infix(new Expr.Infix(i.op(), p.operand(), i.right(), i.column()), size, rank)));
            return outer > 4 ? bracketed(b, size) : b;
        }
        if (i.op().equals("/") && fractions == 0) {
            fractions++;
            try {
                return fraction(box(i.left(), size * 0.92, 0), box(i.right(), size * 0.92, 0), size);
            } finally {
                fractions--;
            }
        }
        if (i.op().equals("^")) {
            boolean fraction = i.left() instanceof Expr.Infix d && d.op().equals("/");
            Box base = fraction ? bracketed(box(i.left(), size, 0), size) : box(i.left(), size, 8);
            return row(List.of(base, raised(box(i.right(), size * 0.68, 0), size * 0.42)));
        }
        String sign = switch (i.op()) {
            case "*" ->
                i.right() instanceof Expr.Literal
                                || i.right() instanceof Expr.Infix r
                                        && r.op().equals("^")
                                        && r.left() instanceof Expr.Literal
                        ? " · "
                        : "\u2009";
            case "/" -> "\u2009/\u2009";
            case "-" -> " − ";
            case "<=" -> " ≤ ";
            case ">=" -> " ≥ ";
            case "==" -> " = ";
            case "!=" -> " ≠ ";
            default -> " " + i.op() + " ";
        };
        Box b = row(List.of(
                box(i.left(), size, rank),
                word(sign, Lettering.text(size)),
                box(i.right(), size, i.op().equals("-") || i.op().equals("/") ? rank + 1 : rank)));
        return rank < outer ? bracketed(b, size) : b;
    }

    private Box call(Expr.Call c, double size) {
        List<Box> arguments = new ArrayList<>();
        for (Expr.Argument a : c.arguments()) {
            if (!arguments.isEmpty()) {
                arguments.add(word(", ", Lettering.text(size)));
            }
            if (a.name() != null) {
                arguments.add(word(a.name() + ": ", Lettering.text(size)));
            }
            arguments.add(box(a.value(), size, 0));
        }
        Box inside = row(arguments);
        if (c.function().equals("sqrt")) {
            return root(inside, size);
        }
        if (c.function().equals("abs")) {
            return between(inside, size);
        }
        boolean bare = BARE.contains(c.function())
                && c.arguments().size() == 1
                && c.arguments().get(0).value() instanceof Expr.Name;
        Box name = word(c.function() + (bare ? "\u2009" : ""), Lettering.text(size));
        return row(List.of(name, bare ? inside : bracketed(inside, size)));
    }

    /** A name: Greek by its English name, everything after an underscore as an index. */
    private Box symbol(String name, double size) {
        String column = name.contains(".") ? name.substring(name.indexOf('.') + 1) : name;
        String[] parts = column.split("_", 2);
        String base = GREEK.getOrDefault(parts[0], parts[0]);
        Box b = word(
                base,
                base.length() > 2 && !GREEK.containsKey(parts[0]) ? Lettering.text(size) : Lettering.italic(size));
        if (parts.length == 1) {
            return b;
        }
        return row(List.of(
                b,
                raised(
                        word(GREEK.getOrDefault(parts[1], parts[1].replace('_', ' ')), Lettering.text(size * 0.68)),
                        -size * 0.22)));
    }

    private Box word(String text, Lettering l) {
        return new Made(
                measure.textWidth(text, l),
                l.size() * 0.76,
                l.size() * 0.22,
                (s, x, y) -> s.text(text, x, y, Surface.Align.LEFT, l, ink));
    }

    private Box row(List<Box> boxes) {
        double w = boxes.stream().mapToDouble(Box::width).sum();
        double a = boxes.stream().mapToDouble(Box::ascent).max().orElse(0);
        double d = boxes.stream().mapToDouble(Box::descent).max().orElse(0);
        return new Made(w, a, d, (s, x, y) -> {
            double at = x;
            for (Box b : boxes) {
                b.paint(s, at, y);
                at += b.width();
            }
        });
    }

    private Box raised(Box b, double by) {
        return new Made(b.width() + 1, b.ascent() + by, b.descent() - by, (s, x, y) -> b.paint(s, x + 1, y - by));
    }

    private Box fraction(Box top, Box bottom, double size) {
        double w = Math.max(top.width(), bottom.width()) + size * 0.4;
        double axis = size * 0.28;
        double gap = size * 0.16;
        return new Made(
                w + 4,
                axis + gap + top.descent() + top.ascent(),
                -axis + gap + bottom.ascent() + bottom.descent(),
                (s, x, y) -> {
                    s.line(x + 2, y - axis, x + 2 + w, y - axis, ink, Math.max(0.9, size / 18));
                    top.paint(s, x + 2 + (w - top.width()) / 2, y - axis - gap - top.descent());
                    bottom.paint(s, x + 2 + (w - bottom.width()) / 2, y - axis + gap + bottom.ascent());
                });
    }

    private Box root(Box inside, double size) {
        double lead = size * 0.6;
        return new Made(lead + inside.width() + 3, inside.ascent() + 3, inside.descent(), (s, x, y) -> {
            double top = y - inside.ascent() - 2;
            double[] px = {x + 1, x + lead * 0.3, x + lead * 0.62, x + lead * 0.95, x + lead + inside.width() + 2};
            double[] py = {y - size * 0.25, y - size * 0.3, y + inside.descent(), top, top};
            s.polyline(px, py, 5, ink, Math.max(0.9, size / 18));
            inside.paint(s, x + lead, y);
        });
    }

    /** Between two upright strokes. */
    private Box between(Box b, double size) {
        double w = size * 0.28;
        return new Made(b.width() + 2 * w, b.ascent() + 2, b.descent() + 2, (s, x, y) -> {
            s.line(x + w / 2, y - b.ascent() - 1, x + w / 2, y + b.descent() + 1, ink, 1.1);
            b.paint(s, x + w, y);
            s.line(x + 1.5 * w + b.width(), y - b.ascent() - 1, x + 1.5 * w + b.width(), y + b.descent() + 1, ink, 1.1);
        });
    }

    private Box bracketed(Box b, double size) {
        double w = size * 0.3;
        double up = b.ascent() + 2;
        double down = b.descent() + 2;
        return new Made(b.width() + 2 * w, up, down, (s, x, y) -> {
            bow(s, x + w * 0.8, y - up, y + down, -w * 0.5);
            b.paint(s, x + w, y);
            bow(s, x + w + b.width() + w * 0.2, y - up, y + down, w * 0.5);
        });
    }

    private void bow(Surface s, double x, double top, double bottom, double bulge) {
        int n = 12;
        double[] px = new double[n + 1];
        double[] py = new double[n + 1];
        for (int i = 0; i <= n; i++) {
            double t = 2.0 * i / n - 1;
            px[i] = x + bulge * (1 - t * t);
            py[i] = top + (bottom - top) * i / n;
        }
        s.polyline(px, py, n + 1, ink, 1.1);
    }
}
