package eagerneedle.core.marking;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * What goes wrong in any reckoning, written for one sheet and the readings of one session as mistakes of that sheet.
 * What only multiplies the result is in {@link Factors}.
 */
final class Slips {
    private static final Pattern DIAMETER = Pattern.compile("\\b(diameter|bore)\\b");
    private static final Pattern RADIUS = Pattern.compile("\\bradius\\b");
    private static final double FREE_FALL = 9.8;
    private static final LabUnit ACCELERATION = LabUnit.parse("m/s^2");
    private static final LabUnit MASS = LabUnit.parse("kg");

    private final Sheet sheet;
    private final Function<String, String> reading;
    private final Function<String, Optional<LabUnit>> unitOf;
    private final List<Change> out = new ArrayList<>();

    private Slips(Sheet sheet, Function<String, String> reading, Function<String, Optional<LabUnit>> unitOf) {
        this.sheet = sheet;
        this.reading = reading;
        this.unitOf = unitOf;
    }

    /**
     * The slips that can be made with a sheet.
     *
     * @param reading what an input was read as
     * @param unitOf the unit of what a formula over columns gives, empty where it gives nothing
     */
    static List<Change> of(Sheet sheet, Function<String, String> reading, Function<String, Optional<LabUnit>> unitOf) {
        Slips s = new Slips(sheet, reading, unitOf);
        s.inFormulas();
        s.inInputs();
        return s.out;
    }

    private void inFormulas() {
        each(
                "degrees-in-radians",
                "An angle in degrees where radians are meant",
                "A function of an angle takes it in radians, or the calculator is set to degrees.",
                f -> Rewriting.changed(f, "sin|cos|tan", a -> List.of("(" + a.get(0) + ") * 180 / " + Math.PI)));
        each(
                "radians-in-degrees",
                "An angle in radians where the calculator takes degrees",
                "Set the calculator to radians, or convert the angle.",
                f -> Rewriting.changed(f, "sin|cos|tan", a -> List.of("(" + a.get(0) + ") * " + Math.PI + " / 180")));
        each(
                "celsius",
                "Degrees Celsius taken for kelvin",
                "Where a temperature stands as a factor it is counted from absolute zero.",
                f -> f.contains("273.15") ? Optional.of(f.replace("273.15", "0.0")) : Optional.empty());
        each(
                "other-logarithm",
                "Logarithm to base ten for the natural one",
                "ln and log10 differ by a factor of ln 10.",
                f -> Rewriting.renamed(f, "ln", "log10"));
        each(
                "natural-logarithm",
                "Natural logarithm for the one to base ten",
                "ln and log10 differ by a factor of ln 10.",
                f -> Rewriting.renamed(f, "log10", "ln"));
        each(
                "axes-exchanged",
                "Axes exchanged",
                "What is plotted upwards stands on top of the slope.",
                f -> Rewriting.changed(f, "line|proportional", this::exchanged));
    }

    /**
     * What is plotted to the right taken upwards: the numbers change places, and the units stay with their axes, since
     * whoever does so reads the slope as if nothing had happened.
     */
    private List<String> exchanged(List<String> a) {
        if (a.size() < 2 || a.get(0).contains(": ") || a.get(1).contains(": ")) {
            return a;
        }
        Optional<LabUnit> up = unitOf.apply("max(" + a.get(0) + ")");
        Optional<LabUnit> right = unitOf.apply("max(" + a.get(1) + ")");
        if (up.isEmpty()
                || right.isEmpty()
                || up.get().isAffine()
                || right.get().isAffine()) {
            return a;
        }
        String asUp = " * (1 " + up.get().symbol() + ") / (1 " + right.get().symbol() + ")";
        String asRight = " * (1 " + right.get().symbol() + ") / (1 " + up.get().symbol() + ")";
        List<String> b = new ArrayList<>(a);
        b.set(0, "(" + a.get(1) + ")" + asUp);
        b.set(1, "(" + a.get(0) + ")" + asRight);
        return b;
    }

    private interface Otherwise extends Function<String, Optional<String>> {}

    /** In every formula at once, and in each alone where there are several. */
    private void each(String id, String label, String says, Otherwise otherwise) {
        Map<String, String> all = new LinkedHashMap<>();
        sheet.captures()
                .forEach((c, capture) -> capture.quantities()
                        .forEach((n, d) -> changed(d, otherwise).ifPresent(f -> all.put(c + "." + n, f))));
        sheet.results().forEach((n, d) -> changed(d, otherwise).ifPresent(f -> all.put(n, f)));
        if (all.isEmpty()) {
            return;
        }
        out.add(Change.slip(id, label, says, all));
        if (all.size() > 1 && all.size() <= 6) {
            all.forEach((n, f) -> out.add(Change.slip(id + "-" + n, label + ", in " + called(n), says, Map.of(n, f))));
        }
    }

