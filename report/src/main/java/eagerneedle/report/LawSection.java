package eagerneedle.report;

import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.reduce.LawOfResult;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.PlainWords;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How the uncertainty of each result follows, in symbols and numbers. */
final class LawSection {
    /** A name that is not that of a function. */
    private static final Pattern NAME = Pattern.compile("\\b[A-Za-z_][A-Za-z0-9_.]*\\b(?![(.])");

    private static final int LONGEST = 12;

    private final Reduction reduction;
    private final Figures figures;
    private final PlainWords words;

    LawSection(Reduction reduction, Figures figures) {
        this.reduction = reduction;
        this.figures = figures;
        words = PlainWords.of(reduction.sheet());
    }

    List<Map<String, Object>> all() {
        List<Map<String, Object>> out = new ArrayList<>();
        Set<String> done = new HashSet<>();
        for (Sheet.Comparison c : reduction.sheet().comparisons()) {
            School school = reduction.speaks(c.id());
            reduction.laws(c.result(), school).stream()
                    .filter(l -> done.add(l.key() + l.school()))
                    .forEach(l -> out.add(law(l)));
        }
        return out;
    }

    /** A long name takes the room of the numbers where it is drawn; it stands as words then. */
    private String symbol(LawOfResult.Term t) {
        String name = words.formula(t.name());
        return name.length() <= LONGEST ? figures.symbol(name) : "";
    }

    private String said(LawOfResult.Term t) {
        if (!t.label().equals(t.name())) {
            return t.label();
        }
        return words.formula(t.name()).length() <= LONGEST ? "" : said(t.name());
    }

    /** What a function gives, with the first thing it is given where that has a label: "slope of strain". */
    private String said(String call) {
        String function = call.replaceFirst("\\(.*", "").replace('_', ' ');
        Matcher name = NAME.matcher(call);
        String label = name.find() ? words.say(name.group()) : "";
        return function + (label.isEmpty() || label.equals(name.group()) ? "" : " of " + label);
    }

    private Map<String, Object> law(LawOfResult l) {
        String unit = (" " + l.result().unit().pretty()).stripTrailing();
        boolean limits = l.school() == School.LIMITS;
        List<Map<String, String>> rows = l.terms().stream()
                .map(t -> Map.of(
                        "label",
                        said(t),
                        "picture",
                        symbol(t),
                        "value",
                        Printed.of(t.quantity()).text(),
                        "u",
                        Notation.figures(
                                (limits ? t.quantity().limit() : t.quantity().u())
                                        * t.quantity()
                                                .unit()
                                                .scaleTo(
                                                        Printed.of(t.quantity()).unit()),
                                2),
                        "derivative",
                        (Notation.plain(t.derivative(), 4) + " "
                                        + t.per(l.result().unit(), LabUnit::pretty))
                                .strip(),
                        "part",
                        Notation.figures(t.contribution(), 2)))
                .toList();
        String total = l.law().isEmpty()
                ? ""
                : (limits ? "Their sum is " : "Their root sum of squares is ")
                        + Notation.figures(l.alone(), 2)
                        + unit
                        + (l.shares()
                                ? "; what they share counted, it is " + Notation.figures(l.stated(), 2) + unit + "."
                                : ".");
        return Map.of(
                "formula",
                figures.equation(words.formula(l.key() + " = "
                        + Objects.requireNonNull(reduction.sheet().results().get(l.key()))
                                .formula())),
                "law",
                l.law().isEmpty() ? "" : figures.law(words.formula(l.law())),
                "rows",
                rows,
                "total",
                total,
                "symbol",
                limits ? "limit" : "standard uncertainty",
                "unit",
                l.result().unit().pretty(),
                "label",
                reduction.sheet().results().get(l.key()).label() == null
                        ? l.key()
                        : reduction.sheet().results().get(l.key()).label());
    }
}
