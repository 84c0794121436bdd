package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonProperty;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.judge.School;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.watch.Expectation;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

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
        List<Mistake> mistakes) {
    public Sheet {
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

    /** An equation the method rests on. */
    public record Principle(String text, String formula) {}

    /**
     * Something measured once, by hand or from elsewhere. {@code value} is the planned reading; {@code actual} names
     * the channel that measures it, for a value that is only nominal on paper.
     */
    public record Input(String label, String symbol, String value, String by, String group, String actual) {
        /** What budgets call it: "foot spacing by steel tape TH-TP-02". */
        public String leafLabel() {
            return by == null ? label : label + " by " + by;
        }
    }

    /** A declared correlation coefficient {@code r}, -1 to 1, of two inputs. */
    public record Correlation(List<String> between, double r) {}

    /**
     * An instrument with an output.
     *
     * @param driver line, scpi, gate, file or manual
     * @param address where it usually is: host:port, a serial port, a file
     * @param queries scpi: the query that reads each channel
     * @param outputs what it can set, by name
     * @param rig its simulated stand-in, null if there is none
     */
    public record Device(
            String label,
            String driver,
            String address,
            Map<String, String> queries,
            Map<String, Output> outputs,
            String rig) {
        public Device {
            queries = orEmpty(queries);
            outputs = orEmpty(outputs);
        }
    }

    /**
     * Something an instrument can set.
     *
     * @param lowest smallest value it may be set to, in {@code unit}
     * @param highest largest
     * @param ramp fastest change, in {@code unit} a second; 0 for none
     * @param dwellAbove value above which time is limited; null for none
     * @param dwell longest time above it, in s
     * @param safe value at which it is off
     * @param command how the instrument is told, {@code %s} for the value
     */
    public record Output(
            String label,
            String unit,
            double lowest,
            double highest,
            double ramp,
            @JsonProperty("dwell_above") Double dwellAbove,
            double dwell,
            double safe,
            String command) {}

    /** A step to be signed off; {@code minutes} it has to run before it may be, 0 for none. */
    public record Step(String id, String text, double minutes) {}

    /** Something to weigh out or to have ready: an amount by formula. */
    public record Material(String label, String amount, String unit) {}

    /** A task of the time line; {@code hands} when somebody has to be at it. */
    public record Task(String id, String label, double minutes, List<String> after, Boolean hands) {
        public TimeLine.Task toTask() {
            return new TimeLine.Task(id, label, minutes, after, hands == null || hands);
        }
    }

    /**
     * A channel with its chain.
     *
     * @param needs lowest and highest value the method needs
     * @param input the instrument's name for it; null when it is the channel's own
     * @param tag the letter on its lead
     * @param position where its sensor sits
     * @param specimen what its sensor sits on
     * @param rate samples a second
     * @param average conversions averaged into one sample
     * @param fastest time in which the fastest thing of interest happens
     */
    public record Channel(
            String label,
            String symbol,
            String unit,
            List<String> needs,
            @JsonProperty("wants_step") String wantsStep,
            String device,
            String input,
            String tag,
            String position,
            String specimen,
            double rate,
            int average,
            String fastest,
            List<Link> chain,
            CalibrationPlan calibration,
            WatchPlan watch) {
        public Channel {
            average = Math.max(1, average);
            chain = List.copyOf(chain);
        }

        public LabUnit labUnit() {
            return LabUnit.parse(unit);
        }

        /** The chain this channel describes. */
        public Chain toChain() {
            return Chain.of(chain);
        }

        /** Lowest and highest value needed, in the channel's unit; empty when the sheet does not say. */
        public Optional<double[]> needed() {
            return needs == null ? Optional.empty() : Optional.of(new double[] {in(needs.get(0)), in(needs.get(1))});
        }

        /** What its calibration gives to formulas, by the names they have for it; empty where the sheet plans none. */
        public List<String> givenByCalibration(String name) {
            return calibration == null
                    ? List.of()
                    : calibration.toRelation() == Relation.CLOSURE
                            ? List.of(name + ".lower", name + ".upper", name + ".scatter")
                            : List.of(name + ".slope", name + ".intercept");
        }

        /** Where its sensor sits and on what; null keeps what is. */
        public Channel tagged(String newPosition, String newSpecimen) {
            return new Channel(
                    label,
                    symbol,
                    unit,
                    needs,
                    wantsStep,
                    device,
                    input,
                    tag,
                    newPosition == null ? position : newPosition,
                    newSpecimen == null ? specimen : newSpecimen,
                    rate,
                    average,
                    fastest,
                    chain,
                    calibration,
                    watch);
        }

        /** What is expected of its samples. */
        public Expectation expectation() {
            if (watch == null) {
                return Expectation.NONE;
            }
            boolean band = watch.band() != null;
            return new Expectation(
                    "rises".equals(watch.expects()) ? 1 : "falls".equals(watch.expects()) ? -1 : 0,
                    band ? in(watch.band().get(0)) : Double.NaN,
                    band ? in(watch.band().get(1)) : Double.NaN,
                    watch.holds() == null ? Double.NaN : difference(watch.holds()),
                    watch.limit() == null ? Double.NaN : in(watch.limit()));
        }

        /** A difference written in any unit that fits, in the channel's unit (of temperatures in kelvin). */
        private double difference(String reading) {
            Reading r = Reading.parse(reading);
            return r.value() * r.unit().scaleTo(labUnit());
        }

        /** The instrument's name for this channel. */
        public String inputOr(String name) {
            return input == null ? name : input;
        }

        /** A value written in any unit that fits, in the channel's unit. */
        private double in(String reading) {
            Reading r = Reading.parse(reading);
            return r.unit().convert(r.value(), labUnit());
        }

        /**
         * The step wanted, in the channel's unit (a difference of temperatures in kelvin); NaN when the sheet does not
         * say.
         */
        public double stepWanted() {
            if (wantsStep == null) {
                return Double.NaN;
            }
            Reading r = Reading.parse(wantsStep);
            return r.value() * r.unit().scaleTo(labUnit());
        }

        /** With another chain, rate, averaging or input; null keeps what is. */
        public Channel with(List<Link> newChain, Double newRate, Integer newAverage, String newInput) {
            return new Channel(
                    label,
                    symbol,
                    unit,
                    needs,
                    wantsStep,
                    device,
                    newInput == null ? input : newInput,
                    tag,
                    position,
                    specimen,
                    newRate == null ? rate : newRate,
                    newAverage == null ? average : newAverage,
                    fastest,
                    newChain == null ? chain : newChain,
                    calibration,
                    watch);
        }
    }

    /**
     * What the watches may expect of a channel, beyond what its chain says.
     *
     * @param expects rises or falls, during a run
     * @param band lowest and highest value it should show
     * @param holds how much it may move during a run, for a reference
     * @param limit what must not be passed
     */
    public record WatchPlan(String expects, List<String> band, String holds, String limit) {}

    /**
     * How a channel is to be calibrated.
     *
     * @param kind what it is called: known length, shunt, fixed points
     * @param relation which relation follows; a straight line when not said
     * @param reference against what
     * @param points what to set, in order
     * @param verify what to set to test the relation
     * @param after what to set to check it after use; the first point when not said
     * @param tolerance largest error allowed at a verification point, with its unit
     * @param band adjusting: how near zero and span must come, with its unit
     * @param trims adjusting: names of the zero trim and of the span trim
     * @param divisions circle closure: intervals of a circle
     * @param mode circle closure: rezeroed or cumulative
     * @param prepare what to do before
     * @param warmUp minutes the channel has to be on before
     * @param seconds how long a reading is averaged; 2 when not said
     * @param typed true when the indication is typed, because the instrument has no output
     * @param days how long it holds; 365 when not said
     */
    public record CalibrationPlan(
            String kind,
            String relation,
            String reference,
            List<PointPlan> points,
            List<PointPlan> verify,
            List<PointPlan> after,
            String tolerance,
            String band,
            List<String> trims,
            Integer divisions,
            String mode,
            String prepare,
            @JsonProperty("warm_up") double warmUp,
            double seconds,
            boolean typed,
            int days) {
        public CalibrationPlan {
            points = orEmpty(points);
            verify = orEmpty(verify);
            after = after == null ? points.stream().limit(1).toList() : List.copyOf(after);
            trims = trims == null ? List.of("ZERO", "SPAN") : List.copyOf(trims);
            seconds = seconds <= 0 ? 2 : seconds;
            days = days <= 0 ? 365 : days;
            mode = mode == null ? "rezeroed" : mode;
        }

        public Relation toRelation() {
            return Relation.named(relation);
        }
    }

    /**
     * A point of a calibration: what to set, in words, and the reference value, as a reading or as a formula over
     * inputs.
     */
    public record PointPlan(String say, String reference, String way) {
        /** A point that is only a reference value. */
        @JsonCreator
        public static PointPlan of(String reference) {
            return new PointPlan(null, reference, null);
        }

        @JsonCreator
        public static PointPlan of(
                @JsonProperty("say") String say,
                @JsonProperty("reference") String reference,
                @JsonProperty("way") String way) {
            return new PointPlan(say, reference, way);
        }

        public String words() {
            return say == null ? reference : say;
        }
    }

    /**
     * A kind of run.
     *
     * @param mode stream, shot, gate, prompted or hold; stream when not said
     * @param longest in s
     * @param minutes one run takes with setting it up
     * @param byEye what is read by eye with each run
     * @param views pictures of one run, from quantities of it that are columns
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
            SpreadPlan spread,
            ShotPlan shot,
            PromptPlan prompt,
            HoldPlan hold,
            @JsonProperty("by_eye") Map<String, Input> byEye,
            List<Picture> views) {
        public Capture {
            views = orEmpty(views);
            mode = mode == null ? "stream" : mode;
            byEye = orEmpty(byEye);
            shot = mode.equals("shot") && shot == null ? new ShotPlan(null, null, null, null, 0, 0) : shot;
            hold = mode.equals("hold") && hold == null ? new HoldPlan(0, 0, 0) : hold;
            hint = orEmpty(hint);
            repeats = Math.max(1, repeats);
            longest = longest <= 0 ? 60 : longest;
            minutes = minutes <= 0 ? longest / 60 + 0.5 : minutes;
            windows = orEmpty(windows);
            quantities = orEmpty(quantities);
        }

        /** With more quantities of each run, after those of the sheet. */
        Capture adding(Map<String, Derived> more) {
            Map<String, Derived> q = new LinkedHashMap<>(quantities);
            more.forEach(q::putIfAbsent);
            return new Capture(
                    label, mode, hint, channels, longest, repeats, minutes, levels, windows, q, spread, shot, prompt,
                    hold, byEye, views);
        }

        Capture changed(String name, Map<String, String> change) {
            Map<String, WindowPlan> w = new LinkedHashMap<>(windows);
            w.replaceAll((n, plan) ->
                    change.containsKey(name + "." + n) ? new WindowPlan(plan.on(), change.get(name + "." + n)) : plan);
            Map<String, Derived> q = new LinkedHashMap<>(quantities);
            q.replaceAll((n, d) -> change.containsKey(name + "." + n) ? d.by(change.get(name + "." + n)) : d);
            return new Capture(
                    label, mode, hint, channels, longest, repeats, minutes, levels, w, q, spread, shot, prompt, hold,
                    byEye, views);
        }

        /**
         * The quantity that stands for a run: the first one shown that rests on its samples, or else the first one
         * shown; null when none is.
         */
        public String headline() {
            String first = null;
            for (Map.Entry<String, Derived> e : quantities.entrySet()) {
                if (e.getValue().shown()) {
                    first = first == null ? e.getKey() : first;
                    if (restsOnSamples(e.getKey())) {
                        return e.getKey();
                    }
                }
            }
            return first;
        }

        /** True when a quantity rests on samples, directly or through others of its run. */
        public boolean restsOnSamples(String quantity) {
            return Formula.parse(quantities.get(quantity).formula()).names().stream()
                    .anyMatch(n -> channels.contains(n)
                            || !n.equals(quantity) && quantities.containsKey(n) && restsOnSamples(n));
        }
    }

    /**
     * What fires a shot and how much of it is kept.
     *
     * @param on the channel that is watched; the first when not said
     * @param at level, with its unit
     * @param rate or rate of change, with its unit
     * @param way up, down or either
     * @param before s kept from before the trigger
     * @param after s kept after it
     */
    public record ShotPlan(String on, String at, String rate, String way, double before, double after) {
        public ShotPlan {
            way = way == null ? "either" : way;
            before = before <= 0 ? 0.1 : before;
            after = after <= 0 ? 1 : after;
        }
    }

    /**
     * Readings at set moments.
     *
     * @param first s from the start of the run; {@code every} when not said
     * @param every s from one to the next
     * @param count how many
     * @param countdown s of counting down before each
     * @param seconds s of samples averaged into a reading
     * @param by key or itself: whether a person takes it or the program
     */
    public record PromptPlan(Double first, double every, int count, double countdown, double seconds, String by) {
        public PromptPlan {
            first = first == null ? Double.valueOf(every) : first;
            countdown = countdown <= 0 ? Math.min(5, every / 2) : countdown;
            seconds = seconds <= 0 ? Math.min(1, every / 4) : seconds;
            by = by == null ? "itself" : by;
        }
    }

    /**
     * Waiting until steady.
     *
     * @param seconds s over which steadiness is judged; 2 when not said
     * @param samples averaged into the row; 20 when not said
     * @param patience s after which it may be taken as it is; 120 when not said
     */
    public record HoldPlan(double seconds, int samples, double patience) {
        public HoldPlan {
            seconds = seconds <= 0 ? 2 : seconds;
            samples = samples <= 0 ? 20 : samples;
            patience = patience <= 0 ? 120 : patience;
        }
    }

    /**
     * One setting of the factor; {@code set} binds names for the runs at it, {@code outputs} are set by the program
     * before it.
     */
    public record Level(String label, Map<String, String> set, Map<String, Double> outputs) {
        public Level {
            outputs = orEmpty(outputs);
            set = orEmpty(set);
        }
    }

    /**
     * Levels to spread evenly: {@code set} is what is set, {@code plotted} the variable they are even in, a formula
     * over inputs and {@code set}.
     */
    public record SpreadPlan(String set, String plotted, String from, String to, int count) {}

    public record WindowPlan(String on, String propose) {
        public WindowPlan {
            propose = propose == null ? "whole" : propose;
        }
    }

    /**
     * A quantity by formula; shown in the ledger when it has a label. {@code planned} stands in for it in the predicted
     * budget.
     */
    public record Derived(String label, String symbol, String group, String unit, String formula, String planned) {
        /** The same by another formula; in whatever unit that gives where the unit no longer fits. */
        Derived by(String other) {
            return new Derived(label, symbol, group, null, other, planned);
        }

        public boolean shown() {
            return label != null;
        }
    }

    /** Columns over runs and the fits drawn through them: one pair, or several {@code lines} on one picture. */
    public record Picture(
            String title,
            String x,
            @JsonProperty("x_label") String xLabel,
            @JsonProperty("x_unit") String xUnit,
            String y,
            @JsonProperty("y_label") String yLabel,
            @JsonProperty("y_unit") String yUnit,
            String fit,
            List<PictureLine> lines) {
        public Picture {
            lines = lines == null ? List.of(new PictureLine(null, x, y, fit)) : List.copyOf(lines);
        }
    }

    /** One pair of columns of a picture, with the fit through it; {@code label} tells it from the others. */
    public record PictureLine(String label, String x, String y, String fit) {}

    /** A formula whose value is a sentence: which model, whether routes agree, which candidate. */
    public record Statement(String label, String formula) {}

    /**
     * A mistake that people make in reducing, to be tried on the real data.
     *
     * @param change what it does: results and {@code capture.quantity} get another formula, {@code capture.window}
     *     another proposal, inputs another value
     * @param says why it is wrong
     */
    public record Mistake(String id, String label, Map<String, String> change, String says) {}

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

    private Sheet with(Map<String, Capture> c, Map<String, Derived> r) {
        return new Sheet(
                sheet,
                id,
                title,
                subject,
                place,
                question,
                principle,
                cautions,
                inputs,
                planned,
                correlations,
                devices,
                channels,
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
                mistakes);
    }

    /** This sheet as it would be with a mistake made; other values of inputs are not part of it. */
    public Sheet mistaken(Mistake m) {
        Map<String, Derived> r = new LinkedHashMap<>(results);
        r.replaceAll((name, d) -> m.change().containsKey(name) ? d.by(m.change().get(name)) : d);
        Map<String, Capture> c = new LinkedHashMap<>(captures);
        c.replaceAll((name, capture) -> capture.changed(name, m.change()));
        return with(c, r);
    }

    /**
     * A result against a reference; {@code threshold} in percent, null for none; {@code remedy} what to look for when
     * they do not agree.
     */
    public record Comparison(
            String id,
            String label,
            String result,
            String reference,
            String speaks,
            Double threshold,
            boolean main,
            String remedy) {
        public School school() {
            return speaks == null ? School.STANDARD : School.valueOf(speaks.toUpperCase(Locale.ROOT));
        }
    }

    /** Something that must hold. */
    public record Check(String label, String formula, String remedy) {}

    /** The comparison that speaks for the method: the one marked main, or the first; null if there is none. */
    public Comparison mainComparison() {
        return comparisons.stream()
                .filter(Comparison::main)
                .findFirst()
                .orElse(comparisons.isEmpty() ? null : comparisons.get(0));
    }

    private static String orEmpty(String s) {
        return s == null ? "" : s;
    }

    private static <T> List<T> orEmpty(List<T> list) {
        return list == null ? List.of() : List.copyOf(list);
    }

    private static <T> Map<String, T> orEmpty(Map<String, T> map) {
        return map == null ? Map.of() : map;
    }
}
