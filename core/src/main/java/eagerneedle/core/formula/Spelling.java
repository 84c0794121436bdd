package eagerneedle.core.formula;

import java.util.stream.Collectors;

/** Writes a syntax tree back as a formula, with no more brackets than it needs. */
public final class Spelling {

    private Spelling() {}

    public static String of(Expr e) {
        return write(e, 0);
    }

    private static String write(Expr e, int outer) {
        if (e instanceof Expr.Literal l) {
            return l.text();
        } else if (e instanceof Expr.Text t) {
            char quote = t.text().indexOf('"') < 0 ? '"' : '\'';
            return quote + t.text() + quote;
        } else if (e instanceof Expr.Name n) {
            return n.name();
        } else if (e instanceof Expr.Call c) {
            return c.function()
                    + c.arguments().stream()
                            .map(a -> (a.name() == null ? "" : a.name() + ": ") + of(a.value()))
                            .collect(Collectors.joining(", ", "(", ")"));
        } else if (e instanceof Expr.Prefix p) {
            boolean not = p.op().equals("not");
            String s = p.op() + (not ? " " : "") + write(p.operand(), not ? 3 : 6);
            return outer > (not ? 2 : 4) ? "(" + s + ")" : s;
        }
        Expr.Infix i = (Expr.Infix) e;
        int rank = rank(i.op());
        String s = i.op().equals("^")
                ? write(i.left(), rank + 1) + "^" + write(i.right(), rank)
                : write(i.left(), rank) + " " + i.op() + " " + write(i.right(), rank + 1);
        return rank < outer ? "(" + s + ")" : s;
    }

    /** Binding strength of an operator; a higher one binds tighter. */
    public static int rank(String op) {
        return switch (op) {
            case "or" -> 1;
            case "and" -> 2;
            case "<", "<=", ">", ">=", "==", "!=" -> 3;
            case "+", "-" -> 4;
            case "*", "/" -> 5;
            default -> 7;
        };
    }
}
