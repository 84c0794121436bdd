package eagerneedle.app.command;

import eagerneedle.app.station.ImportDialog;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.FormulaFit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.store.delimited.DelimitedText;
import eagerneedle.store.delimited.Dialect;
import eagerneedle.store.export.ReductionJson;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "fit", description = "Fits a formula to the columns of a delimited text.")
final class FitCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DATA.csv")
    private Path data;
    @Option(names = "--model", required = true, description = "for instance \"y = a + b*x\"; names that are no columns are parameters")
    private String model;
    @Option(names = "--start", split = ",", description = "starting values, for instance a=1,b=2; 1 where none is given")
    private Map<String, Double> start = new LinkedHashMap<>();
    @Option(names = "--u-y", description = "column of standard uncertainties of the ordinate")
    private String uY;
    @Option(names = "--json")
    private boolean json;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        DelimitedText text = new DelimitedText(data.getFileName().toString(), ImportDialog.read(data));
        Dialect dialect = text.guess();
        double[][] columns = text.columns(dialect);
        Map<String, double[]> byName = new LinkedHashMap<>();
        for (int i = 0; i < columns.length; i++) {
            byName.put(dialect.names().get(i), columns[i]);
        }
        Formula formula = Formula.parse(model);
        if (formula.defines() == null) {
            throw new FormulaException(1, "A model needs its ordinate on the left, for instance y = a + b*x.");
        }
        double[] uncertainties = null;
        if (uY != null) {
            uncertainties = byName.get(uY);
            if (uncertainties == null) {
                throw new IllegalArgumentException("There is no column " + uY + "; there are: " + String.join(", ", byName.keySet()) + ".");
            }
        }
        Fit fit = FormulaFit.of(formula, byName, start, uncertainties);
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(ReductionJson.of(fit));
        } else {
            for (int i = 0; i < fit.names().size(); i++) {
                Quantity q = fit.parameters().get(i);
                out.println(fit.names().get(i) + " = " + q);
            }
            out.println("residual SD " + fit.residualSd() + ", " + fit.dof() + " degrees of freedom");
            fit.remarks().forEach(out::println);
        }
        return NeedleCommand.GOOD;
    }
}
