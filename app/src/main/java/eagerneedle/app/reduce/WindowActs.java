package eagerneedle.app.reduce;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;

/** What may be done to the windows and the samples of a run and its likes. */
record WindowActs(Workbench bench, Run run) {
    /** @param window its window; empty for none */
    List<ReduceModel.Act> all(Optional<String> window) {
        List<ReduceModel.Act> out = new ArrayList<>();
        window.ifPresent(w -> {
            out.add(new ReduceModel.Act("All runs of this kind: edges moved as here", () -> asHere(w)));
            out.add(new ReduceModel.Act(
                    "All runs of this kind: proposed again",
                    () -> bench.apply(new Command.Together(
                            "Took the proposed windows of all runs of "
                                    + capture().label() + " again.",
                            proposals(w)))));
        });
        capture().moments().stream()
                .filter(run.windows()::containsKey)
                .forEach(m -> out.add(new ReduceModel.Act(
                        "Take " + label(m) + " again where the sheet finds it",
                        () -> bench.apply(new ReducingCommand.SetMoment(run.id(), m, label(m), null)))));
        run.entries()
                .voided()
                .forEach(v -> out.add(new ReduceModel.Act(
                        Notation.sentence("Take %.3f s to %.3f s in again (%s)", v.from(), v.to(), v.reason()),
                        () -> bench.apply(new RunCommand.CountSamples(run.id(), v)))));
        return out;
    }

    private Capture capture() {
        return Objects.requireNonNull(bench.sheet().captures().get(run.capture()));
    }

    private Stream<Run> likes() {
        return bench.session().keptRuns().stream().filter(x -> x.capture().equals(run.capture()));
    }

    private String label(String quantity) {
        String label =
                Objects.requireNonNull(capture().quantities().get(quantity)).label();
        return label == null ? quantity : label;
    }

    private List<Command> proposals(String window) {
        return likes().map(x -> (Command) new ReducingCommand.SetWindow(x.id(), window, null))
                .toList();
    }

    /**
     * Moves the edges of every run's window by as much as they were moved here from what is proposed, each from its own
     * proposal.
     */
    private void asHere(String window) {
        Reduction proposed = bench.whatIf(new Command.Together("proposals", proposals(window)));
        Window here = bench.reduction()
                .window(run, window)
                .orElseThrow(() -> new IllegalArgumentException("This run has no window to take the others from."));
        Window own = proposed.window(run, window)
                .orElseThrow(() -> new IllegalArgumentException(
                        "No window can be proposed for this run, so the others cannot be moved as here."));
        List<Command> acts = new ArrayList<>();
        likes().forEach(x -> proposed.window(x, window)
                .map(p -> new Window(
                        p.from() + here.from() - own.from(),
                        p.to() + here.to() - own.to(),
                        "moved as in " + run.name()))
                .filter(p -> p.to() > p.from())
                .ifPresent(p -> acts.add(new ReducingCommand.SetWindow(x.id(), window, p))));
        bench.apply(
                new Command.Together("Moved the windows of " + acts.size() + " runs as in " + run.name() + ".", acts));
    }
}
