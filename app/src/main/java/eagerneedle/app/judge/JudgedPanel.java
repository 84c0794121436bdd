package eagerneedle.app.judge;

import eagerneedle.app.judge.JudgeModel.Shown;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Notation;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.Surface;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;

/** One result against its reference: the needle, the verdict in words, the budget, what makes one doubt. */
final class JudgedPanel extends VBox {
    private final Label question = Labels.wrapped("");
    private final Label locked = Labels.wrapped("");
    private final PictureView needle = new PictureView("", null);
    private final Label verdict = Labels.wrapped("");
    private final Label chance = Labels.wrapped("");
    private final Label remedy = Labels.attention("");
    private final SharesPanel shares;
    private final VBox remarkBox = new VBox(6);
    private final Rows<String> remarks = new Rows<>(remarkBox, Labels::attention);
    private final DrawsCard draws = new DrawsCard();

    JudgedPanel(SharesPanel shares) {
        super(10);
        this.shares = shares;
        question.getStyleClass().add("heading");
        locked.setId("locked");
        needle.setMinHeight(Theme.px(258));
        needle.setPrefHeight(Theme.px(258));
        needle.setId("needle");
        verdict.setId("verdict");
        verdict.getStyleClass().add("section");
        verdict.setMaxWidth(Double.MAX_VALUE);
        chance.getStyleClass().add("quiet");
        chance.setMaxWidth(Double.MAX_VALUE);
        remedy.setId("remedy");
    }

    void show(Shown.Judged j) {
        // While references are hidden the shares stand elsewhere.
        if (!getChildren().contains(shares)) {
            getChildren().setAll(question, locked, needle, verdict, chance, remedy, shares, remarkBox, draws);
        }
        Comparison c = j.comparison();
        question.setText(c.label());
        Labels.says(locked, j.locked().map(JudgeModel.Remark::words).orElse(""));
        boolean same = j.locked().map(JudgeModel.Remark::good).orElse(true);
        Labels.styled(locked, "good", same);
        Labels.styled(locked, "attention", !same);
        needle.setAccessibleText(
                c.label() + ": " + Notation.plain(c.normalised(), 2) + " combined standard uncertainties");
        needle.show((s, w, h) -> paint(s, w, h, c, j.speaks()));
        verdict.setText(j.verdict());
        Labels.says(chance, j.chance());
        Labels.says(remedy, j.remedy());
        shares.show(j.shares());
        remarks.showOrHide(j.remarks());
        draws.of(c.result(), c.coverage());
    }

    private static void paint(Surface s, double w, double h, Comparison c, School speaks) {
        double wide = Math.min(w, 470);
        NeedlePicture.paint(
                s, c, speaks == School.PERCENT ? School.STANDARD : speaks, (w - wide) / 2, 0, wide, h - 44, false);
        String value = (c.normalised() < 0 ? "−" : "+") + Notation.sentence("%.2f", Math.abs(c.normalised()));
        s.text(value, w / 2, h - 24, Surface.Align.CENTRE, Lettering.heading(16), Ink.INK);
        s.text("combined standard uncertainties", w / 2, h - 7, Surface.Align.CENTRE, Lettering.text(11.5), Ink.QUIET);
    }
}
