package eagerneedle.report;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Blind;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Window;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;

/** What was decided in a session and could have been decided otherwise, one sentence each. */
final class ChoicesMade {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM uuuu HH:mm")
            .withLocale(Locale.UK)
            .withZone(ZoneId.systemDefault());

    private ChoicesMade() {}

    static List<String> of(Reduction r) {
        Session s = r.session();
        List<String> out = new ArrayList<>();
        out.add(
                s.school() == null
                        ? "The school in use is the one the sheet names for each comparison."
                        : "The school in use: " + s.school().label() + ", chosen for this session.");
        if (s.coverageChosen() != null) {
            out.add("A coverage of " + s.coverage().percent() + " was chosen for this session.");
        }
        r.sheet().offers().forEach(o -> {
            String way = s.picked().get(o.key());
            String why = o.choice().why().isEmpty() ? "" : " (" + o.choice().why() + ")";
            out.add(
                    way == null
                            ? "Reckoned as the sheet does: " + o.choice().label() + ", "
                                    + o.choice().usual() + why + "."
                            : "Reckoned otherwise than the sheet does: "
                                    + o.choice().label() + ", " + way + " in place of "
                                    + o.choice().usual() + why + ".");
        });
        for (Run run : r.runs()) {
            if (run.discard() != null) {
                out.add(run.name() + " was left out of everything: " + run.discard() + ".");
            } else if (run.leftOut() != null) {
                out.add(run.name() + " was left out of the results: " + run.leftOut() + ".");
            }
            run.windows().forEach((name, w) -> out.add(setByHand(r, run, name, w)));
            run.entries()
                    .voided()
                    .forEach(v -> out.add(Notation.sentence(
                            "Samples of %s from %.4g s to %.4g s do not count: %s.",
                            run.name(), v.from(), v.to(), v.reason())));
        }
        s.own()
                .forEach((where, quantities) -> quantities.forEach((name, d) ->
                        out.add("Added " + (where.isEmpty() ? "to the results" : "to every run of " + where) + ": "
                                + name + " = " + d.formula() + ".")));
        s.tied()
                .forEach((input, i) ->
                        out.add(Objects.requireNonNull(r.sheet().inputs().get(input))
                                        .label() + " was read with " + i.name() + " " + i.id() + "."));
        s.setups()
                .keySet()
                .forEach(c -> out.add(r.sheet().channel(c).label() + " was set up otherwise than the sheet says."));
        s.repeats()
                .forEach((c, n) -> out.add(n + " runs of "
                        + r.sheet().capture(c).label().toLowerCase(Locale.ROOT) + " were planned at each level."));
        s.explained().values().stream()
                .filter(t -> !t.isBlank())
                .forEach(t -> out.add("To a watch it was said: " + t + "."));
        return out;
    }

    private static String setByHand(Reduction r, Run run, String name, Window w) {
        Capture c = r.sheet().captures().get(run.capture());
        if (c != null && !c.windows().containsKey(name) && c.quantities().containsKey(name)) {
            String label = c.quantities().get(name).label();
            return Notation.sentence(
                    "%s of %s was set to %.4f s by hand.",
                    label == null ? name : label, run.name(), (w.from() + w.to()) / 2);
        }
        return window(run, name, w);
    }

    private static String window(Run run, String name, Window w) {
        return Notation.sentence(
                "The window '%s' of %s was set to %.3f s ... %.3f s (%s).",
                name, run.name(), w.from(), w.to(), w.reason());
    }

    /** What blind work there was; empty when there was none. */
    static String blind(Reduction r) {
        Blind b = r.session().blind();
        if (b == null) {
            return "";
        }
        if (b.lockedAt() == null) {
            return "The references have been hidden since " + STAMP.format(b.since()) + "; no result is locked yet.";
        }
        List<String> locked = b.locked().entrySet().stream()
                .map(e -> r.sheet().comparisons().stream()
                                .filter(c -> c.id().equals(e.getKey()))
                                .findFirst()
                                .map(c -> c.label())
                                .orElse(e.getKey())
                        + ": " + e.getValue())
                .toList();
        return "Worked blind from " + STAMP.format(b.since()) + ". Locked at " + STAMP.format(b.lockedAt())
                + ", before the references were seen: " + String.join("; ", locked) + ".";
    }
}
