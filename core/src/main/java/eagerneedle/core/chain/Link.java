package eagerneedle.core.chain;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

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
        @Nullable String instrument,
        String from,
        @Nullable String to,
        @Nullable String law,
        @Nullable Map<String, String> of,
        @Nullable String gain,
        @Nullable String offset,
        @Nullable Double lowest,
        @Nullable Double highest,
        @Nullable Double nonlinearity,
        @Nullable Double noise,
        @Nullable Double step,
        @Nullable List<Double> range,
        @Nullable Integer bits,
        @Nullable String coding,
        @Nullable String counts,
        @JsonProperty("warm_up") @Nullable Double warmUp,
        @Nullable List<Double> gains,
        @Nullable List<List<Double>> ranges,
        @Nullable String terminals,
        @Nullable String colours,
        @Nullable String shared,
        @Nullable Map<String, String> inputs) {
    /** Serials of the instruments in a chain, in its order; of those that have one. */
    public static List<String> serials(List<Link> chain) {
        return chain.stream()
                .map(Link::instrument)
                .filter(java.util.Objects::nonNull)
                .toList();
    }

    public static Link sensor(String label, String from, String to, String law, Map<String, String> of) {
        Draft d = new Draft("sensor", label, from);
        d.to = to;
        d.law = law;
        d.of = of;
        return d.done();
    }

    public static Link linear(String kind, String label, String from, String to, String gain, @Nullable String offset) {
        Draft d = new Draft(kind, label, from);
        d.to = to;
        d.gain = gain;
        d.offset = offset;
        return d.done();
    }

    public static Link converter(
            String label, String from, double low, double high, @Nullable int bits, @Nullable String coding) {
        Draft d = new Draft("converter", label, from);
        d.range = List.of(low, high);
        d.bits = bits;
        d.coding = coding;
        return d.done();
    }

    /** A converter that counts steps from nothing. */
    public static Link counter(String label, String from, @Nullable double step, @Nullable int bits) {
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

    private static @Nullable Map<String, String> without(@Nullable Map<String, String> all, String name) {
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
        Map<String, String> changed = new LinkedHashMap<>(of == null ? Map.of() : of);
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
        private @Nullable String instrument;
        private final String from;
        private @Nullable String to;
        private @Nullable String law;
        private @Nullable Map<String, String> of;
        private @Nullable String gain;
        private @Nullable String offset;
        private @Nullable Double lowest;
        private @Nullable Double highest;
        private @Nullable Double nonlinearity;
        private @Nullable Double noise;
        private @Nullable Double step;
        private @Nullable List<Double> range;
        private @Nullable Integer bits;
        private @Nullable String coding;
        private @Nullable String counts;
        private @Nullable Double warmUp;
        private @Nullable List<Double> gains;
        private @Nullable List<List<Double>> ranges;
        private @Nullable String terminals;
        private @Nullable String colours;
        private @Nullable String shared;
        private @Nullable Map<String, String> inputs;

        Draft(String kind, String label, String from) {
            this.kind = kind;
            this.label = label;
            this.from = from;
        }

        Draft(Link l) {
            this(l.kind, l.label, l.from);
            instrument = l.instrument;
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

    /** A number that the link has: its gain, its offset, or a constant of its law in the law's unit. */
    ChainReading constant(String name) {
        return switch (name) {
            case "gain" -> ChainReading.of(Objects.requireNonNull(gain), "");
            case "offset" -> ChainReading.of(Objects.requireNonNull(offset), "");
            default ->
                ChainReading.of(Objects.requireNonNull(of == null ? null : of.get(name), name), Laws.unitOf(law, name));
        };
    }

    /** With one uncertain number moved by {@code k} of its standard uncertainties. */
    Link moved(String name, double k) {
        return switch (name) {
            case "gain" -> withGain(constant("gain").moved(k));
            case "offset" -> withOffset(constant("offset").moved(k));
            default -> withConstant(name, constant(name).moved(k));
        };
    }
}
