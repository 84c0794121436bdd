package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Correction;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * A standard that turned out wrong, put right in a session: in readings that were taken with it, and in calibrations
 * that referred to it.
 *
 * <p>A reference that was read is corrected as it stands. One that was computed moves by what its formula moves by when
 * the readings in it are corrected, so that what it rested on when it was taken stays. A reference of exactly 0, as a
 * pan without a mass on it, is no standard and stays.
 *
 * @param act what puts it right; empty where nothing in the session was done with that standard
 * @param reached what is corrected, one phrase each
 */
public record PuttingRight(Optional<Command> act, List<String> reached) {
    /** What a serial looks like: letters and digits with hyphens, a number at its end. */
    private static final Pattern SERIAL =
            Pattern.compile("(?<![A-Za-z0-9-])[A-Z][A-Za-z0-9]*(?:-[A-Za-z0-9]+)*-[0-9]+(?![A-Za-z0-9-])");

    public PuttingRight {
        reached = List.copyOf(reached);
    }

    /**
     * Looks for the standard in a session.
     *
     * @param at words of the references of calibrations that were of this standard; needed where a calibration referred
     *     to several
     * @throws IllegalArgumentException with one sentence where the correction does not fit, where it must be said which
     *     points were taken against it, or where the session is corrected so already
     */
    public static PuttingRight of(Reducer reducer, Session session, Correction c, List<String> at) {
        c.checked();
        for (Correction old : session.corrections()) {
            if (old.standard().equalsIgnoreCase(c.standard())
                    && java.util.Objects.equals(old.times(), c.times())
                    && java.util.Objects.equals(old.plus(), c.plus())) {
                throw new IllegalArgumentException("It is put right already: " + c.standard() + ", " + c.says()
                        + ". Undo that first, or leave it.");
            }
        }
        Sheet sheet = reducer.sheetOf(session);
        List<String> reached = new ArrayList<>();
        sheet.inputs().forEach((name, input) -> {
            String by = session.tied().containsKey(name)
                    ? session.tied().get(name).name() + " "
                            + session.tied().get(name).id()
                    : input.by();
            if (c.concerns(by)) {
                reached.add("the reading of " + input.label());
            }
        });
        sheet.captures()
                .forEach((capture, plan) -> plan.byEye().forEach((name, input) -> {
                    if (input.by() != null
                            && session.keptRuns().stream()
                                    .anyMatch(r -> r.capture().equals(capture)
                                            && c.concerns(session.bench().named(input.by(), r.started())))) {
                        reached.add("readings of " + input.label());
                    }
                }));
        Reduction before = reducer.whatIf(session);
        Reduction after = reducer.whatIf(new CalibrationCommand.PutRight(c, List.of()).apply(session));
        List<Calibration> changed = new ArrayList<>();
        for (Calibration old : session.calibrations()) {
            Channel channel = sheet.channels().get(old.channel());
            if (channel == null) {
                continue;
            }
            boolean named = c.concerns(old.reference());
            if (named && at.isEmpty() && severalIn(old.reference())) {
                throw new IllegalArgumentException("The calibration of " + channel.label() + " refers to "
                        + old.reference() + "; say which of its references were of " + c.standard() + ": "
                        + String.join(
                                "; ",
                                old.points().stream()
                                        .map(CalibrationPoint::set)
                                        .distinct()
                                        .toList())
                        + ".");
            }
            Calibration now = old.called(channel.label())
                    .corrected((point, was) -> right(point, was, named, c, at, channel, before, after));
            if (!now.points().equals(old.points())
                    || !now.verification().equals(old.verification())
                    || !java.util.Objects.equals(now.after(), old.after())) {
                changed.add(now.called(old.channel()));
                reached.add("the calibration of " + channel.label() + " of " + Notation.day(old.taken()));
            }
        }
        return new PuttingRight(
                reached.isEmpty() ? Optional.empty() : Optional.of(new CalibrationCommand.PutRight(c, changed)),
                reached);
    }

    private static boolean severalIn(String reference) {
        return SERIAL.matcher(reference).results().count() > 1;
    }

    private static Optional<Quantity> right(
            CalibrationPoint point,
            Quantity was,
            boolean named,
            Correction c,
            List<String> at,
            Channel channel,
            Reduction before,
            Reduction after) {
        if (isReading(point.set())) {
            boolean meant = at.isEmpty()
                    || at.stream()
                            .anyMatch(a -> point.set()
                                    .toLowerCase(Locale.ROOT)
                                    .contains(a.strip().toLowerCase(Locale.ROOT)));
            return named && meant && !(was.isExact() && was.value() == 0) ? Optional.of(c.of(was)) : Optional.empty();
        }
        Channel.CalibrationPlan plan = Objects.requireNonNull(channel.calibration(), channel.label());
        Optional<String> formula = Stream.of(plan.points(), plan.verify(), plan.after())
                .flatMap(List::stream)
                .filter(p -> p.words().equals(point.set()))
                .map(Channel.PointPlan::reference)
                .findFirst();
        if (formula.isEmpty()) {
            if (named) {
                throw new IllegalArgumentException(
                        "The calibration of " + channel.label() + " has a point '" + point.set()
                                + "' that its method does not have any more, so it cannot be put right; take it again.");
            }
            return Optional.empty();
        }
        Quantity then = before.evaluate(formula.get(), "reference", "reference").to(was.unit());
        Quantity now = after.evaluate(formula.get(), "reference", "reference").to(was.unit());
        return now.value() == then.value() && now.u() == then.u()
                ? Optional.empty()
                : Optional.of(was.plus(now.minus(then)));
    }

    private static boolean isReading(String text) {
        try {
            Reading.parse(text);
            return true;
        } catch (IllegalArgumentException formula) {
            return false;
        }
    }
}
