package eagerneedle.core.sheet;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.LinkedHashSet;
import java.util.Set;

/** Whether a capture has what its mode needs. */
final class ModeCheck {
    private final SheetReader.Located located;
    private final Sheet sheet;
    private final SheetCheck check;

    ModeCheck(SheetReader.Located located, SheetCheck check) {
        this.located = located;
        this.sheet = located.sheet();
        this.check = check;
    }

    /** @throws SheetException for the first thing that is missing or does not fit */
    void of(String p, Capture capture) {
        if (capture.mode().equals("prompted") && capture.prompt() == null) {
            throw located.problem(p, 1, "prompted readings need a 'prompt' with 'every' and 'count'");
        }
        Capture.ShotPlan shot = capture.shot();
        if (shot != null) {
            String on = shot.on() == null ? capture.channels().get(0) : shot.on();
            if (!capture.channels().contains(on)) {
                throw located.problem(
                        p + "/shot/on", 1, "this capture has no channel " + on + NearName.hint(on, capture.channels()));
            }
            if ((shot.at() == null) == (shot.rate() == null)) {
                throw located.problem(
                        p + (shot.at() == null ? "" : "/shot"),
                        1,
                        "a shot needs either a level 'at' or a 'rate' of change");
            }
            LabUnit unit = sheet.channels().get(on).labUnit();
            if (shot.at() != null) {
                check.attempt(
                        p + "/shot/at", () -> Reading.parse(shot.at()).unit().convert(0, unit));
            } else {
                check.attempt(
                        p + "/shot/rate",
                        () -> Reading.parse(shot.rate())
                                .unit()
                                .scaleTo(unit.difference().per(LabUnit.SECOND)));
            }
        }
        capture.byEye()
                .forEach((name, input) ->
                        check.attempt(p + "/by_eye/" + name + "/value", () -> Reading.parse(input.value())));
        Set<String> outputs = new LinkedHashSet<>();
        sheet.devices().values().forEach(d -> outputs.addAll(d.outputs().keySet()));
        capture.levels()
                .forEach((l, level) -> level.outputs().keySet().forEach(o -> {
                    if (!outputs.contains(o)) {
                        throw located.problem(
                                p + "/levels/" + l + "/outputs/" + o,
                                1,
                                "no device has an output " + o + NearName.hint(o, outputs));
                    }
                }));
    }
}
