package eagerneedle.core.formula;

import eagerneedle.core.quantity.Reading;
import eagerneedle.core.quantity.UnitException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.Token;
import org.jspecify.annotations.Nullable;

/**
 * A parsed formula.
 *
 * @param text as written
 * @param defines the name on the left of an equals sign, or null
 * @param expression its syntax tree
 */
public record Formula(String text, @Nullable String defines, Expr expression) {
    /** Formulas met before: a sheet's are the same in every run, and those of default arguments in every call. */
    private static final Map<String, Formula> KNOWN = new ConcurrentHashMap<>();

    private static final int MOST_KNOWN = 4096;
    private static final int LONGEST_KNOWN = 1000;
    private static final int DEEPEST = 600;
    private static final int BRACKET = 3;
    private static final int LONGEST = 60_000;

    /**
     * Parses a formula such as {@code g = slope(a, sin_theta) * (1 + q)}; the name and equals sign may be missing.
     *
     * @throws FormulaException with column, what was found and what would fit
     */
    public static Formula parse(String text) {
        Formula known = KNOWN.get(text);
        if (known == null) {
            known = parsed(text);
            if (text.length() < LONGEST_KNOWN) {
                if (KNOWN.size() >= MOST_KNOWN) {
                    KNOWN.clear();
                }
                KNOWN.put(text, known);
            }
        }
        return known;
    }

    /** A tree as a formula that was never written. */
    public static Formula of(Expr expression) {
        return new Formula("", null, expression);
    }

    private static Formula parsed(String text) {
        if (text.length() > LONGEST) {
            throw new FormulaException(
                    1, "The formula is longer than %d characters; split it into named parts.".formatted(LONGEST));
        }
        FormulaLexer lexer = new FormulaLexer(CharStreams.fromString(withSigns(text)));
        Complaints complaints = new Complaints();
        lexer.removeErrorListeners();
        lexer.addErrorListener(complaints);
        CommonTokenStream tokens = new CommonTokenStream(lexer);
        tokens.fill();
        checkDepth(tokens.getTokens());
        FormulaParser parser = new FormulaParser(tokens);
        parser.removeErrorListeners();
        parser.addErrorListener(complaints);
        FormulaParser.DefinitionContext tree = parser.definition();
        return new Formula(
                text, tree.NAME() == null ? null : tree.NAME().getText(), new Builder().visit(tree.expression()));
    }

    /**
     * Every open bracket and every operator beside it is one step deeper into the tree, which is walked by recursion.
     */
    private static void checkDepth(List<Token> tokens) {
        Deque<Integer> operators = new ArrayDeque<>(List.of(0));
        int depth = 0;
        for (Token t : tokens) {
            switch (t.getText()) {
                case "(" -> {
                    operators.push(0);
                    depth += BRACKET;
                }
                case ")" -> {
                    if (operators.size() > 1) {
                        depth -= operators.pop() + BRACKET;
                    }
                }
                case "," -> {
                    depth -= operators.pop();
                    operators.push(0);
                }
                case "+", "-", "−", "*", "·", "/", "^", "<", "<=", ">", ">=", "==", "!=", "&", "|", "not" -> {
                    operators.push(operators.pop() + 1);
                    depth++;
                }
                default -> {}
            }
            if (depth > DEEPEST) {
                throw new FormulaException(
                        t.getCharPositionInLine() + 1, "The formula is nested too deeply; split it into named parts.");
            }
        }
    }

    /** Spells "and" and "or" as single signs in place, so that "x < 3 and y > 2" has no unit called "and". */
    private static String withSigns(String text) {
        StringBuilder b = new StringBuilder(text);
        char quote = 0;
        for (int i = 0; i < b.length(); i++) {
            char c = b.charAt(i);
            boolean mark = quote == 0 ? c == '"' || c == '\'' : c == quote;
            quote = !mark ? quote : quote == 0 ? c : 0;
            if (quote == 0 && word(b, i, "and")) {
                b.replace(i, i + 3, "&  ");
            } else if (quote == 0 && word(b, i, "or")) {
                b.replace(i, i + 2, "| ");
            }
        }
        return b.toString();
    }

    private static boolean word(CharSequence text, int at, String word) {
        int end = at + word.length();
        return end <= text.length()
                && text.subSequence(at, end).toString().equals(word)
                && (at == 0 || !Character.isJavaIdentifierPart(text.charAt(at - 1)))
                && (end == text.length() || !Character.isJavaIdentifierPart(text.charAt(end)));
    }

    /** The value in a scope. */
    public Value evaluate(Scope scope) {
        return new Evaluator(scope).evaluate(expression);
    }

    /**
     * Checks the calls of functions as they are written, whatever the values will be.
     *
     * @throws FormulaException for a function that is not known, and for arguments that do not go with it
     */
    public void checkCalls() {
        Calls.check(expression);
    }

    /** Every name the formula mentions, in order; functions and named arguments are not among them. */
    public Set<String> names() {
        Set<String> names = new LinkedHashSet<>();
        collect(expression, names);
        return names;
    }

