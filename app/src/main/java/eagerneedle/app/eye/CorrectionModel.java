package eagerneedle.app.eye;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** A kept run that is put right: its name, its level, what was read by eye. */
final class CorrectionModel {
    private final Workbench bench;
    private final Run run;
    private final Capture capture;

    CorrectionModel(Workbench bench, Run run) {
        this.bench = bench;
        this.run = run;
        this.capture = EyeReadings.plan(bench, run.capture());
    }

    Run run() {
        return run;
    }

    /** The levels of its capture by what people call them. */
    Map<String, String> levels() {
        Map<String, String> out = new LinkedHashMap<>();
        capture.levels().keySet().forEach(l -> out.put(l, Notebook.level(capture, l)));
        out.putIfAbsent(run.level(), run.level());
        return out;
    }

    /** True when something is read by eye with it. */
    boolean isRead() {
        return !capture.byEye().isEmpty();
    }

    /**
     * Keeps what was put right, as one act.
     *
     * @param now the run with its new name, readings and pictures
     * @param level key of its level now
     * @param why the reason
     * @return false when nothing is different
     * @throws IllegalArgumentException with one sentence when a reason is missing or something does not fit
     */
    boolean keep(Run now, String level, String why) {
        List<Command> acts = new ArrayList<>();
        List<String> said = new ArrayList<>();
        if (!now.name().equals(run.name())) {
            acts.add(new RunCommand.RenameRun(run.id(), now.name()));
            said.add("called " + now.name().strip());
        }
        if (!level.equals(run.level())) {
            String from = Notebook.level(capture, run.level());
            String to = Notebook.level(capture, level);
            acts.add(new RunCommand.MoveRun(run.id(), level, from, to, why));
            said.add("at " + to + " in place of " + from);
        }
        capture.byEye().forEach((name, input) -> {
            String was = run.entries().byEye().get(name);
            String is = now.entries().byEye().get(name);
            if (is != null && !Objects.equals(was, is)) {
                acts.add(new RunCommand.CorrectReading(run.id(), name, input.label(), was, is, why));
                said.add(input.label() + (was == null ? " " + is : " " + is + " in place of " + was));
            }
        });
        for (Entries.Picture p : now.entries().pictures()) {
            if (!run.entries().pictures().contains(p)) {
                acts.add(new RunCommand.AttachPicture(run.id(), p));
                said.add("with the picture " + p.name());
            }
        }
        if (acts.isEmpty()) {
            return false;
        }
        bench.apply(
                acts.size() == 1
                        ? acts.get(0)
                        : new Command.Together(
                                "Put " + run.name() + " right: " + String.join(", ", said)
                                        + (why.isBlank() ? "" : "; " + why.strip()) + ".",
                                acts));
        return true;
    }
}
