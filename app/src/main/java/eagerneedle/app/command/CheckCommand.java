package eagerneedle.app.command;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.HiddenNames;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.RehearsalTrial;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.FileName;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "check",
        description = "Checks a method sheet; says everything that is wrong, each with line, column and the place.")
final class CheckCommand implements Callable<Integer> {
    private static final int WIDEST = 110;

    @Parameters(paramLabel = "SHEET")
    private Path sheet;

    @Option(names = "--fast", description = "look only, without carrying the method out on its rig")
    private boolean fast;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        String text = Sessions.text(sheet);
        SheetReader.Looked looked = SheetTrial.look(text, FileName.of(sheet));
        boolean rehearsed = looked.problems().isEmpty()
                && !fast
                && Rigs.canRehearse(looked.located().orElseThrow().sheet());
        List<SheetException> notes = new ArrayList<>(
                looked.problems().isEmpty() ? HiddenNames.of(looked.located().orElseThrow()) : List.of());
        if (rehearsed) {
            RehearsalTrial.Verdict v =
                    RehearsalTrial.look(looked.located().orElseThrow(), RehearsalTrial.SESSIONS, () -> false);
            looked = new SheetReader.Looked(looked.located(), v.problems());
            notes.addAll(v.notes());
        }
        if (looked.problems().isEmpty()) {
            Sheet s = looked.located().orElseThrow().sheet();
            spec.commandLine()
                    .getOut()
                    .println(FileName.of(sheet) + ": good. " + s.inputs().size() + " inputs, "
                            + s.captures().size() + " captures, "
                            + s.results().size() + " results"
                            + (rehearsed
                                    ? ", carried out " + RehearsalTrial.SESSIONS + " times on its rig."
                                    : Rigs.canRehearse(s)
                                            ? "; not carried out."
                                            : "; not carried out, since it has no rig."));
            notes.forEach(n -> spec.commandLine().getOut().println(n.getMessage()));
            return NeedleCommand.GOOD;
        }
        PrintWriter err = spec.commandLine().getErr();
        List<String> lines = text.lines().toList();
        for (SheetException p : looked.problems()) {
            err.println(p.getMessage());
            if (p.line() >= 1 && p.line() <= lines.size()) {
                err.print(shown(lines.get(p.line() - 1), p.column()));
            }
        }
        if (looked.problems().size() > 1) {
            err.println(looked.problems().size() + " problems."
                    + (looked.located().isEmpty() ? " What the entries say is looked at once these are mended." : ""));
        }
        err.flush();
        return NeedleCommand.BAD_INPUT;
    }

    /** The line and, where the place in it is known, a caret below; of a long line the part around it. */
    private static String shown(String line, int column) {
        int margin = line.length() - line.stripLeading().length();
        int at = Math.min(Math.max(0, column - 1), line.length());
        int from = Math.max(margin, Math.min(at - WIDEST / 2, line.length() - WIDEST));
        int to = Math.min(line.length(), from + WIDEST);
        String before = from > margin ? "…" : "";
        String part = before + line.substring(from, to).replace('\t', ' ') + (to < line.length() ? "…" : "");
        String caret =
                column < 1 || at < margin ? "" : "    " + " ".repeat(before.length() + at - from) + "^%n".formatted();
        return "    %s%n".formatted(part) + caret;
    }
}
