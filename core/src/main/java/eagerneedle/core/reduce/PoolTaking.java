package eagerneedle.core.reduce;

import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.KeptLeaf;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/** Takes what a pool wants of a session, which is reduced by its own sheet. */
public final class PoolTaking {
    private PoolTaking() {}

    /**
     * Where a session comes from.
     *
     * @param name what its rows are called by
     * @param file where its file is
     * @param digest of the file
     * @param taken when
     */
    public record Origin(String name, String file, String digest, Instant taken) {}

    /**
     * What a pool takes of a session.
     *
     * @throws IllegalArgumentException with one sentence where it follows another method, or nothing of it has a value
     */
    public static PoolSource of(Pool pool, Session session, SampleSource samples, Origin origin) {
        String id = PooledSheet.idOf(session.sheetText()).orElse("");
        if (!id.equals(pool.from())) {
            throw new IllegalArgumentException(origin.name() + " follows the method " + id
                    + "; this pool takes from sessions of " + pool.from() + ".");
        }
        SheetReader.Located own;
        try {
            own = PooledSheet.taking(pool, session.sheetText());
        } catch (SheetException e) {
            throw new IllegalArgumentException(
                    origin.name() + " follows a sheet from which this cannot be taken: " + e.getMessage(), e);
        }
        return of(pool, own, session, samples, origin);
    }

    /**
     * The same by a sheet that was read for it.
     *
     * @param own with what the pool takes, see {@link PooledSheet#taking}
     */
    public static PoolSource of(
            Pool pool, SheetReader.Located own, Session session, SampleSource samples, Origin origin) {
        Reducer reducer = new Reducer(own, samples);
        reducer.takeLong();
        Reduction r = reducer.reduce(session);
        Map<String, Value.Column> taken = new LinkedHashMap<>();
        List<String> remarks = new ArrayList<>();
        for (String name : pool.take().keySet()) {
            Outcome o = r.outcome(new Key.Global(PooledSheet.result(name)));
            if (o.value() instanceof Value.Scalar s) {
                taken.put(name, new Value.Column(List.of(s.quantity())));
            } else if (o.value() instanceof Value.Column c && !c.rows().isEmpty()) {
                taken.put(name, c);
            } else {
                remarks.add(name + " has no value"
                        + (o.problem() == null
                                ? o.value() instanceof Value.None || o.value() instanceof Value.Column
                                        ? "."
                                        : ": it is " + o.there().described() + ", and not a quantity or a column."
                                : ": " + o.problem()));
            }
        }
        if (taken.isEmpty()) {
            throw new IllegalArgumentException(
                    "Nothing of " + origin.name() + " can be taken: " + String.join(" ", remarks));
        }
        PoolIdentity identity = new PoolIdentity(origin.name(), pool, own.sheet(), session);
        Set<Leaf> leaves = new LinkedHashSet<>();
        taken.values()
                .forEach(c ->
                        c.rows().forEach(q -> leaves.addAll(q.contributions().keySet())));
        Map<String, List<PoolSource.Row>> columns = new LinkedHashMap<>();
        taken.forEach((name, c) -> columns.put(name, rows(c, leaves)));
        return new PoolSource(
                origin.name(),
                origin.file(),
                origin.digest(),
                session.title(),
                session.created() + " " + session.measured(),
                origin.taken(),
                leaves.stream().map(l -> KeptLeaf.of(l, identity)).toList(),
                columns,
                labels(pool, own.sheet(), taken.keySet()),
                remarks,
                null);
    }

    /**
     * Quantities of a session as they stand beside those of others: what sessions share is one influence of all, what
     * belongs to this one alone is called by its name.
     *
     * @param name what the session is called, as no other is
     */
    public static UnaryOperator<Quantity> besideOthers(String name, Sheet sheet, Session session) {
        PoolIdentity identity = new PoolIdentity(name, Pool.NONE, sheet, session);
        Map<Leaf, Leaf> known = new HashMap<>();
        return q -> {
            Quantity out = Quantity.exact(q.value(), q.unit());
            for (Leaf l : q.contributions().keySet()) {
                Leaf own =
                        known.computeIfAbsent(l, x -> KeptLeaf.of(x, identity).toLeaf());
                out = out.with(own, q.contribution(l));
            }
            return out;
        };
    }

    /** What the sheet of a session calls a result that is taken as it is; a family without the name of its member. */
    private static Map<String, String> labels(Pool pool, Sheet sheet, Set<String> taken) {
        Map<String, String> out = new LinkedHashMap<>();
        pool.take()
                .forEach((name, formula) -> sheet.results().entrySet().stream()
                        .filter(r -> r.getKey().equals(formula) || r.getKey().startsWith(formula + "."))
                        .filter(r -> taken.contains(name))
                        .flatMap(r -> Stream.ofNullable(r.getValue().label())
                                .map(label ->
                                        withoutMembers(sheet, label, r.getKey().substring(formula.length()))))
                        .findFirst()
                        .ifPresent(label -> out.put(name, label)));
        return out;
    }

    private static String withoutMembers(Sheet sheet, String label, String members) {
        String out = label;
        for (String member :
                members.isEmpty() ? new String[0] : members.substring(1).split("\\.")) {
            for (Map<String, String> set : sheet.members().values()) {
                String called = set.get(member);
                out = called == null ? out : out.replace(", " + called, "");
            }
        }
        return out;
    }

    private static List<PoolSource.Row> rows(Value.Column c, Set<Leaf> leaves) {
        List<PoolSource.Row> out = new ArrayList<>();
        for (int i = 0; i < c.rows().size(); i++) {
            Quantity q = c.rows().get(i);
            RowLabels.Row label = c.labels() == null ? null : c.labels().rows().get(i);
            Map<String, String> labels = label != null
                    ? label.labels()
                    : c.rows().size() == 1 ? Map.of() : Map.of("row", Integer.toString(i + 1));
            out.add(new PoolSource.Row(
                    label == null ? "" : label.level(),
                    labels,
                    q.value(),
                    q.unit().symbol(),
                    leaves.stream().map(q::contribution).toList()));
        }
        return out;
    }
}
