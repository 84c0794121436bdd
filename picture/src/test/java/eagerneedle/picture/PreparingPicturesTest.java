package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.ClosureReadings;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.SheetReader;
import java.util.List;
import org.junit.jupiter.api.Test;

class PreparingPicturesTest {
    private static int count(String svg, String what) {
        return svg.split(java.util.regex.Pattern.quote(what), -1).length - 1;
    }

    @Test
    void theTrimNeedleStandsUprightAtItsAimAndNeverLeavesTheScale() {
        assertThat(TrimNeedle.angle(0)).isZero();
        assertThat(TrimNeedle.angle(1)).isEqualTo(-TrimNeedle.angle(-1));
        double last = 0;
        for (double k = 0.1; k < 1e6; k *= 1.3) {
            assertThat(TrimNeedle.angle(k)).isGreaterThanOrEqualTo(last).isLessThanOrEqualTo(Math.toRadians(52));
            last = TrimNeedle.angle(k);
        }
        assertThat(TrimNeedle.angle(3)).as("even to three bands").isCloseTo(3 * TrimNeedle.angle(1), within(1e-12));
        SvgSurface s = new SvgSurface(400, 190, false, "t");
        TrimNeedle.paint(s, 501.2, 500, 0.5, "g", 400, 190);
        assertThat(s.document("x"))
                .contains(Ink.NEEDLE.web(false))
                .contains(Ink.BAND.web(false))
                .contains(">500<")
                .contains(">g<");
        SvgSurface none = new SvgSurface(400, 190, false, "t");
        TrimNeedle.paint(none, Double.NaN, 500, 0.5, "g", 400, 190);
        assertThat(none.document("x")).contains("no reading").doesNotContain(Ink.NEEDLE.web(false));
    }

    @Test
    void theTwoRailsLeanByWhatIsStatedBesideThem() {
        assertThat(TwoRails.magnification(0.001, 1)).isEqualTo(100);
        assertThat(TwoRails.magnification(0.3, 100)).isEqualTo(20);
        assertThat(TwoRails.magnification(50, 100))
                .as("never smaller than they are")
                .isEqualTo(1);
        assertThat(TwoRails.magnification(0, 100)).isEqualTo(1);
        SvgSurface s = new SvgSurface(420, 360, false, "r");
        TwoRails.paint(
                s,
                List.of(
                        new TwoRails.Strand("ice point", 0, 0.12, false, false),
                        new TwoRails.Strand("boiling point", 99.3, Double.NaN, false, true)),
                "fixed points",
                "°C",
                "K",
                420,
                360);
        String svg = s.document("x");
        assertThat(svg)
                .contains(">ice point<")
                .contains(">boiling point<")
                .contains(">+0.12 K<")
                .contains("lean drawn ×50")
                .contains(Ink.NEEDLE.web(false));
        assertThat(count(svg, Ink.TRACE1.web(false)))
                .as("one strand with its two pegs")
                .isGreaterThanOrEqualTo(3);
        SvgSurface empty = new SvgSurface(420, 360, false, "r");
        TwoRails.paint(empty, List.of(), "fixed points", "°C", "K", 420, 360);
        assertThat(empty.document("x")).contains("appears with the first point");
    }

    @Test
    void theRibbonTellsTransferStepAndReachOfEveryStage() {
        Channel c = SheetReader.read(SheetReader.shippedText("drying-cabinet"), "x")
                .sheet()
                .channels()
                .get("cabinet");
        Chain chain = c.toChain();
        SvgSurface s = new SvgSurface(700, 90, false, "r");
        double end = ChainPicture.ribbon(s, chain, 40, 0, 0, 700);
        assertThat(end).isLessThanOrEqualTo(706);
        assertThat(s.document("x"))
                .contains("type K pair, ice reference")
                .contains("× 200.00(40)")
                .contains("195.3 µV a step, 13 bit")
                .contains("step 0.024")
                .contains("u 0.");
        assertThat(ChainPicture.uncertainty(chain, 40))
                .isCloseTo(chain.known(40, "x").u(), within(1e-9));
        SvgSurface reach = new SvgSurface(700, 60, false, "q");
        ChainPicture.reach(reach, chain, new double[] {15, 200}, 40, 0, 10, 500);
        assertThat(reach.document("x"))
                .as("a need beyond the reach is framed in red")
                .contains(Ink.WINDOW.web(false))
                .contains(">needed<");
        SvgSurface good = new SvgSurface(700, 60, false, "q");
        ChainPicture.reach(good, chain, new double[] {15, 80}, Double.NaN, 0, 10, 500);
        assertThat(good.document("x")).contains(Ink.BAND.web(false)).doesNotContain(Ink.NEEDLE.web(false));
    }

    @Test
    void theTimeLineFillsWhatNeedsHands() {
        TimeLine t = TimeLine.of(List.of(
                new TimeLine.Task("a", "level the frame", 5, List.of(), true),
                new TimeLine.Task("b", "amplifier warms up", 20, List.of(), false)));
        SvgSurface s = new SvgSurface(600, TimeLinePicture.height(t), false, "t");
        TimeLinePicture.paint(s, t, 600);
        String svg = s.document("x");
        assertThat(svg)
                .contains("level the frame")
                .contains("amplifier warms up")
                .contains(">min<");
        assertThat(count(svg, "fill=\"" + Ink.PAPER.web(false) + "\""))
                .as("one bar is hollow")
                .isEqualTo(1);
        assertThat(count(svg, "<rect")).isEqualTo(2);
    }

    @Test
    void theClosureMapMarksTheNextCellAndOneThatStandsOut() {
        double[][] m = new double[4][4];
        for (int k = 0; k < 4; k++) {
            for (int i = 0; i < 4; i++) {
                m[k][i] = 0.01 * ((k * 7 + i * 3) % 5);
            }
        }
        m[2][1] = 9;
        ClosureReadings readings = new ClosureReadings("arcsec", "rezeroed", m);
        SvgSurface s = new SvgSurface(500, 500, false, "m");
        ClosureMap.paint(s, readings, readings.solve("x"), null, 500, 500);
        assertThat(s.document("x"))
                .contains("lower circle")
                .contains("upper circle")
                .contains("+9.00")
                .contains("closes to");
        m[3][3] = Double.NaN;
        SvgSurface next = new SvgSurface(500, 500, false, "m");
        ClosureMap.paint(next, new ClosureReadings("arcsec", "rezeroed", m), null, new int[] {3, 3}, 500, 500);
        assertThat(next.document("x"))
                .contains("not yet")
                .contains(Ink.NEEDLE.web(false))
                .doesNotContain("NaN");
    }
}
