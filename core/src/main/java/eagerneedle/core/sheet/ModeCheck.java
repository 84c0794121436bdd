package eagerneedle.core.sheet;

import eagerneedle.core.formula.NearName;
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
        capture.byEye()
                .forEach((name, input) ->
                        check.attempt(p + "/by_eye/" + name + "/value", () -> Reading.parse(input.value())));
        Set<String> outputs = new LinkedHashSet<>();
        sheet.devices().values().forEach(d -> outputs.addAll(d.outputs().keySet()));
        capture.levels()
                .forEach((l, level) -> level.outputs().keySet().forEach(o -> {
                    if (!outputs.contains(o)) {
                        check.problem(
                                p + "/levels/" + l + "/outputs/" + o,
                                1,
                                "no device has an output " + o + NearName.hint(o, outputs));
                    }
                }));
    }

    private void shot(String p, Capture capture, Capture.ShotPlan shot) {
        String on = shot.on() == null ? capture.channels().get(0) : shot.on();
        if (!capture.channels().contains(on)) {
            check.problem(
                    p + "/shot/on", 1, "this capture has no channel " + on + NearName.hint(on, capture.channels()));
            return;
        }
        if ((shot.at() == null) == (shot.rate() == null)) {
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
        if (shot.at() != null) {
            check.attempt(p + "/shot/at", () -> Reading.parse(shot.at()).unit().convert(0, unit));
        } else {
            check.attempt(
                    p + "/shot/rate",
                    () -> Reading.parse(shot.rate())
                            .unit()
                            .scaleTo(unit.difference().per(LabUnit.SECOND)));
        }
    }
}
