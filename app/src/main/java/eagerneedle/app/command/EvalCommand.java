package eagerneedle.app.command;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.store.export.ReductionJson;
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
        Value v = formula.evaluate(Scope.empty(name));
        String text;
        if (v instanceof Value.Scalar s) {
            text = json ? ReductionJson.of(name, s.quantity()) : s.quantity().toString();
        } else if (v instanceof Value.Column c) {
            text = json ? ReductionJson.of(name, c.rows()) : c.rows().stream().map(Object::toString).collect(java.util.stream.Collectors.joining("\n"));
        } else if (v instanceof Value.Fitted f) {
            text = json ? ReductionJson.of(f.fit()) : f.fit().names() + " = " + f.fit().parameters();
        } else {
            text = v.described();
        }
        spec.commandLine().getOut().println(text);
        return NeedleCommand.GOOD;
    }
}
