package eagerneedle.core.chain;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

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
        String colours) {
    public static Link sensor(String label, String from, String to, String law, Map<String, String> of) {
        return new Link(
                "sensor", label, null, from, to, law, of, null, null, null, null, null, null, null, null, null, null,
                null, null, null, null, null, null);
    }

    public static Link linear(String kind, String label, String from, String to, String gain, String offset) {
        return new Link(
                kind, label, null, from, to, null, null, gain, offset, null, null, null, null, null, null, null, null,
                null, null, null, null, null, null);
    }

    public static Link converter(String label, String from, double low, double high, int bits, String coding) {
        return new Link(
                "converter",
                label,
                null,
                from,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                List.of(low, high),
                bits,
                coding,
                null,
                null,
                null,
                null,
                null,
                null);
    }

    /** A converter that counts steps from nothing. */
    public static Link counter(String label, String from, double step, int bits) {
        return new Link(
                "converter",
                label,
                null,
                from,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                step,
                null,
                bits,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
    }

    /** With inputs limited to a range, in {@code from}. */
    public Link within(double low, double high) {
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
                low,
                high,
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
                colours);
    }

    public Link withGain(String newGain) {
        return new Link(
                kind,
                label,
                instrument,
                from,
                to,
                law,
                of,
                newGain,
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
                colours);
    }

    public Link withRange(double low, double high) {
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
                null,
                List.of(low, high),
                bits,
                coding,
                counts,
                warmUp,
                gains,
                ranges,
                terminals,
                colours);
    }

    public Link withNoise(double rms) {
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
                rms,
                step,
                range,
                bits,
                coding,
                counts,
                warmUp,
                gains,
                ranges,
                terminals,
                colours);
    }

    public Link withNonlinearity(double share) {
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
                share,
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
                colours);
    }

    /** As this instrument of the stockroom. */
    public Link named(String serial, String newLabel) {
        return new Link(
                kind,
                newLabel,
                serial,
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
                colours);
    }

    /** One constant of its law replaced. */
    Link withConstant(String name, String text) {
        Map<String, String> changed = new LinkedHashMap<>(of);
        changed.put(name, text);
        return new Link(
                kind,
                label,
                instrument,
                from,
                to,
                law,
                changed,
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
                colours);
    }

    Link withOffset(String text) {
        return new Link(
                kind,
                label,
                instrument,
                from,
                to,
                law,
                of,
                gain,
                text,
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
                colours);
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
