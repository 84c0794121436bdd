package eagerneedle.app.command;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.store.export.ReductionJson;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "eval", description = "Evaluates a formula of the sheet language, with units and uncertainties.")
final class EvalCommand implements Callable<Integer> {
    @Parameters(paramLabel = "EXPRESSION", description = "for instance \"9.81(2) m/s^2 * 2 kg\"")
    private String expression;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        Formula formula = Formula.parse(expression);
        String name = formula.defines() == null ? "result" : formula.defines();
        Set<String> remarks = new LinkedHashSet<>();
        Value v = formula.evaluate(Scope.empty(name, remarks::add));
        String text = !json
                ? v.shown()
                : v instanceof Value.Scalar q
                        ? ReductionJson.of(name, q.quantity(), List.copyOf(remarks))
                        : v instanceof Value.Column c
                                ? ReductionJson.of(name, c.rows())
                                : v instanceof Value.Fitted f
                                        ? ReductionJson.of(f.fit())
                                        : ReductionJson.words(name, v.shown());
        if (!json && v instanceof Value.Scalar q && !q.quantity().isLinear()) {
            MonteCarlo m = MonteCarlo.of(q.quantity(), Coverage.DEFAULT, MonteCarlo.Settings.QUICK);
            text += m.firstOrderIsGoodEnough() ? "" : System.lineSeparator() + m.remark();
        }
        spec.commandLine().getOut().println(text);
        if (!json) {
            remarks.forEach(r -> spec.commandLine().getOut().println("- " + r));
        }
        return NeedleCommand.GOOD;
    }
}
