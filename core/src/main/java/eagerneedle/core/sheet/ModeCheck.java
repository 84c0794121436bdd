package eagerneedle.core.sheet;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.LinkedHashSet;
import java.util.Set;

/** Whether a capture has what its mode needs. */
final class ModeCheck {
    private final Sheet sheet;
    private final SheetCheck check;

    ModeCheck(Sheet sheet, SheetCheck check) {
        this.sheet = sheet;
        this.check = check;
    }

    /** Keeps everything that is missing or does not fit. */
    void of(String p, Capture capture) {
        if (capture.mode().equals("prompted") && capture.prompt() == null) {
            check.problem(p, 1, "prompted readings need a 'prompt' with 'every' and 'count'");
        }
        if (capture.shot() != null) {
            shot(p, capture, capture.shot());
        }
        SeekPlan seek = capture.seek();
        if (seek != null) {
            seek(p + "/seek", capture, seek);
        }
        if (capture.isByEye() != capture.channels().isEmpty()) {
            check.problem(
                    p,
                    1,
                    capture.isByEye()
                            ? "in the mode 'eye' nothing is recorded: take 'channels' out, or another mode"
                            : "the mode '" + capture.mode() + "' records: name its 'channels', or write 'mode: eye'");
        }
        if (capture.isByEye() && capture.byEye().isEmpty()) {
            check.problem(p, 1, "nothing is recorded and nothing is read: name 'channels' or 'by_eye'");
        }
        if (capture.isByEye() && !capture.windows().isEmpty()) {
            check.problem(p + "/windows", 1, "what is read by eye has no trace on which a window could lie");
        }
        capture.byEye()
                .forEach((name, input) ->
                        check.attempt(p + "/by_eye/" + name + "/value", () -> Written.check(input.value())));
        capture.levels()
                .forEach((l, level) -> level.expected()
                        .forEach((name, text) ->
                                expected(p + "/levels/" + l + "/expected/" + name, capture, name, text)));
        Set<String> outputs = new LinkedHashSet<>();
        sheet.devices().values().forEach(d -> outputs.addAll(d.outputs().keySet()));
        capture.levels()
                .forEach((l, level) -> level.outputs().forEach((o, text) -> {
                    Set<String> known = new LinkedHashSet<>(sheet.inputs().keySet());
                    known.addAll(sheet.results().keySet());
                    known.addAll(level.set().keySet());
                    check.names(p + "/levels/" + l + "/outputs/" + o, text, known);
                    if (!outputs.contains(o)) {
                        check.problem(
                                p + "/levels/" + l + "/outputs/" + o,
                                1,
                                "no device has an output " + o + NearName.hint(o, outputs));
                    }
                }));
    }

    /** What is expected at a level is something that is read, in a unit that fits. */
    private void expected(String p, Capture capture, String name, String text) {
        Sheet.Input input = capture.byEye().get(name);
        if (input == null) {
            check.problem(
                    p,
                    1,
                    "nothing of that name is read by eye here"
                            + NearName.hint(name, capture.byEye().keySet()));
            return;
        }
        check.attempt(p, () -> {
            LabUnit usual = Written.quantity(input.value(), name, name, name).unit();
            LabUnit here = Written.quantity(text, name, name, name).unit();
            if (!here.fits(usual)) {
                throw new IllegalArgumentException(
                        input.label() + " is read in " + usual.named() + ", not in " + here.named() + ".");
            }
        });
    }

    /** What is sought is read from channels, stands somewhere, and is turned by something that is there. */
    private void seek(String p, Capture capture, SeekPlan seek) {
        Set<String> right = new LinkedHashSet<>(sheet.inputs().keySet());
        right.addAll(sheet.results().keySet());
        capture.levels().values().forEach(l -> right.addAll(l.set().keySet()));
        Set<String> left = new LinkedHashSet<>(right);
        left.addAll(capture.channels());
        left.add("t");
        String[] sides = seek.until().split("=", -1);
        if (sides.length != 2 || sides[0].isBlank() || sides[1].isBlank()) {
            check.problem(
                    p + "/until",
                    1,
                    "what is sought is written with one equals sign, what is read on its left: v = 2.00 m/s.");
        } else {
            check.names(p + "/until", sides[0], left);
            check.names(p + "/until", sides[1].strip(), right);
        }
        check.attempt(p + "/within", () -> Reading.parse(seek.within()));
        if (!capture.mode().equals("hold")) {
            check.problem(p, 1, "a target is held where rows are taken: give this capture 'mode: hold'.");
        }
        Set<String> outputs = new LinkedHashSet<>();
        sheet.devices().values().forEach(d -> outputs.addAll(d.outputs().keySet()));
        if (seek.output() != null && !outputs.contains(seek.output())) {
            check.problem(
                    p + "/output",
                    1,
                    "no device has an output " + seek.output() + NearName.hint(seek.output(), outputs));
        }
        if (seek.byProgram() && seek.output() == null) {
            check.problem(p + "/by", 1, "the program turns an output: say which one.");
        }
    }

    private void shot(String p, Capture capture, ShotPlan shot) {
        String on = shot.on() != null
                ? shot.on()
                : capture.channels().isEmpty() ? "" : capture.channels().get(0);
        if (!capture.channels().contains(on)) {
            check.problem(
                    p + "/shot/on", 1, "this capture has no channel " + on + NearName.hint(on, capture.channels()));
            return;
        }
        String level = shot.at();
        String rate = shot.rate();
        if ((level == null) == (rate == null)) {
            check.problem(
                    p + (shot.at() == null ? "" : "/shot"),
                    1,
                    "a shot needs either a level 'at' or a 'rate' of change");
            return;
        }
        LabUnit unit = check.unitOf(on).orElse(null);
        if (unit == null) {
            return;
        }
        if (level != null) {
            check.attempt(p + "/shot/at", () -> Reading.parse(level).unit().convert(0, unit));
        } else if (rate != null) {
            check.attempt(
                    p + "/shot/rate",
                    () -> Reading.parse(rate).unit().scaleTo(unit.difference().per(LabUnit.SECOND)));
        }
    }
}
