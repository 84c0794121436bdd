package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonProperty;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.watch.Expectation;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

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
        @Nullable String symbol,
        String unit,
        @Nullable List<String> needs,
        @JsonProperty("wants_step") @Nullable String wantsStep,
        @Nullable String device,
        @Nullable String input,
        @Nullable String tag,
        @Nullable String position,
        @Nullable String specimen,
        double rate,
        int average,
        @Nullable String fastest,
        List<Link> chain,
        @Nullable CalibrationPlan calibration,
        @Nullable WatchPlan watch) {
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

    /** How it is calibrated: of a channel whose calibration the sheet plans. */
    public CalibrationPlan calibrationPlan() {
        return Objects.requireNonNull(calibration, label);
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
    public Channel tagged(@Nullable String newPosition, @Nullable String newSpecimen) {
        return with(
                input,
                newPosition == null ? position : newPosition,
                newSpecimen == null ? specimen : newSpecimen,
                rate,
                average,
                chain,
                calibration);
    }

    /** What is expected of its samples. */
    public Expectation expectation() {
        if (watch == null) {
            return Expectation.NONE;
        }
        List<String> band = watch.band();
        return new Expectation(
                "rises".equals(watch.expects()) ? 1 : "falls".equals(watch.expects()) ? -1 : 0,
                band != null ? in(band.get(0)) : Double.NaN,
                band != null ? in(band.get(1)) : Double.NaN,
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
     * The step wanted, in the channel's unit (a difference of temperatures in kelvin); NaN when the sheet does not say.
     */
    public double stepWanted() {
        if (wantsStep == null) {
            return Double.NaN;
        }
        Reading r = Reading.parse(wantsStep);
        return r.value() * r.unit().scaleTo(labUnit());
    }

    /** Through other links. */
    public Channel with(List<Link> newChain) {
        return with(newChain, null, null, null);
    }

    /** With another chain, rate, averaging or input; null keeps what is. */
    public Channel with(
            @Nullable List<Link> newChain,
            @Nullable Double newRate,
            @Nullable Integer newAverage,
            @Nullable String newInput) {
        return with(
                newInput == null ? input : newInput,
                position,
                specimen,
                newRate == null ? rate : newRate,
                newAverage == null ? average : newAverage,
                newChain == null ? chain : newChain,
                calibration);
    }

    /** With the points of its calibration gone through so many times, one round after the other. */
    public Channel calibratedIn(int rounds) {
        return calibration == null
                ? this
                : with(input, position, specimen, rate, average, chain, calibration.in(rounds));
    }

    private Channel with(
            @Nullable String newInput,
            @Nullable String newPosition,
            @Nullable String newSpecimen,
            double newRate,
            int newAverage,
            List<Link> newChain,
            @Nullable CalibrationPlan newCalibration) {
        return new Channel(
                label,
                symbol,
                unit,
                needs,
                wantsStep,
                device,
                newInput,
                tag,
                newPosition,
                newSpecimen,
                newRate,
                newAverage,
                fastest,
                newChain,
                newCalibration,
                watch);
    }

    /**
     * What the watches may expect of a channel, beyond what its chain says.
     *
     * @param expects rises or falls, during a run
     * @param band lowest and highest value it should show
     * @param holds how much it may move during a run, for a reference
     * @param limit what must not be passed
     */
    public record WatchPlan(
            @Nullable String expects,
            @Nullable List<String> band,
            @Nullable String holds,
            @Nullable String limit) {}

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
     * @param together true when its sensor stands in the references at once with all others of which this is said, as
     *     probes in one bath
     * @param days how long it holds; 365 when not said
     */
    public record CalibrationPlan(
            String kind,
            @Nullable String relation,
            @Nullable String reference,
            List<PointPlan> points,
            List<PointPlan> verify,
            List<PointPlan> after,
            @Nullable String tolerance,
            @Nullable String band,
            List<String> trims,
            @Nullable Integer divisions,
            String mode,
            @Nullable String prepare,
            @JsonProperty("warm_up") double warmUp,
            double seconds,
            boolean typed,
            boolean together,
            int days) {
        public CalibrationPlan {
            points = Sheet.orEmpty(points);
            verify = Sheet.orEmpty(verify);
            after = after == null ? points.stream().limit(1).toList() : List.copyOf(after);
            trims = trims == null ? List.of("ZERO", "SPAN") : List.copyOf(trims);
            seconds = seconds <= 0 ? 2 : seconds;
            days = days <= 0 ? 365 : days;
            mode = mode == null ? "rezeroed" : mode;
        }

        /** Intervals of a circle: of the closure of circles. */
        public int intervals() {
            return Objects.requireNonNull(divisions, kind);
        }

        /** Its points of one part: points, verify or after. */
        public List<PointPlan> part(String part) {
            return part.equals("verify") ? verify : part.equals("after") ? after : points;
        }

        public Relation toRelation() {
            return Relation.named(relation);
        }

        /** True when its points may be gone through more than once: all but what is adjusted, and circles. */
        public boolean hasRounds() {
            return !points.isEmpty() && toRelation() != Relation.ADJUSTED && toRelation() != Relation.CLOSURE;
        }

        CalibrationPlan in(int rounds) {
            return new CalibrationPlan(
                    kind,
                    relation,
                    reference,
                    hasRounds()
                            ? Collections.nCopies(Math.max(1, rounds), points).stream()
                                    .flatMap(List::stream)
                                    .toList()
                            : points,
                    verify,
                    after,
                    tolerance,
                    band,
                    trims,
                    divisions,
                    mode,
                    prepare,
                    warmUp,
                    seconds,
                    typed,
                    together,
                    days);
        }
    }

    /**
     * A point of a calibration: what to set, in words, and the reference value, as a reading or as a formula over
     * inputs.
     */
    public record PointPlan(
            @Nullable String say,
            String reference,
            @Nullable String way) {
        /** A point that is only a reference value. */
        @JsonCreator
        public static PointPlan of(String reference) {
            return new PointPlan(null, reference, null);
        }

        @JsonCreator
        public static PointPlan of(
                @JsonProperty("say") @Nullable String say,
                @JsonProperty("reference") String reference,
                @JsonProperty("way") @Nullable String way) {
            return new PointPlan(say, reference, way);
        }

        public String words() {
            return say == null ? reference : say;
        }
    }
}
