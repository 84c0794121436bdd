package eagerneedle.app.command;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.fit.SecondOpinion;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.function.FormulaFit;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.store.FileName;
import eagerneedle.store.delimited.DelimitedText;
import eagerneedle.store.delimited.Dialect;
import eagerneedle.store.export.ReductionJson;
import eagerneedle.store.foreign.ForeignFile;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "fit", description = "Fits a formula to the columns of a delimited text.")
final class FitCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DATA.csv")
    private Path data;

    @Option(
            names = "--model",
            required = true,
            description = {
                "for instance \"y = a + b*x\"; names that are no columns are parameters.",
                "Or \"y = decay(x)\" with a named model, which finds its own starting values: decay, saturation, "
                        + "half_saturation, power_law, logarithm,",
                "arrhenius, logistic, damped_cosine, broken_line, two_exponentials."
            })
    private String model;

    @Option(
            names = "--start",
            split = ",",
            description = "starting values, for instance a=1,b=2; 1 where none is given")
    private Map<String, Double> start = new LinkedHashMap<>();

    @Option(names = "--u-y", description = "column of standard uncertainties of the ordinate")
    private String uY;

    @Option(
            names = "--u-x",
            description = "column of standard uncertainties of the abscissa, the first column the model names")
    private String uX;

    @Option(names = "--json")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        DelimitedText text = new DelimitedText(FileName.of(data), ForeignFile.text(data));
        Dialect dialect = text.guess();
        double[][] columns = text.columns(dialect);
        Map<String, double[]> byName = new LinkedHashMap<>();
        for (int i = 0; i < columns.length; i++) {
            if (byName.put(dialect.names().get(i), columns[i]) != null) {
                throw new IllegalArgumentException(FileName.of(data) + " has two columns called '"
                        + dialect.names().get(i) + "'; give one of them another name.");
            }
        }
        Formula formula = Formula.parse(model);
        if (formula.defines() == null) {
            throw new FormulaException(1, "A model needs its ordinate on the left, for instance y = a + b*x.");
        }
        double[] uncertaintiesX = uncertainties(byName, uX);
        double[] uncertaintiesY = uncertainties(byName, uY);
        PrintWriter out = spec.commandLine().getOut();
        Fit fit;
        try {
            fit = fit(formula, byName, uncertaintiesX, uncertaintiesY);
        } catch (FitException e) {
            if (e.isTooFew()) {
                throw e;
            }
            if (json) {
                out.println(ReductionJson.notConverged(String.valueOf(e.getMessage())));
            }
            spec.commandLine().getErr().println(e.getMessage());
            return NeedleCommand.CHECKS_FAILED;
        }
        List<String> remarks = new ArrayList<>(fit.remarks());
        if (uX == null && uY == null && fit.dof() > 2) {
            try {
                SecondOpinion.of(fit).remark().ifPresent(remarks::add);
            } catch (FitException | ArithmeticException noOpinion) {
                // A robust fit that does not converge has nothing to say beside the one that did.
            }
        }
        if (json) {
            out.println(ReductionJson.of(fit, remarks));
        } else {
            for (int i = 0; i < fit.names().size(); i++) {
                Quantity q = fit.parameters().get(i);
                out.println(fit.names().get(i) + " = " + q);
            }
            out.println(
                    "residual SD " + Notation.figures(fit.residualSd(), 3) + ", " + fit.dof() + " degrees of freedom"
                            + (Double.isNaN(fit.rSquared())
                                    ? ""
                                    : ", R² " + Notation.plain(fit.rSquared(), 5)
                                            + " (says nothing of whether the model is right)"));
            remarks.forEach(out::println);
        }
        return NeedleCommand.GOOD;
    }

    private Fit fit(Formula formula, Map<String, double[]> columns, double @Nullable [] ux, double @Nullable [] uy) {
        NamedModel named = formula.expression() instanceof Expr.Call call ? NamedModel.named(call.function()) : null;
        if (formula.expression() instanceof Expr.Call call && named != null) {
            if (call.arguments().size() != 1
                    || !(call.arguments().get(0).value() instanceof Expr.Name x)
                    || !columns.containsKey(x.name())
                    || !columns.containsKey(formula.defines())) {
                throw new IllegalArgumentException(
                        "A named model is written with columns, for instance y = decay(x); there are: "
                                + String.join(", ", columns.keySet()) + ".");
            }
            boolean stated = ux != null || uy != null;
            Points points = Points.of(
                    quantities(columns.get(x.name()), ux, "x"), quantities(columns.get(formula.defines()), uy, "y"));
            return named.fit(
                    points,
                    new FitOptions(
                            stated ? Scatter.FROM_UNCERTAINTIES : Scatter.FROM_RESIDUALS,
                            "fit",
                            "scatter of the points",
                            start));
        }
        return FormulaFit.of(formula, columns, start, ux, uy);
    }

    private static List<Quantity> quantities(double[] values, double @Nullable [] u, String name) {
        List<Quantity> out = new ArrayList<>();
        for (int i = 0; i < values.length; i++) {
            out.add(
                    u == null
                            ? Quantity.number(values[i])
                            : Quantity.of(
                                    values[i],
                                    u[i],
                                    LabUnit.ONE,
                                    Leaf.typeB(name + (i + 1), name, "data", Distribution.NORMAL)));
        }
        return out;
    }

    private static double @Nullable [] uncertainties(Map<String, double[]> byName, String column) {
        if (column == null) {
            return null;
        }
        double[] u = byName.get(column);
        if (u == null) {
            throw new IllegalArgumentException(
                    "There is no column " + column + "; there are: " + String.join(", ", byName.keySet()) + ".");
        }
        for (int i = 0; i < u.length; i++) {
            if (!(u[i] > 0)) {
                throw new IllegalArgumentException("Row " + (i + 1) + " of column " + column
                        + ": a standard uncertainty is above zero, not " + u[i] + ".");
            }
        }
        return u;
    }
}
