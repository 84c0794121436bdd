package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonProperty;
import eagerneedle.core.formula.Formula;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A kind of run.
 *
 * @param mode stream, shot, gate, prompted, hold or eye; when not said, stream, or eye where no channel is recorded
 * @param channels what is recorded; empty where everything is read by eye
 * @param longest in s
 * @param minutes one run takes with setting it up
 * @param byEye what is read by eye with each run
 * @param views pictures of one run, from quantities of it that are columns
 * @param rules what must hold of a row, by name
 * @param seek what is held at a target before a row is taken; null for nothing
 */
public record Capture(
        String label,
        String mode,
        String hint,
        List<String> channels,
        double longest,
        int repeats,
        double minutes,
        Map<String, Level> levels,
        Map<String, WindowPlan> windows,
        Map<String, Derived> quantities,
        @Nullable SpreadPlan spread,
        @Nullable ShotPlan shot,
        @Nullable PromptPlan prompt,
        @Nullable HoldPlan hold,
        @JsonProperty("by_eye") Map<String, Sheet.Input> byEye,
        List<Picture> views,
        Map<String, RowRule> rules,
        Map<String, Choice> choices,
        @Nullable String until,
        @Nullable SeekPlan seek) {
    /** The mode in which nothing is recorded: a row is what somebody reads. */
    public static final String EYE = "eye";

    public Capture {
        choices = Sheet.orEmpty(choices);
        channels = channels == null ? List.of() : channels;
        levels = levels == null ? Map.of("run", new Level("run", Map.of(), Map.of(), Map.of(), Map.of())) : levels;
        rules = Sheet.orEmpty(rules);
        views = Sheet.orEmpty(views);
        mode = mode != null ? mode : channels.isEmpty() ? EYE : "stream";
        byEye = Sheet.orEmpty(byEye);
        shot = mode.equals("shot") && shot == null ? new ShotPlan(null, null, null, "either", 0, 0) : shot;
        hold = mode.equals("hold") && hold == null ? new HoldPlan(0, 0, 0) : hold;
        hint = Sheet.orEmpty(hint);
        repeats = Math.max(1, repeats);
        longest = longest <= 0 ? 60 : longest;
        minutes = minutes <= 0 ? longest / 60 + 0.5 : minutes;
        windows = onChannels(Sheet.orEmpty(windows), channels);
        quantities = Sheet.orEmpty(quantities);
    }

    /** What fires it: of a capture in the mode shot. */
    public ShotPlan shotPlan() {
        return Objects.requireNonNull(shot, label);
    }

    /** When readings are taken: of a prompted capture. */
    public PromptPlan promptPlan() {
        return Objects.requireNonNull(prompt, label);
    }

    /** How it waits: of a capture in the mode hold. */
    public HoldPlan holdPlan() {
        return Objects.requireNonNull(hold, label);
    }

    /** What is held: of a capture that seeks something. */
    public SeekPlan seekPlan() {
        return Objects.requireNonNull(seek, label);
    }

    /** A window that names no channel is on the first. */
    private static Map<String, WindowPlan> onChannels(Map<String, WindowPlan> windows, List<String> channels) {
        Map<String, WindowPlan> out = new LinkedHashMap<>(windows);
        out.replaceAll((n, w) -> w.on() != null || channels.isEmpty()
                ? w
                : new WindowPlan(channels.get(0), w.propose(), w.from(), w.to()));
        return out;
    }

    /** True when nothing is recorded: a row is what somebody reads. */
    public boolean isByEye() {
        return mode.equals(EYE);
    }

    /** The window that lies on a channel; absent where none does. */
    public Optional<String> windowOn(String channel) {
        return windows.entrySet().stream()
                .filter(e -> channel.equals(e.getValue().on()))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** The channel whose trace stands for a run; absent where nothing is recorded. */
    public Optional<String> top() {
        return channels.stream().findFirst();
    }

    /** What is expected to be read by eye at a level, as written. */
    public String expected(String level, String name) {
        Level l = levels.get(level);
        return l != null && l.expected().containsKey(name)
                ? l.expected().get(name)
                : Objects.requireNonNull(byEye.get(name), name).value();
    }

    /** With more quantities of each run, after those of the sheet. */
    Capture adding(Map<String, Derived> more) {
        Map<String, Derived> q = new LinkedHashMap<>(quantities);
        more.forEach(q::putIfAbsent);
        return with(repeats, windows, q, rules);
    }

    /** The output that is turned until its target is there; what it stood at is kept with each run. */
    public List<String> turned() {
        return seek == null || seek.output() == null ? List.of() : List.of(seek.output());
    }

    /** Quantities that are moments: ends of windows are reckoned from them. */
    public List<String> moments() {
        return moments(windows.values());
    }

    /** Those that windows on one channel follow; of a channel without such windows those of all. */
    public List<String> moments(String channel) {
        List<String> own = moments(
                windows.values().stream().filter(w -> channel.equals(w.on())).toList());
        return own.isEmpty() ? moments() : own;
    }

    private List<String> moments(Collection<WindowPlan> of) {
        return of.stream()
                .flatMap(w -> w.ends().stream())
                .flatMap(e -> java.util.stream.Stream.of(e.from(), e.to()))
                .flatMap(f -> Formula.parse(f).names().stream())
                .filter(quantities::containsKey)
                .distinct()
                .toList();
    }

    /** With another number of runs at each level. */
    Capture repeated(int n) {
        return with(n, windows, quantities, rules);
    }

    /** With quantities reckoned in the ways that were picked. */
    Capture picking(java.util.function.UnaryOperator<Map<String, Derived>> picked) {
        return with(repeats, windows, picked.apply(quantities), rules);
    }

    Capture changed(String name, Map<String, String> change) {
        Map<String, WindowPlan> w = new LinkedHashMap<>(windows);
        w.replaceAll((n, plan) -> plan.changed(name + "." + n, change));
        Map<String, Derived> q = new LinkedHashMap<>(quantities);
        q.replaceAll((n, d) -> {
            String other = change.get(name + "." + n);
            return other == null ? d : d.by(other);
        });
        return with(repeats, w, q, changed(name, rules, change));
    }

    private Capture with(int runs, Map<String, WindowPlan> w, Map<String, Derived> q, Map<String, RowRule> r) {
        return new Capture(
                label, mode, hint, channels, longest, runs, minutes, levels, w, q, spread, shot, prompt, hold, byEye,
                views, r, choices, until, seek);
    }

    /** Rules that a mistake changes, or does without. */
    private static Map<String, RowRule> changed(String name, Map<String, RowRule> rules, Map<String, String> change) {
        Map<String, RowRule> r = new LinkedHashMap<>(rules);
        rules.forEach((n, rule) -> {
            String other = change.get(name + ".rules." + n);
            if (other != null && other.equals("none")) {
                r.remove(n);
            } else if (other != null) {
                r.put(n, new RowRule(other, rule.otherwise(), rule.says()));
            }
        });
        return r;
    }

    /**
     * What must hold of a row.
     *
     * @param must a comparison over the quantities of its run
     * @param otherwise refuse, leave-out, propose or flag
     * @param says why, in one sentence
     */
    public record RowRule(String must, @JsonProperty("else") String otherwise, String says) {
        public boolean leavesOut() {
            return otherwise.equals("leave-out");
        }

        public boolean refuses() {
            return otherwise.equals("refuse");
        }
    }

    /**
     * Several ways of reckoning one thing, of which practitioners take one or another.
     *
     * @param label what is reckoned
     * @param ways formulas by what each way is called
     * @param usual the way that is taken when nobody chooses
     * @param why why that one
     */
    public record Choice(
            String label,
            Map<String, String> ways,
            @JsonProperty("default") @Nullable String usual,
            String why) {
        public Choice {
            ways = Sheet.orEmpty(ways);
            usual = usual == null && !ways.isEmpty() ? ways.keySet().iterator().next() : usual;
            why = Sheet.orEmpty(why);
        }

        /** The way that is taken when nobody chooses. */
        public String taken() {
            return Objects.requireNonNull(usual, label);
        }
    }

    /**
     * The quantity that stands for a run: the first one shown that rests on its samples and is no moment, or else the
     * first one shown; null when none is.
     */
    public @Nullable String headline() {
        String first = null;
        List<String> moments = moments();
        for (Map.Entry<String, Derived> e : quantities.entrySet()) {
            if (e.getValue().shown()) {
                first = first == null ? e.getKey() : first;
                if (restsOnSamples(e.getKey()) && !moments.contains(e.getKey())) {
                    return e.getKey();
                }
            }
        }
        return first;
    }

    /** True when a quantity rests on samples, directly or through others of its run. */
    public boolean restsOnSamples(String quantity) {
        return Formula.parse(Objects.requireNonNull(quantities.get(quantity), quantity)
                        .formula())
                .names()
                .stream()
                .map(this::whole)
                .anyMatch(n ->
                        channels.contains(n) || !n.equals(quantity) && quantities.containsKey(n) && restsOnSamples(n));
    }

    /** Of a part of a fit among the quantities the fit; any other name itself. */
    public String whole(String name) {
        String of = name.substring(0, Math.max(0, name.lastIndexOf('.')));
        return !quantities.containsKey(name) && quantities.containsKey(of) ? of : name;
    }

    /**
     * One setting of the factor; {@code set} binds names for the runs at it, {@code outputs} are set by the program
     * before it (numbers in the unit of the output, or formulas over inputs and what the level sets), {@code at} says
     * which members of which sets it is, {@code expected} what is expected to be read by eye where that differs from
     * level to level.
     */
    public record Level(
            @Nullable String label,
            Map<String, String> set,
            Map<String, String> outputs,
            Map<String, String> at,
            Map<String, String> expected) {
        public Level {
            expected = Sheet.orEmpty(expected);
            at = Sheet.orEmpty(at);
            outputs = Sheet.orEmpty(outputs);
            set = Sheet.orEmpty(set);
        }
    }

    /**
     * Levels to spread evenly: {@code set} is what is set, {@code plotted} the variable they are even in, a formula
     * over inputs and {@code set}.
     */
    public record SpreadPlan(String set, String plotted, String from, String to, int count) {}
}