    /** Every text in the formula, in order: names of windows, of levels, of models. */
    public Set<String> texts() {
        Set<String> texts = new LinkedHashSet<>();
        texts(expression, texts);
        return texts;
    }

    private static void texts(Expr e, Set<String> texts) {
        if (e instanceof Expr.Text t) {
            texts.add(t.text());
        } else if (e instanceof Expr.Prefix p) {
            texts(p.operand(), texts);
        } else if (e instanceof Expr.Infix i) {
            texts(i.left(), texts);
            texts(i.right(), texts);
        } else if (e instanceof Expr.Call c) {
            c.arguments().forEach(a -> texts(a.value(), texts));
        }
    }

    private static void collect(Expr e, Set<String> names) {
        if (e instanceof Expr.Name n) {
            names.add(n.name());
        } else if (e instanceof Expr.Prefix p) {
            collect(p.operand(), names);
        } else if (e instanceof Expr.Infix i) {
            collect(i.left(), names);
            collect(i.right(), names);
        } else if (e instanceof Expr.Call c) {
            c.arguments().forEach(a -> collect(a.value(), names));
            names.addAll(Calls.namesInModels(c));
        }
    }

    private static final class Complaints extends BaseErrorListener {
        @Override
        public void syntaxError(
                Recognizer<?, ?> recognizer,
                Object symbol,
                int line,
                int column,
                String message,
                RecognitionException e) {
            int at = column + 1;
            if (symbol instanceof Token token) {
                boolean end = token.getType() == Token.EOF;
                String found = end ? "the formula ends" : "'" + token.getText() + "' does not fit";
                String fits = end
                        ? "; something is missing, perhaps a closing bracket or a value"
                        : token.getType() == FormulaLexer.QUANTITY || token.getType() == FormulaLexer.NAME
                                ? "; perhaps an operator such as * is missing before it"
                                : "";
                throw new FormulaException(at, found + " here" + fits + ".");
            }
            int quote = message.indexOf('\'');
            throw new FormulaException(
                    at,
                    "The character " + (quote < 0 ? "" : message.substring(quote)) + " has no meaning in a formula.");
        }
    }

    /** Turns ANTLR's tree into ours. */
    private static final class Builder extends FormulaBaseVisitor<Expr> {
        private static int column(ParserRuleContext c) {
            return c.getStart().getCharPositionInLine() + 1;
        }

        @Override
        public Expr visitGroup(FormulaParser.GroupContext c) {
            return visit(c.expression());
        }

        @Override
        public Expr visitCall(FormulaParser.CallContext c) {
            List<Expr.Argument> arguments = new ArrayList<>();
            for (FormulaParser.ArgumentContext a : c.argument()) {
                arguments.add(
                        new Expr.Argument(a.NAME() == null ? null : a.NAME().getText(), visit(a.expression())));
            }
            return Calls.withTexts(new Expr.Call(c.NAME().getText(), List.copyOf(arguments), column(c)));
        }

        @Override
        public Expr visitName(FormulaParser.NameContext c) {
            return new Expr.Name(c.getText(), column(c));
        }

        @Override
        public Expr visitQuantity(FormulaParser.QuantityContext c) {
            try {
                return new Expr.Literal(Reading.parse(c.getText()), c.getText(), column(c));
            } catch (UnitException e) {
                throw new FormulaException(
                        column(c),
                        e.getMessage().replaceFirst("\\.$", "") + "; to multiply by a name write * between them.",
                        e);
            } catch (IllegalArgumentException e) {
                throw new FormulaException(column(c), String.valueOf(e.getMessage()), e);
            }
        }

        @Override
        public Expr visitText(FormulaParser.TextContext c) {
            return new Expr.Text(c.getText().substring(1, c.getText().length() - 1), column(c));
        }

        @Override
        public Expr visitPower(FormulaParser.PowerContext c) {
            return infix("^", c.expression(), c);
        }

        @Override
        public Expr visitSign(FormulaParser.SignContext c) {
            return new Expr.Prefix(c.op.getText(), visit(c.expression()), column(c));
        }

        @Override
        public Expr visitNegation(FormulaParser.NegationContext c) {
            return new Expr.Prefix("not", visit(c.expression()), column(c));
        }

        @Override
        public Expr visitProduct(FormulaParser.ProductContext c) {
            return infix(c.op.getText().replace('·', '*'), c.expression(), c);
        }

        @Override
        public Expr visitSum(FormulaParser.SumContext c) {
            return infix(c.op.getText().replace('−', '-'), c.expression(), c);
        }

        @Override
        public Expr visitCompare(FormulaParser.CompareContext c) {
            return infix(c.op.getText(), c.expression(), c);
        }

        @Override
        public Expr visitLogic(FormulaParser.LogicContext c) {
            return infix(c.op.getText().equals("&") ? "and" : "or", c.expression(), c);
        }

        private Expr infix(String op, List<FormulaParser.ExpressionContext> sides, ParserRuleContext c) {
            return new Expr.Infix(op, visit(sides.get(0)), visit(sides.get(1)), column(c));
        }
    }
}
