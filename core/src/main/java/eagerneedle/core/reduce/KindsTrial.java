package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Picture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What is compared and drawn is of the kind that it must be: units that fit, axes that hold them, fits that are fits.
 */
public final class KindsTrial {
    private final SheetReader.Located located;
    private final Reduction reduction;
    private final List<SheetException> found = new ArrayList<>();

    private KindsTrial(SheetReader.Located located, Reduction reduction) {
        this.located = located;
        this.reduction = reduction;
    }

    /**
     * Everything of the wrong kind.
     *
     * @param reduction of a plan, or of a rehearsal; what has no value in it is not tried
     */
    public static List<SheetException> of(SheetReader.Located located, Reduction reduction) {
        KindsTrial trial = new KindsTrial(located, reduction);
        for (int i = 0; i < located.sheet().comparisons().size(); i++) {
            trial.comparison(i, located.sheet().comparisons().get(i));
        }
        for (int i = 0; i < located.sheet().pictures().size(); i++) {
            trial.picture(i, located.sheet().pictures().get(i));
        }
        return List.copyOf(trial.found);
    }

    private void comparison(int i, Sheet.Comparison c) {
        Optional<Quantity> result = reduction.quantity(c.result());
        Optional<Quantity> reference = Comparisons.reference(reduction, c);
        if (result.isPresent()
                && reference.isPresent()
                && !result.get().unit().fits(reference.get().unit())) {
            found.add(located.problem(
                    "/comparisons/" + i + "/reference",
                    1,
                    c.result() + " in " + result.get().unit().named() + " cannot be compared with " + c.reference()
                            + " in " + reference.get().unit().named() + "."));
        }
    }

    private void picture(int at, Picture p) {
        for (Picture.Line line : p.lines()) {
            axis("/pictures/" + at, line.x(), "x_unit", p.xUnit());
            axis("/pictures/" + at, line.y(), "y_unit", p.yUnit());
            fit(at, line.fit());
        }
        p.layers().forEach(l -> fit(at, l.fit()));
    }

    private void axis(String pointer, String drawn, String entry, @Nullable String unit) {
        List<Quantity> rows = reduction.column(drawn);
        if (unit != null && !rows.isEmpty() && !rows.get(0).unit().fits(LabUnit.parse(unit))) {
            found.add(located.problem(
                    pointer + "/" + entry,
                    1,
                    drawn + " in " + rows.get(0).unit().named() + " cannot be drawn in "
                            + LabUnit.parse(unit).named() + "."));
        }
    }

    private void fit(int at, @Nullable String name) {
        Outcome fit = name == null ? null : reduction.outcome(name);
        if (fit != null && fit.problem() == null && !(fit.value() instanceof Value.Fitted)) {
            found.add(located.problem(
                    "/pictures/" + at,
                    1,
                    name + " is drawn as a fit, but is " + fit.there().described() + "."));
        }
    }
}
