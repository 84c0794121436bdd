package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonProperty;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * A method sheet, as read. Texts that are formulas or quantities are kept as written; the field comments of
 * {@code docs/method-sheet.md} explain each entry. Missing lists and maps are empty, never null.
 */
public record Sheet(int sheet, String id, String title, String subject, String place, String question, List<Principle> principle,
                    List<String> cautions, Map<String, Input> inputs, Map<String, Input> planned, List<Correlation> correlations, Map<String, Device> devices,
                    Map<String, Channel> channels, List<Step> prepare, Map<String, Capture> captures, Map<String, Derived> results,
                    List<Picture> pictures, List<Comparison> comparisons, List<Check> checks, List<Step> finish) {
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
    }

    /** An equation the method rests on. */
    public record Principle(String text, String formula) {
    }

    /** Something measured once, by hand or from elsewhere. {@code value} is the planned reading. */
    public record Input(String label, String symbol, String value, String by, String group) {
        /** What budgets call it: "foot spacing by steel tape TH-TP-02". */
        public String leafLabel() {
            return by == null ? label : label + " by " + by;
        }
    }

    /** A declared correlation coefficient {@code r}, -1 to 1, of two inputs. */
    public record Correlation(List<String> between, double r) {
    }

    /** An instrument with an output; {@code rig} names the simulated stand-in, if there is one. */
    public record Device(String label, String driver, String rig) {
    }

    public record Step(String id, String text) {
    }

    /**
     * A channel with its chain.
     *
     * @param needs    lowest and highest value the method needs
     * @param input    the instrument's name for it; null when it is the channel's own
     * @param tag      the letter on its lead
     * @param position where its sensor sits
     * @param specimen what its sensor sits on
     * @param rate     samples a second
     * @param average  conversions averaged into one sample
     * @param fastest  time in which the fastest thing of interest happens
     */
    public record Channel(String label, String symbol, String unit, List<String> needs, @JsonProperty("wants_step") String wantsStep, String device, String input,
                          String tag, String position, String specimen, double rate, int average, String fastest, List<Link> chain, CalibrationPlan calibration) {
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

        /** A value written in any unit that fits, in the channel's unit; a step or time as a difference. */
        private double in(String reading) {
            Reading r = Reading.parse(reading);
            return r.unit().convert(r.value(), labUnit());
        }

        /** The step wanted, in the channel's unit (a difference of temperatures in kelvin); NaN when the sheet does not say. */
        public double stepWanted() {
            if (wantsStep == null) {
                return Double.NaN;
            }
            Reading r = Reading.parse(wantsStep);
            return r.value() * r.unit().scaleTo(labUnit());
        }

        /** With another chain, rate, averaging or input; null keeps what is. */
        public Channel with(List<Link> newChain, Double newRate, Integer newAverage, String newInput) {
            return new Channel(label, symbol, unit, needs, wantsStep, device, newInput == null ? input : newInput, tag, position, specimen, newRate == null ? rate : newRate,
                    newAverage == null ? average : newAverage, fastest, newChain == null ? chain : newChain, calibration);
        }
    }

    /** How a channel is to be calibrated; {@code points} are the planned references, {@code days} how long it holds. */
    public record CalibrationPlan(String kind, String reference, List<String> points, String prepare, int days) {
    }

    /** A kind of run. {@code longest} in seconds. */
    public record Capture(String label, String mode, String hint, List<String> channels, double longest, int repeats, Map<String, Level> levels,
                          Map<String, WindowPlan> windows, Map<String, Derived> quantities) {
        public Capture {
            hint = orEmpty(hint);
            repeats = Math.max(1, repeats);
            longest = longest <= 0 ? 60 : longest;
            windows = orEmpty(windows);
            quantities = orEmpty(quantities);
        }
    }

    /** One setting of the factor; {@code set} binds names for the runs at it. */
    public record Level(String label, Map<String, String> set) {
        public Level {
            set = orEmpty(set);
        }
    }

    public record WindowPlan(String on, String propose) {
        public WindowPlan {
            propose = propose == null ? "whole" : propose;
        }
    }

    /** A quantity by formula; shown in the ledger when it has a label. {@code planned} stands in for it in the predicted budget. */
    public record Derived(String label, String symbol, String group, String unit, String formula, String planned) {
        public boolean shown() {
            return label != null;
        }
    }

    /** A picture of two columns over runs, and the fit drawn through them. */
    public record Picture(String title, String x, @JsonProperty("x_label") String xLabel, @JsonProperty("x_unit") String xUnit, String y,
                          @JsonProperty("y_label") String yLabel, @JsonProperty("y_unit") String yUnit, String fit) {
    }

    /** A result against a reference; {@code threshold} in percent, null for none. */
    public record Comparison(String id, String label, String result, String reference, String speaks, Double threshold, boolean main) {
        public School school() {
            return speaks == null ? School.STANDARD : School.valueOf(speaks.toUpperCase(Locale.ROOT));
        }
    }

    /** Something that must hold. */
    public record Check(String label, String formula, String remedy) {
    }

    /** The comparison that speaks for the method: the one marked main, or the first; null if there is none. */
    public Comparison mainComparison() {
        return comparisons.stream().filter(Comparison::main).findFirst().orElse(comparisons.isEmpty() ? null : comparisons.get(0));
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