    private String called(String name) {
        Derived d = sheet.results().get(name);
        for (Map.Entry<String, Capture> c : sheet.captures().entrySet()) {
            if (d == null && name.startsWith(c.getKey() + ".")) {
                d = c.getValue().quantities().get(name.substring(c.getKey().length() + 1));
            }
        }
        return d == null || d.label() == null ? name : d.label();
    }

    private static Optional<String> changed(Derived d, Otherwise otherwise) {
        return d.formula() == null
                ? Optional.empty()
                : otherwise.apply(d.formula()).filter(f -> !f.equals(d.formula()));
    }

    private void inInputs() {
        Map<String, String> grams = new LinkedHashMap<>();
        Map<String, String> kilograms = new LinkedHashMap<>();
        sheet.inputs().forEach((name, input) -> {
            Reading r = Reading.parse(reading.apply(name));
            String label = input.label() == null ? name : input.label();
            String low = label.toLowerCase(Locale.ROOT);
            LabUnit unit = r.unit();
            if (DIAMETER.matcher(low).find()) {
                scaled(
                        "radius-" + name,
                        "Radius for diameter: " + label,
                        "The formula takes the diameter.",
                        name,
                        r,
                        0.5);
                scaled("diameter-" + name, "Diameter for radius: " + label, "The radius is half of it.", name, r, 2);
            } else if (RADIUS.matcher(low).find()) {
                scaled(
                        "diameter-" + name,
                        "Diameter for radius: " + label,
                        "The formula takes the radius.",
                        name,
                        r,
                        2);
            }
            if (unit.fits(ACCELERATION) && Math.abs(r.value() * unit.scaleTo(ACCELERATION) - FREE_FALL) < 0.1) {
                out.add(Change.slip(
                        "mass-for-weight",
                        "Mass for weight",
                        "A mass is multiplied by g before it is a force.",
                        Map.of(name, "1 m/s^2")));
            }
            if (unit.isAffine()) {
                out.add(Change.slip(
                        "celsius-" + name,
                        "Degrees Celsius taken for kelvin: " + label,
                        "Where a temperature stands as a factor it is counted from absolute zero.",
                        Map.of(name, text(r.value(), r, "K"))));
            } else if (unit.equals(LabUnit.KELVIN) && r.value() > 150) {
                out.add(Change.slip(
                        "celsius-" + name,
                        "Degrees Celsius taken for kelvin: " + label,
                        "Where a temperature stands as a factor it is counted from absolute zero.",
                        Map.of(name, text(r.value() - 273.15, r, "K"))));
            }
            if (unit.equals(LabUnit.parse("min")) || unit.equals(LabUnit.parse("h"))) {
                double factor = unit.scaleTo(LabUnit.SECOND);
                scaled(
                        "minutes-" + name,
                        (factor == 60 ? "Minutes" : "Hours") + " taken for seconds: " + label,
                        "Times go in as seconds.",
                        name,
                        r,
                        1 / factor);
            }
            if (unit.fits(MASS) && r.value() != 0) {
                grams.put(name, text(1000 * r.value(), r, unit.symbol()));
                kilograms.put(name, text(r.value() / 1000, r, unit.symbol()));
            }
        });
        if (!grams.isEmpty()) {
            out.add(Change.slip("grams", "Grams for kilograms", "Masses go in as kilograms.", grams));
            out.add(Change.slip("kilograms", "Kilograms for grams", "A gram is a thousandth.", kilograms));
        }
    }

    private void scaled(String id, String label, String says, String input, Reading r, double by) {
        out.add(Change.slip(
                id, label, says, Map.of(input, text(by * r.value(), r, r.unit().symbol()))));
    }

    /** A reading with the relative uncertainty that another had, all digits kept. */
    private static String text(double value, Reading r, String unit) {
        double u = r.value() == 0 ? r.u() : Math.abs(value / r.value()) * r.u();
        String number = exact(value);
        if (u == 0) {
            return number + " " + unit;
        }
        boolean limit = r.distribution() == Distribution.RECTANGULAR;
        return number + (limit ? " limit " : " ± ") + exact(limit ? u * Math.sqrt(3) : u) + " " + unit;
    }

    private static String exact(double v) {
        return new java.math.BigDecimal(v).round(new java.math.MathContext(15)).toPlainString();
    }
}
