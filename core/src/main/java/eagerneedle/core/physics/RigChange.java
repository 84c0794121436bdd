package eagerneedle.core.physics;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Pieces;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * A difference at the bench: {@code rig.P} by another formula, in which {@code P} still means what it was. The rest of
 * the session is drawn as without it.
 */
public final class RigChange {
    /** What the name of an entry ends in that was changed, for what it was before. */
    public static final String UNCHANGED = "_unchanged";
    /** What a change at the bench starts with. */
    public static final String RIG = "rig.";

    /** What leaves a calibration out ends in. */
    private static final String CALIBRATION = ".calibration";

    private RigChange() {}

    /** True when a change is one at the bench, and not of how it is reckoned. */
    public static boolean isAtBench(String key) {
        return key.startsWith(RIG);
    }

    /**
     * The physics with a change made.
     *
     * @param key such as {@code rig.grip}, {@code rig.roll.position}, {@code rig.pull.edges.spokes.lost}; for a pool
     *     {@code rig.pool.SESSION}, which is carried out with a mistake of its own method
     * @throws IllegalArgumentException where the rig has nothing of that name
     */
    public static RigPlan of(RigPlan plan, Sheet sheet, String key, String formula) {
        if (sheet.pool().isThere() && key.startsWith(RIG + Pool.NAME + ".")) {
            PooledSheet.fault(sheet, key.substring(RIG.length() + Pool.NAME.length() + 1), formula);
            return plan;
        }
        return changed(plan, sheet, key.substring(RIG.length()), formula, key, true);
    }

    private static RigPlan changed(RigPlan p, Sheet sheet, String path, String formula, String key, boolean ofSession) {
        int dot = path.indexOf('.');
        String first = dot < 0 ? path : path.substring(0, dot);
        String rest = dot < 0 ? "" : path.substring(dot + 1);
        if (!rest.isEmpty() && p.parts().containsKey(first)) {
            Map<String, RigPlan> parts = new LinkedHashMap<>(p.parts());
            parts.put(first, changed(p.part(first), sheet, rest, formula, key, false));
            return with(p, "", Map.of(), p.edges(), p.lasts(), parts);
        }
        if (ofSession && path.endsWith(CALIBRATION)) {
            return uncalibrated(p, sheet, path.substring(0, path.length() - CALIBRATION.length()), formula);
        }
        // One of a family has a dot in its name.
        String whole = sectionOf(p, sheet, path, ofSession);
        String section = whole.isEmpty() ? first : whole;
        String name = whole.isEmpty() ? rest : path;
        if (path.equals("lasts")) {
            return with(p, "", Map.of(), p.edges(), formula, p.parts());
        }
        return switch (section) {
            case "nature" -> with(p, section, inline(p.nature(), name, formula));
            case "hidden" -> with(p, section, kept(p.hidden(), name, formula));
            case "signals" -> with(p, section, shown(p.signals(), name, formula));
            case "state" -> with(p, section, inline(p.state(), name, formula));
            case "rates" -> with(p, section, inline(p.rates(), name, formula));
            case "stuck" -> with(p, section, inline(p.stuck(), name, formula));
            case "readings" -> readings(p, name, formula);
            case "edges" -> edges(p, name, formula, key);
            default -> throw nothing(p, sheet, key);
        };
    }

    private static RigPlan uncalibrated(RigPlan p, Sheet sheet, String channel, String formula) {
        if (!sheet.channels().containsKey(channel) || sheet.channel(channel).calibration() == null) {
            throw new IllegalArgumentException("There is no calibration of " + channel + " that could be left out"
                    + NearName.hint(channel, sheet.channels().keySet()));
        }
        if (!formula.equals("none")) {
            throw new IllegalArgumentException("A calibration can only be left out: write none.");
        }
        Set<String> all = new LinkedHashSet<>(p.uncalibrated());
        all.add(channel);
        return read(p, p.readings(), all);
    }

    private static String sectionOf(RigPlan p, Sheet sheet, String name, boolean ofSession) {
        if (p.signals().containsKey(name)) {
            return "signals";
        } else if (p.state().containsKey(name)) {
            return "state";
        } else if (p.hidden().containsKey(name)) {
            return "hidden";
        } else if (p.nature().containsKey(name)) {
            return "nature";
        } else if (p.readings().containsKey(name)) {
            return "readings";
        } else if (sheet.channels().containsKey(name)) {
            return "signals";
        }
        return ofSession && sheet.inputs().containsKey(name) ? "hidden" : "";
    }

    private static IllegalArgumentException nothing(RigPlan p, Sheet sheet, String key) {
        Set<String> known = new LinkedHashSet<>();
        p.nature().keySet().forEach(n -> known.add(RIG + n));
        p.hidden().keySet().forEach(n -> known.add(RIG + n));
        sheet.inputs().keySet().forEach(n -> known.add(RIG + n));
        p.parts().forEach((c, part) -> {
            part.hidden().keySet().forEach(n -> known.add(RIG + c + "." + n));
            part.signals().keySet().forEach(n -> known.add(RIG + c + "." + n));
            part.state().keySet().forEach(n -> known.add(RIG + c + "." + n));
        });
        return new IllegalArgumentException("The rig has no " + key + NearName.hint(key, known));
    }

