package eagerneedle.core.sheet;

import eagerneedle.core.judge.School;
import eagerneedle.core.plan.TimeLine;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A method sheet, as read. Texts that are formulas or quantities are kept as written; the field comments of
 * {@code docs/method-sheet.md} explain each entry. Missing lists and maps are empty, never null.
 */
public record Sheet(
        int sheet,
        String id,
        String title,
        String subject,
        String place,
        String question,
        List<Principle> principle,
        List<String> cautions,
        Map<String, Input> inputs,
        Map<String, Input> planned,
        List<Correlation> correlations,
        Map<String, Device> devices,
        Map<String, Channel> channels,
        List<Step> prepare,
        Map<String, Capture> captures,
        Map<String, Derived> results,
        List<Picture> pictures,
        List<Comparison> comparisons,
        List<Check> checks,
        List<Step> finish,
        List<Material> materials,
        List<Task> timeline,
        List<Statement> statements,
        List<Mistake> mistakes,
        Map<String, Capture.Choice> choices,
        Map<String, Map<String, String>> members,
        Pool pool,
        String pooled,
        RigPlan rig) {
    public Sheet {
        members = orEmpty(members);
        pool = pool == null ? Pool.NONE : pool;
        pooled = orEmpty(pooled);
        choices = orEmpty(choices);
        rig = rig == null ? RigPlan.NONE : rig;
        place = orEmpty(place);
        question = orEmpty(question);
        principle = orEmpty(principle);
        cautions = orEmpty(cautions);
        inputs = orEmpty(inputs);
        planned = orEmpty(planned);
        correlations = orEmpty(correlations);
        devices = orEmpty(devices);
        channels = orEmpty(channels);
        prepare = orEmpty(prepare);
        captures = orEmpty(captures);
        results = orEmpty(results);
        pictures = orEmpty(pictures);
        comparisons = orEmpty(comparisons);
        checks = orEmpty(checks);
        finish = orEmpty(finish);
        materials = orEmpty(materials);
        timeline = orEmpty(timeline);
        statements = orEmpty(statements);
        mistakes = orEmpty(mistakes);
    }

    /** What people call a member of a set; as it is written where there is no such set. */
    public String member(String set, String name) {
        return members.getOrDefault(set, Map.of()).getOrDefault(name, name);
    }

    /** The capture of that name, which there is. */
    public Capture capture(String name) {
        return Objects.requireNonNull(captures.get(name), name);
    }

    /** The channel of that name, which there is. */
    public Channel channel(String name) {
        return Objects.requireNonNull(channels.get(name), name);
    }

    /** What people call a result; its name where it has no label. */
    public String called(String result) {
        Derived d = results.get(result);
        return d == null || d.label() == null ? result : d.label();
    }

    /** The input of that name, which there is. */
    public Input input(String name) {
        return Objects.requireNonNull(inputs.get(name), name);
    }

    /** The instrument of that name, which there is. */
    public Device device(String name) {
        return Objects.requireNonNull(devices.get(name), name);
    }

    /** An equation the method rests on. */
    public record Principle(@Nullable String text, String formula) {}

    /**
     * Something measured once, by hand or from elsewhere. {@code value} is the planned reading; {@code actual} names
     * the channel that measures it, for a value that is only nominal on paper; {@code given} says that it stands in a
     * certificate or a table, and is not read. Of what is read with a run, {@code times} says how often each time, and
     * {@code once: level} that it is read with the first run at a level only. {@code site} names what a laboratory says
     * once for all sheets, which then stands in the place of {@code value}: g, mains or pressure.
     */
    public record Input(
            String label,
            @Nullable String symbol,
            String value,
            @Nullable String by,
            @Nullable String group,
            @Nullable String actual,
            @Nullable Boolean given,
            int times,
            @Nullable String once,
            @Nullable String site) {
        public Input {
            times = Math.max(1, times);
        }

        /** True when one reading serves all runs at a level. */
        public boolean isOncePerLevel() {
            return "level".equals(once);
        }

        public boolean isGiven() {
            return Boolean.TRUE.equals(given);
        }

        /** The same with another reading. */
        Input reading(String text) {
            return new Input(label, symbol, text, by, group, actual, given, times, once, site);
        }

        /** What budgets call it: "foot spacing by steel tape TH-TP-02". */
        public String leafLabel() {
            return by == null ? label : label + " by " + by;
        }
    }

    /** A declared correlation coefficient {@code r}, -1 to 1, of two inputs. */
    public record Correlation(List<String> between, double r) {}

    /**
     * A step to be signed off; {@code minutes} it has to run before it may be, 0 for none; {@code staff} when a member
     * of staff has to agree, because what comes after it can hurt somebody.
     */
    public record Step(String id, String text, double minutes, boolean staff) {}

    /** Something to weigh out or to have ready: an amount by formula. */
    public record Material(
            String label, String amount, @Nullable String unit) {}

    /** A task of the time line; {@code hands} when somebody has to be at it. */
    public record Task(
            String id,
            String label,
            double minutes,
            List<String> after,
            @Nullable Boolean hands) {
        public Task {
            after = after == null ? List.of() : List.copyOf(after);
        }

        public TimeLine.Task toTask() {
            return new TimeLine.Task(id, label, minutes, after, hands == null || hands);
        }
    }

    /** A formula whose value is a sentence: which model, whether routes agree, which candidate. */
    public record Statement(String label, String formula) {}

    /**
     * A mistake that people make: in reducing, to be tried on the real data, or at the bench, to be rehearsed.
     *
     * @param change what it does: results and {@code capture.quantity} get another formula, {@code capture.window}
     *     another proposal, inputs another value; {@code rig.} and a name is that thing at the bench
     * @param says why it is wrong
     */
    public record Mistake(String id, String label, Map<String, String> change, String says) {
        /** True for one that is made at the bench, before anything is reckoned. */
        public boolean isAtBench() {
            return change.keySet().stream().anyMatch(k -> k.startsWith("rig."));
        }
    }

    /** The mistakes of reckoning, which can be tried on data that are there. */
    public List<Mistake> reckoningMistakes() {
        return mistakes.stream().filter(m -> !m.isAtBench()).toList();
    }

    /** True when the sheet itself says what happens at its bench; that of a pool is the benches of its sessions. */
    public boolean hasPhysics() {
        return !rig.parts().isEmpty()
                || !rig.hidden().isEmpty()
                || !rig.nature().isEmpty()
                || !rig.signals().isEmpty()
                || !rig.edges().isEmpty()
                || pool.isThere();
    }

    /** This sheet with quantities that were added to its captures, and to its results (under {@code ""}). */
    public Sheet adding(Map<String, Map<String, Derived>> own) {
        if (own.isEmpty()) {
            return this;
        }
        Map<String, Derived> r = new LinkedHashMap<>(results);
        own.getOrDefault("", Map.of()).forEach(r::putIfAbsent);
        Map<String, Capture> c = new LinkedHashMap<>(captures);
        c.replaceAll((name, capture) -> own.containsKey(name) ? capture.adding(own.get(name)) : capture);
        return with(c, r);
    }

    /**
     * This sheet as it is planned: with other readings of inputs, other numbers of runs, and channels that are set up
     * otherwise.
     */
    public Sheet planned(
            Map<String, String> readings,
            java.util.function.ToIntFunction<String> repeats,
            java.util.function.BiFunction<String, Channel, Channel> setUp) {
        Map<String, Input> in = new LinkedHashMap<>(inputs);
        in.replaceAll((n, input) -> readings.containsKey(n) ? input.reading(readings.get(n)) : input);
        Map<String, Capture> c = new LinkedHashMap<>(captures);
        c.replaceAll((n, capture) -> capture.repeated(repeats.applyAsInt(n)));
        Map<String, Channel> ch = new LinkedHashMap<>(channels);
        ch.replaceAll(setUp);
        return with(in, ch, c, results);
    }

    /** A choice that this sheet offers. */
    public record Offer(String key, Capture.Choice choice) {}

    /** Every choice, those of captures by {@code capture.name}. */
    public List<Offer> offers() {
        List<Offer> out = new ArrayList<>();
        captures.forEach((c, capture) -> capture.choices().forEach((n, o) -> out.add(new Offer(c + "." + n, o))));
        choices.forEach((n, o) -> out.add(new Offer(n, o)));
        return out;
    }

    /** This sheet with the ways that were picked, by the key of the choice. */
    public Sheet picking(Map<String, String> picked) {
        if (picked.isEmpty()) {
            return this;
        }
        Map<String, Capture> c = new LinkedHashMap<>(captures);
        c.replaceAll((name, capture) -> capture.picking(q -> picking(q, picked)));
        return with(c, picking(results, picked));
    }

    private static Map<String, Derived> picking(Map<String, Derived> of, Map<String, String> picked) {
        Map<String, Derived> out = new LinkedHashMap<>(of);
        out.replaceAll((n, d) -> d.choice() == null ? d : d.in(picked.getOrDefault(d.choice(), "")));
        return out;
    }

    /** This sheet in a nature in which something else is so in every session, as far as its rig knows of it. */
    public Sheet inNature(Map<String, String> nature) {
        Map<String, String> known = new LinkedHashMap<>(rig.nature());
        known.replaceAll((n, formula) -> nature.getOrDefault(n, formula));
        return with(inputs, channels, captures, results, rig.withNature(known));
    }

    /** This sheet without its physics: nothing of what is true stands in it, and nothing can be rehearsed. */
    public Sheet withoutPhysics() {
        return with(inputs, channels, captures, results, RigPlan.NONE);
    }

    private Sheet with(Map<String, Capture> c, Map<String, Derived> r) {
        return with(inputs, channels, c, r);
    }

    private Sheet with(Map<String, Input> in, Map<String, Channel> ch, Map<String, Capture> c, Map<String, Derived> r) {
        return with(in, ch, c, r, rig);
    }

    private Sheet with(
            Map<String, Input> in,
            Map<String, Channel> ch,
            Map<String, Capture> c,
            Map<String, Derived> r,
            RigPlan physics) {
        return new Sheet(
                sheet,
                id,
                title,
                subject,
                place,
                question,
                principle,
                cautions,
                in,
                planned,
                correlations,
                devices,
                ch,
                prepare,
                c,
                r,
                pictures,
                comparisons,
                checks,
                finish,
                materials,
                timeline,
                statements,
                mistakes,
                choices,
                members,
                pool,
                pooled,
                physics);
    }

    /** This sheet as it would be with a mistake made; other values of inputs are not part of it. */
    public Sheet mistaken(Mistake m) {
        Map<String, Derived> r = new LinkedHashMap<>(results);
        r.replaceAll((name, d) -> {
            String other = m.change().get(name);
            return other == null ? d : d.by(other);
        });
        Map<String, Capture> c = new LinkedHashMap<>(captures);
        c.replaceAll((name, capture) -> capture.changed(name, m.change()));
        return with(c, r);
    }

    /**
     * A result against a reference; {@code threshold} in percent, null for none; {@code remedy} what to look for when
     * they do not agree.
     *
     * @param matters the smallest difference that would matter, in the unit of the result or in percent of the
     *     reference; null when the sheet does not say
     * @param bound below or above where the reference is a bound that the result must keep; null where they should
     *     agree
     */
    public record Comparison(
            String id,
            String label,
            String result,
            String reference,
            @Nullable String speaks,
            @Nullable Double threshold,
            boolean main,
            @Nullable String remedy,
            @Nullable String matters,
            @Nullable String bound) {
        public School school() {
            return speaks == null ? School.STANDARD : School.valueOf(speaks.toUpperCase(Locale.ROOT));
        }
    }

    /** Something that must hold. */
    public record Check(
            String label, String formula, @Nullable String remedy) {}

    /** The comparison that speaks for the method: the one marked main, or the first; null if there is none. */
    public @Nullable Comparison mainComparison() {
        return comparisons.stream()
                .filter(Comparison::main)
                .findFirst()
                .orElse(comparisons.isEmpty() ? null : comparisons.get(0));
    }

    static String orEmpty(@Nullable String s) {
        return s == null ? "" : s;
    }

    static <T> List<T> orEmpty(@Nullable List<T> list) {
        return list == null ? List.of() : List.copyOf(list);
    }

    static <T> Map<String, T> orEmpty(@Nullable Map<String, T> map) {
        return map == null ? Map.of() : map;
    }
}
