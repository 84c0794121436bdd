package eagerneedle.app.capture;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Cautions;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.session.Run;
import eagerneedle.picture.ColumnPlots;
import eagerneedle.picture.Plot;
import java.util.Optional;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * Rows that somebody reads, where nothing is recorded: the next one waits with its fields open; kept, it makes room for
 * the one after it.
 */
final class RowsByEye {
    private final CaptureModel model;
    private final RunVerdict verdict;
    private final Desk desk;
    private final PlotView picture = new PlotView("The rows so far");
    private String open = "";
    private String refused = "";

    /** @param verdict asks for what is read */
    RowsByEye(Desk desk, CaptureModel model, RunVerdict verdict) {
        this.desk = desk;
        this.model = model;
        this.verdict = verdict;
        picture.setId("rows-so-far");
        picture.setMinHeight(Theme.px(120));
        VBox.setVgrow(picture, Priority.ALWAYS);
        leave();
    }

    /** The rows so far over each other, so that one that does not belong is seen while it can be read again. */
    Region picture() {
        return picture;
    }

    /** Opens the fields of what is read next; those that are open stay, with what stands in them. */
    void show() {
        Run blank = model.blank();
        String of = blank.id() + " " + blank.capture() + " " + blank.level();
        if (!of.equals(open)) {
            open = of;
            Run before = verdict.run();
            boolean same = before != null
                    && before.id() == blank.id()
                    && before.capture().equals(blank.capture());
            verdict.show(
                    before != null && same ? before.at(blank.level()) : blank,
                    model.plan().orElseThrow());
        }
        Optional<Plot> plot = desk.bench().sheet().pictures().stream()
                .flatMap(p -> ColumnPlots.columns(desk.bench().reduction(), p).stream())
                .findFirst();
        plot.ifPresent(p -> picture.plot(p, false));
        Labels.shown(picture, plot.isPresent());
    }

    /** Something else is captured now. */
    void leave() {
        open = "";
        Labels.shown(picture, false);
    }

    /**
     * Keeps a row; what a rule of the sheet would not keep is asked about once. True when it was kept.
     *
     * @throws IllegalArgumentException with one sentence while cautions are pending
     */
    boolean keep(Run decided) {
        new Cautions(desk.bench()).require();
        String why = model.refusal(decided);
        if (!why.isEmpty() && !refused.equals(why)) {
            refused = why;
            verdict.refuse(why);
            return false;
        }
        refused = "";
        open = "";
        model.keep(decided);
        return true;
    }
}
