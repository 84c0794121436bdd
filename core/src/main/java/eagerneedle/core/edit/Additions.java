package eagerneedle.core.edit;

import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What people add to a sheet while they work with it: windows, fits, quantities, inputs, comparisons, calibrations.
 * Each is a change of the text; what does not make sense is refused with one sentence.
 */
public final class Additions {
    private static final Pattern NAME = Pattern.compile("[A-Za-z][A-Za-z0-9_]*");

    private Additions() {}

    /**
     * The sheet with something more.
     *
     * @param name what was added, by the name formulas call it
     */
    public record Added(String text, String name) {}

    /** A window on a channel of a capture, over the whole run until it is moved. */
    public static Added window(String text, String capture, String channel) {
        SheetText sheet = SheetText.of(text);
        String at = "/captures/" + capture + "/windows";
        String name = free("span_" + channel, sheet.names(at));
        Map<String, Object> w = new LinkedHashMap<>();
        w.put("on", channel);
        w.put("propose", "whole");
        return new Added(sheet.with(at + "/" + name, w).text(), name);
    }

    /** What a trace can be fitted with: polynomials by degree, and the models that have names. */
    public enum Curve {
        LINE("straight line", 1, null),
        PARABOLA("parabola", 2, null),
        CUBIC("cubic", 3, null),
        DECAY("", 0, NamedModel.DECAY),
        SATURATION("", 0, NamedModel.SATURATION),
        HALF_SATURATION("", 0, NamedModel.HALF_SATURATION),
        POWER_LAW("", 0, NamedModel.POWER_LAW),
        LOGARITHM("", 0, NamedModel.LOGARITHM),
        LOGISTIC("", 0, NamedModel.LOGISTIC),
        DAMPED_COSINE("", 0, NamedModel.DAMPED_COSINE),
        BROKEN_LINE("", 0, NamedModel.BROKEN_LINE),
        TWO_EXPONENTIALS("", 0, NamedModel.TWO_EXPONENTIALS);

        private final String label;
        private final int degree;
        private final @Nullable NamedModel model;

        Curve(String label, int degree, @Nullable NamedModel model) {
            this.label = label;
            this.degree = degree;
            this.model = model;
        }

        public String label() {
            return model == null ? label : model.words();
        }

        String formula(String channel, @Nullable String window) {
            String in = window == null ? "" : ", window: \"" + window + "\"";
            return model == null
                    ? "polynomial(" + channel + ", degree: " + degree + in + ")"
                    : "fit(" + channel + ", model: \"" + model.id() + "\"" + in + ")";
        }

        /** Its parameters: what each is called, and the formula that takes it out of a fit. */
        Map<String, String> parameters(String fit) {
            Map<String, String> out = new LinkedHashMap<>();
            if (degree == 1) {
                out.put("slope", "slope(" + fit + ")");
                out.put("intercept", "intercept(" + fit + ")");
            } else if (model == null) {
                for (int k = 0; k <= degree; k++) {
                    out.put("coefficient_" + k, "coefficient(" + fit + ", " + k + ")");
                }
            } else {
                model.parameters().forEach(p -> out.put(p, "parameter(" + fit + ", \"" + p + "\")"));
            }
            return out;
        }
    }

    /** A fit of a channel over its window, where it has one, and its parameters as quantities of the run. */
    public static Added fit(String text, String capture, String channel, Curve curve) {
        SheetText sheet = SheetText.of(text);
        String windows = "/captures/" + capture + "/windows";
        String window = sheet.names(windows).stream()
                .filter(w ->
                        channel.equals(sheet.value(windows + "/" + w + "/on").orElse(null)))
                .findFirst()
                .orElse(null);
        String at = "/captures/" + capture + "/quantities";
        String label = sheet.value("/channels/" + channel + "/label").orElse(channel);
        String fit = free("fit_" + channel, sheet.names(at));
        SheetText with = sheet.with(at + "/" + fit, Map.of("formula", curve.formula(channel, window)));
        List<String> taken = new ArrayList<>(with.names(at));
        for (Map.Entry<String, String> p : curve.parameters(fit).entrySet()) {
            String name = free(channel + "_" + p.getKey(), taken);
            taken.add(name);
            Map<String, Object> q = new LinkedHashMap<>();
            q.put("label", p.getKey().replace('_', ' ') + " of " + label);
            q.put("formula", p.getValue());
            with = with.with(at + "/" + name, q);
        }
        return new Added(with.text(), fit);
    }

    /**
     * A quantity by formula: of every run of a capture, or of all runs where {@code capture} is empty.
     *
     * @param label empty for the name in words
     * @param unit empty for that of the formula
     */
    public static Added quantity(String text, String capture, String name, String label, String unit, String formula) {
        SheetText sheet = SheetText.of(text);
        String at = capture.isEmpty() ? "/results" : "/captures/" + capture + "/quantities";
        refuse(name, capture.isEmpty() ? taken(sheet) : sheet.names(at));
        try {
            Formula.parse(formula);
        } catch (FormulaException e) {
            throw new IllegalArgumentException("In the formula, column " + e.column() + ": " + e.getMessage(), e);
        }
        Map<String, Object> q = new LinkedHashMap<>();
        q.put("label", label.isBlank() ? name.replace('_', ' ') : label);
        q.put("group", capture.isEmpty() ? "Result" : null);
        q.put("unit", unit.isBlank() ? null : LabUnit.parse(unit.strip()).symbol());
        q.put("formula", formula.strip());
        return new Added(sheet.with(at + "/" + name, q).text(), name);
    }

