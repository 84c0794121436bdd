package eagerneedle.core.formula;

import java.util.ArrayList;
import java.util.List;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.Lexer;
import org.antlr.v4.runtime.Token;
import org.jspecify.annotations.Nullable;

/**
 * The text of a formula cut into what it is written of, so that names in it can be written differently and nothing else
 * is touched: the m of {@code 2 m} is a unit, that of {@code 2 * m} a name.
 */
public final class Pieces {
    /** What a piece is. */
    public enum Kind {
        /** A name with its dots; functions and names of arguments are none. */
        NAME,
        /** A text in quotes, quotes included. */
        TEXT,
        /** Anything else. */
        OTHER
    }

    /**
     * One piece.
     *
     * @param start index of its first character
     * @param text as written, blanks inside a name left out
     * @param end index after its last character
     */
    public record Piece(Kind kind, int start, String text, int end) {}

    private Pieces() {}

    /** The pieces of a formula in order; empty for a text that cannot be read as one. */
    public static List<Piece> of(String formula) {
        FormulaLexer lexer = new FormulaLexer(CharStreams.fromString(formula));
        lexer.removeErrorListeners();
        List<Token> tokens = new ArrayList<>();
        lexer.getAllTokens().forEach(t -> {
            if (t.getChannel() == Lexer.DEFAULT_TOKEN_CHANNEL) {
                tokens.add(t);
            }
        });
        List<Piece> out = new ArrayList<>();
        for (int i = 0; i < tokens.size(); i++) {
            Token t = tokens.get(i);
            if (t.getType() != FormulaLexer.NAME) {
                Kind kind = t.getType() == FormulaLexer.TEXT ? Kind.TEXT : Kind.OTHER;
                out.add(new Piece(kind, t.getStartIndex(), t.getText(), t.getStopIndex() + 1));
                continue;
            }
            StringBuilder name = new StringBuilder(t.getText());
            int last = i;
            while (is(tokens, last + 1, ".") && isName(tokens, last + 2)) {
                name.append('.').append(tokens.get(last + 2).getText());
                last += 2;
            }
            boolean called = is(tokens, last + 1, "(") || is(tokens, last + 1, ":");
            out.add(new Piece(
                    called || isWord(name.toString()) ? Kind.OTHER : Kind.NAME,
                    t.getStartIndex(),
                    name.toString(),
                    tokens.get(last).getStopIndex() + 1));
            i = last;
        }
        return out;
    }

    private static boolean isWord(String name) {
        return name.equals("and") || name.equals("or") || name.equals("not") || name.equals("none");
    }

    private static boolean is(List<Token> tokens, int i, String text) {
        return i < tokens.size() && tokens.get(i).getText().equals(text);
    }

    private static boolean isName(List<Token> tokens, int i) {
        return i < tokens.size() && tokens.get(i).getType() == FormulaLexer.NAME;
    }

    /**
     * A formula that is written differently.
     *
     * @param text the formula
     * @param origin for each of its characters, and one after the last, the index of the character it stands for
     */
    public record Rewritten(String text, int[] origin) {}

    /** How a name is written instead; null or itself to leave it. */
    public interface Renaming {
        @Nullable
        String of(String name);
    }

    /** The formula with other names, and nothing else changed. */
    public static Rewritten renamed(String formula, Renaming other) {
        return replaced(
                formula,
                of(formula).stream()
                        .filter(p -> p.kind() == Kind.NAME)
                        .map(p -> {
                            String to = other.of(p.text());
                            return new Piece(p.kind(), p.start(), to == null ? p.text() : to, p.end());
                        })
                        .toList());
    }

    /** The formula with other texts in some places, which are given in order. */
    public static Rewritten replaced(String formula, List<Piece> others) {
        StringBuilder out = new StringBuilder();
        List<Integer> origin = new ArrayList<>();
        int at = 0;
        for (Piece p : others) {
            for (; at < p.start(); at++) {
                out.append(formula.charAt(at));
                origin.add(at);
            }
            boolean same = formula.substring(p.start(), p.end()).equals(p.text());
            for (int k = 0; k < p.text().length(); k++) {
                origin.add(same ? p.start() + k : p.start());
            }
            out.append(p.text());
            at = p.end();
        }
        for (; at < formula.length(); at++) {
            out.append(formula.charAt(at));
            origin.add(at);
        }
        origin.add(formula.length());
        return new Rewritten(
                out.toString(), origin.stream().mapToInt(Integer::intValue).toArray());
    }
}
