package eagerneedle.core.sheet;

import eagerneedle.core.formula.NearName;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.Node;

/**
 * The sheet whose sessions a pool takes. Where it does not ship with the program its text is written to the end of the
 * pool's own, under {@code pooled}, when that is taken from its file: so a session of the pool can be sent on whole,
 * and rehearsed where the other sheet is not.
 */
public final class PooledSheet {
    private static final String BLOCK = "pooled";
    /** What names of taken quantities start with in the sheet that they are taken from. */
    private static final String TAKEN = "taken_";

    private PooledSheet() {}

    /**
     * A sheet with the text of the one that its pool takes from; the same text where there is none, or it ships.
     *
     * @param find texts of sheets by id
     */
    public static String written(String text, Function<String, Optional<String>> find) {
        return from(text)
                .filter(id -> !SheetReader.shipped().contains(id))
                .flatMap(find)
                .map(source -> text + (text.endsWith("\n") ? "" : "\n") + BLOCK + ": |2\n"
                        + source.replaceAll("(?m)^", "  ").stripTrailing() + "\n")
                .orElse(text);
    }

    /** The id of the method that a sheet takes from and does not hold; empty for all others. */
    private static Optional<String> from(String text) {
        if (text.length() > SheetReader.LARGEST || !text.contains(Pool.NAME)) {
            return Optional.empty();
        }
        try {
            Node root = Peek.at(text);
            return Peek.entry(root, BLOCK).isPresent()
                    ? Optional.empty()
                    : Peek.entry(root, Pool.NAME).flatMap(pool -> Peek.text(pool, "from"));
        } catch (YAMLException told) {
            return Optional.empty();
        }
    }

    /** The id that a sheet's text gives itself; empty where it gives none. */
    public static Optional<String> idOf(String text) {
        try {
            return Peek.text(Peek.at(text), "id");
        } catch (YAMLException none) {
            return Optional.empty();
        }
    }

    /** The text of the sheet that a pool takes from; empty where nobody has it. */
    public static Optional<String> textOf(Sheet pool) {
        return textOf(pool.pooled(), pool.pool().from());
    }

    /**
     * The same before the sheet is read.
     *
     * @param pooled the text that was written to its end; empty for none
     */
    static Optional<String> textOf(String pooled, String from) {
        return !pooled.isEmpty()
                ? Optional.of(pooled)
                : Optional.of(from).filter(SheetReader.shipped()::contains).map(SheetReader::shippedText);
    }

    /** The sheet that a pool takes from; empty where nobody has it, or it is not good. */
    public static Optional<Sheet> of(Sheet pool) {
        return textOf(pool)
                .flatMap(text ->
                        SheetReader.look(text, pool.pool().from() + ".yaml").located())
                .map(SheetReader.Located::sheet);
    }

    /**
     * The sheet of a session, with what a pool takes of it as results of its own.
     *
     * @throws SheetException where it cannot be read, or does not have what is taken
     */
    public static SheetReader.Located taking(Pool pool, String text) {
        return SheetReader.read(text, pool.from() + ".yaml", results(pool.take()));
    }

    /** The physics of a sheet; that of a pool knows what is so in all its sessions. */
    public static RigPlan rig(Sheet sheet) {
        Map<String, String> nature = new LinkedHashMap<>();
        textOf(sheet)
                .ifPresent(text ->
                        nature.putAll(SheetReader.read(text, sheet.pool().from() + ".yaml")
                                .sheet()
                                .rig()
                                .nature()));
        nature.putAll(sheet.rig().nature());
        return sheet.rig().withNature(nature);
    }

    /**
     * The mistake with which a session of a pool is carried out.
     *
     * @param session one that the pool expects
     * @param mistake id of one that its method makes at the bench
     * @throws IllegalArgumentException where there is none of the two
     */
    public static void fault(Sheet pool, String session, String mistake) {
        if (!pool.pool().sessions().containsKey(session)) {
            throw new IllegalArgumentException("The pool expects no session " + session
                    + NearName.hint(session, pool.pool().sessions().keySet()));
        }
        List<String> known = textOf(pool)
                .map(text -> SheetReader.read(text, pool.pool().from() + ".yaml").sheet().mistakes().stream()
                        .filter(Sheet.Mistake::isAtBench)
                        .map(Sheet.Mistake::id)
                        .toList())
                .orElse(List.of());
        if (!known.contains(mistake)) {
            throw new IllegalArgumentException(pool.pool().from() + " knows no mistake at the bench called " + mistake
                    + NearName.hint(mistake, known));
        }
    }

    /** What the name of a column of the pool is among the results of {@link #taking}. */
    public static String result(String name) {
        return TAKEN + name;
    }

    /** Formulas that are taken, as results of the sheet they are taken from. */
    static Map<String, String> results(Map<String, String> take) {
        Map<String, String> out = new LinkedHashMap<>();
        take.forEach((name, formula) -> out.put(result(name), formula));
        return out;
    }
}
