package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import java.util.Map;
import java.util.Objects;

/**
 * One stage of a chain: a law between two units, within limits.
 *
 * @param link as written
 * @param input unit of what goes in
 * @param output unit of what comes out
 * @param law how
 * @param lowest smallest input it takes, in {@code input}; may be minus infinity
 * @param highest largest input it takes, in {@code input}; may be infinity
 */
public record Stage(Link link, LabUnit input, LabUnit output, Law law, double lowest, double highest) {
    /** @throws IllegalArgumentException with one sentence when the link makes no sense */
    public static Stage of(Link link) {
        LabUnit input = LabUnit.parse(link.from());
        LabUnit output = LabUnit.parse(Objects.requireNonNull(link.to(), link.label()));
        Law law;
        if (link.law() == null || link.law().equals("linear")) {
            Laws.read("linear", link.of() == null ? Map.of() : link.of());
            law = Law.linear(
                    link.gain() == null ? 1 : ChainReading.of(link.gain(), "").value(),
                    link.offset() == null
                            ? 0
                            : ChainReading.of(link.offset(), "").value());
        } else {
            if (link.gain() != null || link.offset() != null) {
                throw new IllegalArgumentException(link.label() + " follows the law " + link.law()
                        + ", which takes no 'gain' and no 'offset'; write a conditioner after it.");
            }
            law = Laws.named(Laws.read(link.law(), link.of() == null ? Map.of() : link.of()));
            Laws.check(law, input, output, link.label());
        }
        double low = law.input() == null ? law.lowest() : finite(law.lowest(), law.input(), input);
        double high = law.input() == null ? law.highest() : finite(law.highest(), law.input(), input);
        double lowest = link.lowest() == null ? low : Math.max(low, link.lowest());
        double highest = link.highest() == null ? high : Math.min(high, link.highest());
        if (!(highest > lowest)) {
            throw new IllegalArgumentException("the range of " + link.label() + " ends below where it starts.");
        }
        return new Stage(link, input, output, law, lowest, highest);
    }

    private static double finite(double v, LabUnit from, LabUnit to) {
        return Double.isInfinite(v) ? v : from.convert(v, to);
    }

    public String kind() {
        return link.kind();
    }

    public String label() {
        return link.label();
    }

    public double forward(double in) {
        double y = law.forward().applyAsDouble(law.input() == null ? in : input.convert(in, law.input()));
        return law.output() == null ? y : law.output().convert(y, output);
    }

    public double backward(double out) {
        double x = law.backward().applyAsDouble(law.output() == null ? out : output.convert(out, law.output()));
        return law.input() == null ? x : law.input().convert(x, input);
    }

    /** Output per input at an input, by a central difference. */
    public double slope(double at) {
        double h = Math.max(1e-6, Math.abs(at) * 1e-6);
        double a = Math.max(lowest, at - h);
        double b = Math.min(highest, at + h);
        return (forward(b) - forward(a)) / (b - a);
    }

    /** The transfer as written on the ribbon at a value of the input: "40.8 µV/K", "× 200.0(4)". */
    public String transfer(double at) {
        String in = input.difference().pretty();
        if (law.linear()
                && input.fits(output)
                && !input.isAffine()
                && (link.offset() == null || ChainReading.of(link.offset(), "").value() == 0)) {
            return "× " + (link.gain() == null ? "1" : written(link.gain(), output.scaleTo(input)));
        }
        double slope = slope(at);
        LabUnit unit = output;
        double factor = 1;
        if (output.symbol().equals("mV") && Math.abs(slope) < 0.5) {
            unit = LabUnit.parse("µV");
            factor = 1000;
        } else if (output.symbol().equals("V") && Math.abs(slope) < 0.5) {
            unit = LabUnit.parse("mV");
            factor = 1000;
        }
        double offset = law.linear() && link.offset() != null
                ? ChainReading.of(link.offset(), "").value()
                : 0;
        String gain = law.linear() && factor == 1 && link.gain() != null
                ? written(link.gain(), 1)
                : Notation.plain(slope * factor, 4);
        return gain + " " + unit.pretty() + (in.isEmpty() ? "" : "/" + in)
                + (offset == 0
                        ? ""
                        : (offset > 0 ? " + " : " − ") + Notation.plain(Math.abs(offset), 4) + " " + output.pretty());
    }

    private static String written(String text, double scale) {
        ChainReading r = ChainReading.of(text, "");
        return r.u() == 0 ? Notation.plain(r.value() * scale, 6) : Notation.bracketed(r.value() * scale, r.u() * scale);
    }
}
