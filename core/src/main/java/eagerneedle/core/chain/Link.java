package eagerneedle.core.chain;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/**
 * One link of a chain as a sheet or the stockroom writes it.
 *
 * @param kind sensor, conditioner or converter
 * @param label which instrument
 * @param instrument its serial in the stockroom; null if it has none
 * @param from unit of what goes in
 * @param to unit of what comes out; null for a converter, which gives counts
 * @param law name of its law; null for a straight line
 * @param of constants of the law as written, with units and uncertainties where they have some
 * @param gain of a straight line, in {@code to} per {@code from}; for a converter a relative factor. With uncertainty:
 *     200.0(4)
 * @param offset of a straight line, in {@code to}; for a converter in {@code from}. With uncertainty
 * @param lowest smallest input it takes, in {@code from}
 * @param highest largest input it takes
 * @param nonlinearity largest departure from its law, as a share of the range of its input
 * @param noise standard deviation of its own noise, in {@code to}; for a converter in {@code from}
 * @param step converter: input that makes one count, in {@code from}, with counts from 0
 * @param range converter: lowest and highest input, in {@code from}
 * @param bits converter: 1 to 32
 * @param coding converter: straight (counts from 0) or signed (two's complement)
 * @param counts converter: whether full scale is 2^n or 2^n - 1 counts
 * @param warmUp how long it takes to settle after being switched on, in min
 * @param gains gains that can be set
 * @param ranges ranges that can be set, each lowest and highest
 * @param terminals where its leads go, for the wiring card
 * @param colours colours of its leads, for the wiring card
 * @param shared the name under which the sheet declares it once, for all the channels that run through it: one physical
 *     thing, whose constants they share and whose noise they do not; null for a link of its own
 * @param inputs inputs of the sheet that give constants, by constant ({@code gain}, {@code offset} or one of the
 *     law's), whose planned values then stand there; null where all are written
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
@JsonIgnoreProperties(ignoreUnknown = true)
public record Link(
        String kind,
        String label,
        String instrument,
        String from,
        String to,
        String law,
        Map<String, String> of,
        String gain,
        String offset,
        Double lowest,
        Double highest,
        Double nonlinearity,
        Double noise,
        Double step,
        List<Double> range,
        Integer bits,
        String coding,
        String counts,
        @JsonProperty("warm_up") Double warmUp,
        List<Double> gains,
        List<List<Double>> ranges,
        String terminals,
        String colours,
        String shared,
        Map<String, String> inputs) {
    /** Serials of the instruments in a chain, in its order; of those that have one. */
    public static List<String> serials(List<Link> chain) {
        return chain.stream()
                .map(Link::instrument)
                .filter(java.util.Objects::nonNull)
                .toList();
    }

    /** A link of its own, used by one channel alone. */
    public Link(
            String kind,
            String label,
            String instrument,
            String from,
            String to,
            String law,
            Map<String, String> of,
            String gain,
            String offset,
            Double lowest,
            Double highest,
            Double nonlinearity,
            Double noise,
            Double step,
            List<Double> range,
            Integer bits,
            String coding,
            String counts,
            Double warmUp,
            List<Double> gains,
            List<List<Double>> ranges,
            String terminals,
            String colours) {
        this(
                kind,
                label,
                instrument,
                from,
                to,
                law,
                of,
                gain,
                offset,
                lowest,
                highest,
                nonlinearity,
                noise,
                step,
                range,
                bits,
                coding,
                counts,
                warmUp,
                gains,
                ranges,
                terminals,
                colours,
                null,
                null);
    }

    public static Link sensor(String label, String from, String to, String law, Map<String, String> of) {
        Draft d = new Draft("sensor", label, from);
        d.to = to;
        d.law = law;
        d.of = of;
        return d.done();
    }

    public static Link linear(String kind, String label, String from, String to, String gain, String offset) {
        Draft d = new Draft(kind, label, from);
        d.to = to;
        d.gain = gain;
        d.offset = offset;
        return d.done();
    }

    public static Link converter(String label, String from, double low, double high, int bits, String coding) {
        Draft d = new Draft("converter", label, from);
        d.range = List.of(low, high);
        d.bits = bits;
        d.coding = coding;
        return d.done();
    }

    /** A converter that counts steps from nothing. */
    public static Link counter(String label, String from, double step, int bits) {
        Draft d = new Draft("converter", label, from);
        d.step = step;
        d.bits = bits;
        return d.done();
    }

    /** With inputs limited to a range, in {@code from}. */
    public Link within(double low, double high) {
        return with(d -> {
            d.lowest = low;
            d.highest = high;
        });
    }

    /** With another gain, which no input gives any longer. */
    public Link withGain(String text) {
        return with(d -> {
            d.gain = text;
            d.inputs = without(inputs, "gain");
        });
    }

    private static Map<String, String> without(Map<String, String> all, String name) {
        if (all == null || !all.containsKey(name)) {
            return all;
        }
        Map<String, String> rest = new LinkedHashMap<>(all);
        rest.remove(name);
        return rest.isEmpty() ? null : rest;
    }

    /** With a constant that is exactly this, in {@link #unitOf}. */
    Link exactly(String constant, double value) {
        String text = Double.toString(value);
        return switch (constant) {
            case "gain" -> withGain(text);
            case "offset" -> withOffset(text);
            default -> withConstant(constant, text);
        };
    }

    /** Unit of a constant of this link. */
    ConstantUnit unitOf(String constant) {
        return ConstantUnit.of(from, isConverter() ? null : to, law, constant);
    }

    public Link withRange(double low, double high) {
        return with(d -> {
            d.step = null;
            d.range = List.of(low, high);
        });
    }

    public Link withNoise(double rms) {
        return with(d -> d.noise = rms);
    }

    public Link withNonlinearity(double share) {
        return with(d -> d.nonlinearity = share);
    }

    /** As this instrument of the stockroom. */
    public Link named(String serial, String newLabel) {
        return with(d -> {
            d.instrument = serial;
            d.label = newLabel;
        });
    }

    /** One constant of its law replaced. */
    Link withConstant(String name, String text) {
        Map<String, String> changed = new LinkedHashMap<>(of);
        changed.put(name, text);
        return with(d -> d.of = changed);
    }

    Link withOffset(String text) {
        return with(d -> d.offset = text);
    }

    private Link with(Consumer<Draft> change) {
        Draft d = new Draft(this);
        change.accept(d);
        return d.done();
    }

    /** What tells the errors of this link from those of others: its name where it is shared, or else its place. */
    public String identity(String owner, int place) {
        return shared == null ? "chain:" + owner + "/" + place : "link:" + shared;
    }

    /** The fields of a link while some of them are exchanged. */
    private static final class Draft {
        private final String kind;
        private String label;
        private String instrument;
        private final String from;
        private String to;
        private String law;
        private Map<String, String> of;
        private String gain;
        private String offset;
        private Double lowest;
        private Double highest;
        private Double nonlinearity;
        private Double noise;
        private Double step;
        private List<Double> range;
        private Integer bits;
        private String coding;
        private final String counts;
        private final Double warmUp;
        private final List<Double> gains;
        private final List<List<Double>> ranges;
        private final String terminals;
        private final String colours;
        private final String shared;
        private Map<String, String> inputs;

        Draft(String kind, String label, String from) {
            this.kind = kind;
            this.label = label;
            this.from = from;
            this.counts = null;
            this.warmUp = null;
            this.gains = null;
            this.ranges = null;
            this.terminals = null;
            this.colours = null;
            this.shared = null;
        }

        Draft(Link l) {
            kind = l.kind;
            label = l.label;
            instrument = l.instrument;
            from = l.from;
            to = l.to;
            law = l.law;
            of = l.of;
            gain = l.gain;
            offset = l.offset;
            lowest = l.lowest;
            highest = l.highest;
            nonlinearity = l.nonlinearity;
            noise = l.noise;
            step = l.step;
            range = l.range;
            bits = l.bits;
            coding = l.coding;
            counts = l.counts;
            warmUp = l.warmUp;
            gains = l.gains;
            ranges = l.ranges;
            terminals = l.terminals;
            colours = l.colours;
            shared = l.shared;
            inputs = l.inputs;
        }

        Link done() {
            return new Link(
                    kind,
                    label,
                    instrument,
                    from,
                    to,
                    law,
                    of,
                    gain,
                    offset,
                    lowest,
                    highest,
                    nonlinearity,
                    noise,
                    step,
                    range,
                    bits,
                    coding,
                    counts,
                    warmUp,
                    gains,
                    ranges,
                    terminals,
                    colours,
                    shared,
                    inputs);
        }
    }

    boolean isConverter() {
        return "converter".equals(kind);
    }

    /** The numbers that have a standard uncertainty, by what to call them. */
    List<String> uncertain() {
        List<String> names = new ArrayList<>();
        if (gain != null && ChainReading.of(gain, "").u() > 0) {
            names.add("gain");
        }
        if (offset != null && ChainReading.of(offset, "").u() > 0) {
            names.add("offset");
        }
        if (of != null) {
            of.forEach((name, text) -> {
                if (ChainReading.isNumber(text)
                        && ChainReading.of(text, Laws.unitOf(law, name)).u() > 0) {
                    names.add(name);
                }
            });
        }
        return names;
    }

    /** With one uncertain number moved by {@code k} of its standard uncertainties. */
    Link moved(String name, double k) {
        return switch (name) {
            case "gain" -> withGain(ChainReading.of(gain, "").moved(k));
            case "offset" -> withOffset(ChainReading.of(offset, "").moved(k));
            default ->
                withConstant(
                        name,
                        ChainReading.of(of.get(name), Laws.unitOf(law, name)).moved(k));
        };
    }
}