    /**
     * Something that is read once.
     *
     * @param value with its uncertainty: "20.02(5) mm"
     */
    public static Added input(String text, String name, String label, String value) {
        SheetText sheet = SheetText.of(text);
        refuse(name, taken(sheet));
        Map<String, Object> i = new LinkedHashMap<>();
        i.put("label", label.isBlank() ? name.replace('_', ' ') : label);
        i.put("value", value.strip());
        i.put("group", "Inputs");
        return new Added(sheet.with("/inputs/" + name, i).text(), name);
    }

    /**
     * A result held against a reference. A quantity of runs, {@code capture.name}, becomes a result first: its mean.
     *
     * @param reference an input, a result, or a quantity written out
     */
    public static Added comparison(String text, String result, String label, String reference) {
        SheetText sheet = SheetText.of(text);
        String of = result;
        int dot = result.indexOf('.');
        if (dot > 0) {
            String name = result.substring(dot + 1);
            of = free(name, taken(sheet));
            Map<String, Object> mean = new LinkedHashMap<>();
            mean.put(
                    "label",
                    "mean of "
                            + sheet.value("/captures/" + result.substring(0, dot) + "/quantities/" + name + "/label")
                                    .orElse(name));
            mean.put("group", "Result");
            mean.put("formula", "mean(" + result + ")");
            sheet = sheet.with("/results/" + of, mean);
        }
        Map<String, Object> c = new LinkedHashMap<>();
        c.put("id", free(of, ids(sheet)));
        c.put("label", label.isBlank() ? of.replace('_', ' ') + " against its reference" : label);
        c.put("result", of);
        c.put("reference", reference.strip());
        c.put("main", ids(sheet).isEmpty() ? true : null);
        return new Added(sheet.plus("/comparisons", c).text(), of);
    }

    /**
     * A way to calibrate a channel that has none.
     *
     * @param unit of what it measures; where it is of another kind than what is sent, a link of one per unit is put
     *     before, for the calibration to set right
     * @param points what is set, in order
     */
    public static Added calibration(
            String text, String channel, String unit, String relation, String reference, List<String> points) {
        SheetText sheet = SheetText.of(text);
        String at = "/channels/" + channel;
        if (points.size() < 2 && !relation.equals("offset")) {
            throw new IllegalArgumentException(
                    "A calibration needs two points or more; write them with a comma between.");
        }
        String sent = sheet.value(at + "/unit").orElse("");
        LabUnit measured = LabUnit.parse(unit.strip());
        if (!measured.fits(LabUnit.parse(sent))) {
            Map<String, Object> link = new LinkedHashMap<>();
            link.put("kind", "sensor");
            link.put("label", "to be calibrated");
            link.put("from", measured.symbol());
            link.put("to", sent);
            link.put("gain", 1);
            String chain = text.substring(
                    sheet.span(at + "/chain/0").orElseThrow().from(),
                    sheet.span(at + "/chain/" + (sheet.size(at + "/chain") - 1))
                            .orElseThrow()
                            .to());
            SheetText.Span span = sheet.span(at + "/chain/0").orElseThrow();
            sheet = chain.isEmpty()
                    ? sheet
                    : SheetText.of(text.substring(0, span.from()) + WrittenYaml.flow(link) + ", "
                            + text.substring(span.from()));
            sheet = sheet.with(at + "/unit", measured.symbol());
        } else if (!measured.symbol().equals(sent)) {
            sheet = sheet.with(at + "/unit", measured.symbol());
        }
        Map<String, Object> c = new LinkedHashMap<>();
        c.put("kind", reference.isBlank() ? "comparison" : "comparison with " + reference.strip());
        c.put("relation", relation);
        c.put("reference", reference.isBlank() ? "reference" : reference.strip());
        c.put("points", points.stream().map(String::strip).toList());
        return new Added(sheet.with(at + "/calibration", c).text(), channel);
    }

    /** The names that formulas over all runs know already. */
    private static List<String> taken(SheetText sheet) {
        List<String> all = new ArrayList<>(sheet.names("/results"));
        all.addAll(sheet.names("/inputs"));
        all.addAll(sheet.names("/planned"));
        return all;
    }

    private static List<String> ids(SheetText sheet) {
        List<String> out = new ArrayList<>();
        for (int i = 0; i < sheet.size("/comparisons"); i++) {
            out.add(sheet.value("/comparisons/" + i + "/id").orElse(""));
        }
        return out;
    }

    private static void refuse(String name, List<String> taken) {
        if (!NAME.matcher(name).matches()) {
            throw new IllegalArgumentException(
                    "A name begins with a letter and holds letters, digits and _ only; '" + name + "' does not.");
        }
        if (taken.contains(name)) {
            throw new IllegalArgumentException("There is a quantity " + name + " already; take another name.");
        }
    }

    private static String free(String name, List<String> taken) {
        String free = name;
        for (int i = 2; taken.contains(free); i++) {
            free = name + "_" + i;
        }
        return free;
    }
}
