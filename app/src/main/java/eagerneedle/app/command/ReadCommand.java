package eagerneedle.app.command;

import eagerneedle.app.eye.EyeReadings;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@picocli.CommandLine.Command(
        name = "read",
        description = "Keeps what was read by eye as a row of a session, or puts a reading of a kept run right.")
final class ReadCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "SESSION", description = "the bench file")
    private Path file;

    @Parameters(
            index = "1..*",
            arity = "1..*",
            paramLabel = "NAME=READING",
            description = "what was read, such as m='50.00(2) g'")
    private List<String> readings;

    @Option(names = "--capture", description = "which capture; the first that is not complete when not said")
    private String capture;

    @Option(names = "--level", description = "which level; the next of the schedule when not said")
    private String level;

    @Option(names = "--run", description = "a kept run whose readings are put right, by name or number")
    private String run;

    @Option(names = "--why", description = "why they are put right; it goes into the notebook")
    private String why;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        try (Workbench bench = new Workbench(BenchFile.open(file), Clock.systemUTC())) {
            spec.commandLine().getOut().println(run == null ? kept(bench) : corrected(bench));
            return NeedleCommand.GOOD;
        }
    }

    private Map<String, String> read(Capture plan) {
        Map<String, String> out = new LinkedHashMap<>();
        for (String text : readings) {
            int at = text.indexOf('=');
            String name = at < 0 ? text : text.substring(0, at).strip();
            if (at < 0 || !plan.byEye().containsKey(name)) {
                throw new IllegalArgumentException("'" + text + "' is not NAME=READING of what is read by eye here: "
                        + String.join(", ", plan.byEye().keySet()) + ".");
            }
            out.put(name, text.substring(at + 1).strip());
        }
        return out;
    }

    private String kept(Workbench bench) {
        String to = NamedPlaces.capture(bench, capture);
        Capture plan = bench.sheet().capture(to);
        if (!plan.isByEye()) {
            throw new IllegalArgumentException(plan.label() + " records channels; its readings belong to its runs."
                    + " Say --run to put one right.");
        }
        String at = level == null ? null : NamedPlaces.level(bench, to, level);
        Run kept = EyeReadings.keep(
                        bench, to, List.of(new EyeReadings.Row(at, read(plan), "This row")), "the command line")
                .get(0);
        return kept.name() + " of " + plan.label() + " at " + Notebook.level(plan, kept.level()) + ".";
    }

    private String corrected(Workbench bench) {
        Run of = NamedPlaces.run(bench, run);
        Capture plan = bench.sheet().capture(of.capture());
        List<Command> acts = new ArrayList<>();
        read(plan).forEach((name, text) -> {
            Sheet.Input input = Objects.requireNonNull(plan.byEye().get(name));
            String was = of.entries().byEye().get(name);
            acts.add(new RunCommand.CorrectReading(
                    of.id(),
                    name,
                    input.label(),
                    was,
                    EyeReadings.checked(input, plan.expected(of.level(), name), text),
                    why));
        });
        // All are tried before the first is kept.
        bench.whatIf(new Command.Together("tried", acts));
        acts.forEach(bench::apply);
        return "Corrected " + of.name() + "; what stood there is in the notebook.";
    }
}
