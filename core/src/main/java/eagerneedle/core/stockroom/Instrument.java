package eagerneedle.core.stockroom;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One thing in the stockroom.
 *
 * @param id its serial, for instance TH-CP-01
 * @param kind sensor, conditioner, converter, hand instrument, reference or specimen
 * @param name what a person calls it
 * @param measures symbol of the unit it reads or has; null for a specimen
 * @param place where it is kept
 * @param range lowest and highest reading, each with its unit; empty when it has none
 * @param resolution smallest difference that can be read, with its unit; null for a reference
 * @param edges how many times that resolution enters one reading: 2 for a rule laid freely
 * @param accuracy largest error by its specification: "0.02 mm + 0.1 mm/m", "0.5 % of reading + 2 digits"; null when
 *     none is stated
 * @param value a reference's value with its uncertainty, by its certificate
 * @param warmUp minutes until it has settled
 * @param minutes minutes that one reading takes at the bench; 1 when it does not say
 * @param limits what it must not be exposed to, in words
 * @param link its part in a chain, for sensors, conditioners and converters
 * @param history calibrations, repairs and uses, in order of time
 * @param retired true when it is not to be used any more
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
@JsonIgnoreProperties(ignoreUnknown = true)
public record Instrument(
        String id,
        String kind,
        String name,
        @Nullable String measures,
        @Nullable String place,
        List<String> range,
        @Nullable String resolution,
        @Nullable Integer edges,
        @Nullable String accuracy,
        @Nullable String value,
        @JsonProperty("warm_up") @Nullable Double warmUp,
        @Nullable Double minutes,
        @Nullable String limits,
        @Nullable Link link,
        List<Event> history,
        boolean retired) {
    private static final java.util.Set<String> ANGLES =
            java.util.Set.of("rad", "mrad", "urad", "deg", "arcmin", "arcsec", "rev");
    /** Outcome of an event that puts it in quarantine, and of one after which it asks for a calibration. */
    public static final String BROKEN = "broken";

    public static final String REPAIRED = "repaired";

    public static final List<String> KINDS =
            List.of("sensor", "conditioner", "converter", "hand instrument", "reference", "specimen");

    /**
     * Something that happened to it: when, what, by whom; for a calibration also the value found, until when it holds
     * and whether it passed.
     */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Event(
            Instant at,
            String what,
            @Nullable String by,
            @Nullable String value,
            @Nullable Instant due,
            @Nullable String outcome) {}

    public Instrument {
        range = range == null ? List.of() : List.copyOf(range);
        history = history == null ? List.of() : List.copyOf(history);
    }

    /** @throws IllegalArgumentException with one sentence for the first entry that cannot be used */
    public Instrument checked() {
        need(
                id != null && id.matches("[A-Za-z0-9][A-Za-z0-9._-]*"),
                "An instrument needs a serial of letters, digits, points and hyphens.");
        need(
                kind != null && KINDS.contains(kind),
                "The kind of " + id + " is one of: " + String.join(", ", KINDS) + ".");
        need(name != null && !name.isBlank(), "The instrument " + id + " needs a name.");
        need(range.isEmpty() || range.size() == 2, "The range of " + id + " is written as lowest and highest.");
        if (measures != null) {
            LabUnit unit = LabUnit.parse(measures);
            range.forEach(r -> Reading.parse(r).unit().convert(0, unit));
            accuracyTerms();
            if (resolution != null) {
                difference(resolution);
            }
            if (value != null) {
                Reading.parse(value).unit().convert(0, unit);
            }
        }
        if (link != null && "converter".equals(link.kind())) {
            eagerneedle.core.chain.Converter.of(link);
        } else if (link != null) {
            eagerneedle.core.chain.Stage.of(link);
        }
        return this;
    }

    private static void need(boolean holds, String sentence) {
        if (!holds) {
            throw new IllegalArgumentException(sentence);
        }
    }

    /** Unit of what it measures: of one that says what that is. */
    public LabUnit unit() {
        return LabUnit.parse(Objects.requireNonNull(measures, id));
    }

    /** A difference written with any unit that fits, in {@link #measures}. */
    private double difference(String text) {
        Reading r = Reading.parse(text);
        return r.value() * r.unit().scaleTo(unit());
    }

    /**
     * True when it can read a value: its unit fits and its range reaches. What reads angles does not read other pure
     * numbers.
     */
    public boolean reads(Quantity nominal) {
        if (measures != null
                && ANGLES.contains(unit().symbol())
                        != ANGLES.contains(nominal.unit().symbol())) {
            return false;
        }
        if (retired || measures == null || !"hand instrument".equals(kind) || !unit().fits(nominal.unit())) {
            return false;
        }
        return range.isEmpty()
                || nominal.in(unit()) >= in(0) * (1 - 1e-12) && nominal.in(unit()) <= in(1) * (1 + 1e-12);
    }

    private double in(int end) {
        Reading r = Reading.parse(range.get(end));
        return r.unit().convert(r.value(), unit());
    }

    /** One term of an accuracy: a fixed part, a share of the reading, a share of the range, or digits. */
    record Term(double fixed, double ofReading, double ofRange, double digits) {}

    List<Term> accuracyTerms() {
        List<Term> terms = new ArrayList<>();
        if (accuracy == null) {
            return terms;
        }
        for (String part : accuracy.split("\\+")) {
            String p = part.strip().toLowerCase(Locale.ROOT);
            try {
                if (p.endsWith("digits") || p.endsWith("digit")) {
                    terms.add(new Term(0, 0, 0, Double.parseDouble(p.replaceAll("\\s*digits?$", ""))));
                } else if (p.endsWith("of reading")) {
                    terms.add(new Term(
                            0,
                            Reading.parse(p.replace("of reading", ""))
                                    .toQuantity("", "", "")
                                    .in(LabUnit.ONE),
                            0,
                            0));
                } else if (p.endsWith("of range")) {
                    terms.add(new Term(
                            0,
                            0,
                            Reading.parse(p.replace("of range", ""))
                                    .toQuantity("", "", "")
                                    .in(LabUnit.ONE),
                            0));
                } else {
                    Reading r = Reading.parse(part.strip());
                    terms.add(
                            r.unit().isDimensionless() && !unit().isDimensionless()
                                    ? new Term(0, r.unit().convert(r.value(), LabUnit.ONE), 0, 0)
                                    : new Term(difference(part.strip()), 0, 0, 0));
                }
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException(
                        "The accuracy of " + id + " cannot be read at '" + part.strip()
                                + DecimalSign.inUse()
                                        .shown(
                                                "'; write for instance 0.02 mm + 0.1 mm/m, or 0.5 % of reading + 2 digits."),
                        e);
            }
        }
        return terms;
    }

    /**
     * A value as this instrument would read it: what its specification allows it to be wrong by is one influence shared
     * by all its readings; what cannot be resolved belongs to each reading.
     *
     * @param nominal the value read
     * @param origin identity of the reading, root of the ids of its own leaves
     * @param label what is read
     */
    public Quantity reading(Quantity nominal, String origin, String label) {
        LabUnit difference = nominal.unit().difference();
        double scale = unit().scaleTo(difference);
        double shared = 0;
        double digits = 0;
        for (Term t : accuracyTerms()) {
            shared += t.fixed()
                    + t.ofReading() * Math.abs(nominal.in(unit()))
                    + t.ofRange() * (range.isEmpty() ? 0 : Math.abs(in(1) - in(0)));
            digits += t.digits();
        }
        Quantity q = nominal;
        if (shared > 0) {
            q = q.with(
                    Leaf.typeB("instrument:" + id, label + " by " + name + " " + id, id, Distribution.RECTANGULAR),
                    shared * scale / Math.sqrt(3));
        }
        if (resolution != null) {
            double half = difference(resolution) * scale * (0.5 * Math.sqrt(edges == null ? 1 : edges));
            q = q.with(
                    Leaf.typeB(origin + "/resolution", label + " by " + name + " " + id, id, Distribution.RECTANGULAR),
                    Math.hypot(half, digits * difference(resolution) * scale) / Math.sqrt(3));
        }
        return q;
    }

    /** The latest calibration. */
    public Optional<Event> calibration() {
        return history.stream().filter(e -> e.due() != null).reduce((a, b) -> b);
    }

    /**
     * Why it is in quarantine, in one sentence; empty when it is not. What is reported broken is out of use at once;
     * when it has been repaired, nobody knows what it reads until it is calibrated again.
     */
    public Optional<String> quarantine() {
        Event last = null;
        for (Event e : history) {
            boolean good = e.due() != null && !"failed".equals(e.outcome());
            boolean tells = BROKEN.equals(e.outcome()) || REPAIRED.equals(e.outcome()) && last != null;
            last = good ? null : tells ? e : last;
        }
        if (last == null) {
            return Optional.empty();
        }
        String day = Notation.day(last.at());
        return Optional.of(
                BROKEN.equals(last.outcome())
                        ? name + " " + id + " was reported broken on " + day + ": " + last.what()
                                + ". It is out of use until it is repaired and calibrated."
                        : name + " " + id + " was repaired on " + day
                                + " and is out of use until it is calibrated again.");
    }

    /** True where it is offered for nothing: retired, or in quarantine. */
    public boolean isOut() {
        return retired || quarantine().isPresent();
    }

    /**
     * When it was good for the last time before it was reported broken: its last calibration before that. Empty when it
     * is not in quarantine, or was never calibrated.
     */
    public Optional<Instant> lastGood() {
        return quarantine().isEmpty()
                ? Optional.empty()
                : history.stream()
                        .filter(e -> e.due() != null && !"failed".equals(e.outcome()))
                        .map(Event::at)
                        .reduce((a, b) -> b);
    }

    /** Why it should not be used: one sentence; empty when there is no reason. */
    public Optional<String> objection(Instant now) {
        if (retired) {
            return Optional.of(name + " " + id + " is retired.");
        }
        Optional<String> out = quarantine();
        if (out.isPresent()) {
            return out;
        }
        return calibration().flatMap(c -> {
            Instant due = Objects.requireNonNull(c.due());
            return "failed".equals(c.outcome())
                    ? Optional.of(name + " " + id + " failed its last calibration.")
                    : now.isAfter(due)
                            ? Optional.of(
                                    "The calibration of " + name + " " + id + " was due on " + Notation.day(due) + ".")
                            : Optional.empty();
        });
    }

    public Instrument withEvent(Event e) {
        List<Event> longer = new ArrayList<>(history);
        longer.add(e);
        return withHistory(longer);
    }

    Instrument withHistory(List<Event> events) {
        return new Instrument(
                id,
                kind,
                name,
                measures,
                place,
                range,
                resolution,
                edges,
                accuracy,
                value,
                warmUp,
                minutes,
                limits,
                link,
                events,
                retired);
    }

    public Instrument retire(boolean now) {
        return new Instrument(
                id,
                kind,
                name,
                measures,
                place,
                range,
                resolution,
                edges,
                accuracy,
                value,
                warmUp,
                minutes,
                limits,
                link,
                history,
                now);
    }

    /** The same specification under another serial, without the history of this one. */
    public Instrument copyAs(String newId) {
        return new Instrument(
                newId,
                kind,
                name,
                measures,
                place,
                range,
                resolution,
                edges,
                accuracy,
                value,
                warmUp,
                minutes,
                limits,
                link,
                List.of(),
                false);
    }

    /** Every word about it, for searching. */
    public boolean matches(String words) {
        String all = String.join(
                        " ",
                        id,
                        kind,
                        name,
                        place == null ? "" : place,
                        measures == null ? "" : measures,
                        limits == null ? "" : limits)
                .toLowerCase(Locale.ROOT);
        for (String w : words.toLowerCase(Locale.ROOT).strip().split("\\s+")) {
            if (!all.contains(w)) {
                return false;
            }
        }
        return true;
    }
}