    private static Map<String, String> kept(Map<String, String> map, String name, String formula) {
        Map<String, String> out = new LinkedHashMap<>(map);
        if (map.containsKey(name)) {
            out.put(name + UNCHANGED, map.get(name));
        }
        out.put(name, renamed(formula, name, n -> n + UNCHANGED));
        return out;
    }

    private static Map<String, String> shown(Map<String, String> map, String name, String formula) {
        Map<String, String> out = new LinkedHashMap<>(map);
        out.put(name + UNCHANGED, map.getOrDefault(name, "reference"));
        map.keySet().stream()
                .filter(n -> !n.endsWith(UNCHANGED))
                .forEach(n -> out.putIfAbsent(n + UNCHANGED, map.get(n)));
        String own = formula;
        for (String channel :
                out.keySet().stream().filter(n -> !n.endsWith(UNCHANGED)).toList()) {
            own = renamed(own, channel, n -> n + UNCHANGED);
        }
        out.put(name, renamed(own, name, n -> n + UNCHANGED));
        return out;
    }

    private static Map<String, String> inline(Map<String, String> map, String name, String formula) {
        Map<String, String> out = new LinkedHashMap<>(map);
        out.put(name, map.containsKey(name) ? renamed(formula, name, n -> "(" + map.get(n) + ")") : formula);
        return out;
    }

    /** The formula with every use of a name written differently. */
    private static String renamed(String formula, String name, UnaryOperator<String> other) {
        return Pieces.renamed(formula, n -> n.equals(name) ? other.apply(name) : null)
                .text();
    }

    /** What an eye sees instead. */
    private static RigPlan readings(RigPlan p, String name, String formula) {
        Map<String, RigPlan.Eye> all = new LinkedHashMap<>(p.readings());
        RigPlan.Eye eye = all.get(name);
        if (eye == null) {
            throw new IllegalArgumentException("Nothing is read of " + name + NearName.hint(name, all.keySet()));
        }
        String text = renamed(formula, name, n -> "(" + eye.formula() + ")");
        all.put(name, new RigPlan.Eye(text, eye.at(), eye.value()));
        return read(p, all, p.uncalibrated());
    }

    private static RigPlan edges(RigPlan p, String path, String formula, String key) {
        int dot = path.indexOf('.');
        RigPlan.Edges e = p.edges().get(dot < 0 ? path : path.substring(0, dot));
        if (e == null || dot < 0) {
            throw new IllegalArgumentException(
                    "The rig has no gate of " + key + "; write rig.CAPTURE.edges.CHANNEL.lost, for instance.");
        }
        RigPlan.Edges next = switch (path.substring(dot + 1)) {
            case "of" ->
                new RigPlan.Edges(
                        renamed(formula, "of", n -> "(" + e.of() + ")"),
                        e.every(),
                        e.blocked(),
                        e.jitter(),
                        e.lost(),
                        e.uneven(),
                        e.round());
            case "every" ->
                new RigPlan.Edges(e.of(), formula, e.blocked(), e.jitter(), e.lost(), e.uneven(), e.round());
            case "blocked" ->
                new RigPlan.Edges(e.of(), e.every(), formula, e.jitter(), e.lost(), e.uneven(), e.round());
            case "jitter" ->
                new RigPlan.Edges(e.of(), e.every(), e.blocked(), formula, e.lost(), e.uneven(), e.round());
            case "lost" ->
                new RigPlan.Edges(e.of(), e.every(), e.blocked(), e.jitter(), formula, e.uneven(), e.round());
            default ->
                throw new IllegalArgumentException(
                        "A gate has no " + path.substring(dot + 1) + "; it has of, every, blocked, jitter and lost.");
        };
        Map<String, RigPlan.Edges> all = new LinkedHashMap<>(p.edges());
        all.put(path.substring(0, dot), next);
        return with(p, "", Map.of(), all, p.lasts(), p.parts());
    }

    /** With other readings by eye, and these calibrations left out. */
    private static RigPlan read(RigPlan p, Map<String, RigPlan.Eye> readings, Set<String> uncalibrated) {
        return new RigPlan(
                p.nature(),
                p.hidden(),
                p.state(),
                p.rates(),
                p.when(),
                p.signals(),
                p.edges(),
                readings,
                p.stuck(),
                p.circles(),
                p.lasts(),
                p.truth(),
                p.parts(),
                uncalibrated);
    }

    private static RigPlan with(RigPlan p, String section, Map<String, String> formulas) {
        return with(p, section, formulas, p.edges(), p.lasts(), p.parts());
    }

    /** With other formulas in one section, none for no section, and these gates, this length and these parts. */
    private static RigPlan with(
            RigPlan p,
            String section,
            Map<String, String> formulas,
            Map<String, RigPlan.Edges> edges,
            @Nullable String lasts,
            Map<String, RigPlan> parts) {
        return new RigPlan(
                section.equals("nature") ? formulas : p.nature(),
                section.equals("hidden") ? formulas : p.hidden(),
                section.equals("state") ? formulas : p.state(),
                section.equals("rates") ? formulas : p.rates(),
                p.when(),
                section.equals("signals") ? formulas : p.signals(),
                edges,
                p.readings(),
                section.equals("stuck") ? formulas : p.stuck(),
                p.circles(),
                lasts,
                p.truth(),
                parts,
                p.uncalibrated());
    }
}
