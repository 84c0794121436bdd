package eagerneedle.core.reading;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.OnPicture.Point;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Line2D;
import java.awt.image.BufferedImage;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Lengths and angles picked on pictures: by hand, and on pictures that are drawn and looked at again. */
class OnPictureTest {
    private static final Quantity SCALE = Quantity.exact(300, LabUnit.parse("mm"));

    @Test
    void aLengthIsARatioTimesTheScale() {
        Quantity q = new OnPicture("1", 1, 0)
                .length(
                        new Point(100, 50),
                        new Point(512, 50),
                        new Point(100, 400),
                        new Point(1340, 400),
                        SCALE,
                        "l",
                        "l");
        double u = Math.sqrt(2.0 / 3);
        assertThat(q.value()).isCloseTo(300 * 412 / 1240.0, within(1e-9));
        assertThat(q.u()).isCloseTo(q.value() * Math.hypot(u / 412, u / 1240), within(1e-9));
        Quantity slanted = new OnPicture("1", 1, 0.005)
                .length(new Point(0, 0), new Point(300, 400), new Point(0, 0), new Point(0, 1000), SCALE, "l", "l");
        assertThat(slanted.value()).isCloseTo(150, within(1e-9));
        assertThat(slanted.u())
                .isCloseTo(150 * Math.hypot(Math.hypot(u / 500, u / 1000), 0.005 / Math.sqrt(3)), within(1e-9));
    }

    /** What the scale was picked wrong by is the same for two lengths on one picture, and no other. */
    @Test
    void lengthsOnOnePictureShareItsScale() {
        String from = "picked_length(0, 0, 0, 500, 10, 10, 1010, 10, 300 mm, pick: 2, parallax: 0 %, picture: ";
        Quantity a = Written.quantity(from + "1)", "a", "a", "a");
        Quantity b = Written.quantity(from.replace("0, 500,", "0, 400,") + "1)", "b", "b", "b");
        Quantity c = Written.quantity(from.replace("0, 500,", "0, 400,") + "2)", "c", "c", "c");
        double scale = 2 * Math.sqrt(2.0 / 3) / 1000;
        assertThat(a.covariance(b)).isCloseTo(150 * 120 * scale * scale, within(1e-9));
        assertThat(a.covariance(c)).isZero();
    }

    @Test
    void anAngleIsTurnedByEachOfItsPoints() {
        OnPicture p = new OnPicture("1", 1, 0);
        Quantity q = p.angle(new Point(100, 100), new Point(500, 100), new Point(100, 400), "w", "w");
        double u = 1 / Math.sqrt(3);
        assertThat(q.value()).isCloseTo(90, within(1e-9));
        assertThat(q.u())
                .isCloseTo(
                        Math.toDegrees(
                                Math.sqrt(u * u / 160000 + u * u / 90000 + u * u * 250000 / (160000.0 * 90000.0))),
                        within(1e-9));
        assertThat(p.angle(new Point(0, 0), new Point(-5, 0), new Point(9, 0), "w", "w")
                        .value())
                .isCloseTo(180, within(1e-9));
    }

    /** A line on a picture, found again by its ink: the ends of the stretch that is dark. */
    private static Point[] found(BufferedImage picture, Color ink, Point near, Point far) {
        double length = Math.hypot(far.x() - near.x(), far.y() - near.y());
        double dx = (far.x() - near.x()) / length;
        double dy = (far.y() - near.y()) / length;
        double first = Double.NaN;
        double last = Double.NaN;
        for (double s = -6; s <= length + 6; s += 0.25) {
            int x = (int) Math.floor(near.x() + s * dx);
            int y = (int) Math.floor(near.y() + s * dy);
            if (x >= 0
                    && y >= 0
                    && x < picture.getWidth()
                    && y < picture.getHeight()
                    && picture.getRGB(x, y) == ink.getRGB()) {
                first = Double.isNaN(first) ? s : first;
                last = s;
            }
        }
        return new Point[] {
            new Point(near.x() + first * dx, near.y() + first * dy),
            new Point(near.x() + last * dx, near.y() + last * dy)
        };
    }

    /** A hand that picks: within its largest error in each coordinate. */
    private static Point picked(Point p, double pick, Random random) {
        return new Point(p.x() + pick * (2 * random.nextDouble() - 1), p.y() + pick * (2 * random.nextDouble() - 1));
    }

    private static void line(Graphics2D g, Color ink, Point a, Point b) {
        g.setColor(ink);
        g.draw(new Line2D.Double(a.x(), a.y(), b.x(), b.y()));
    }

    /** A hundred drawn pictures, each with a scale, a bar and two arms; picked with an error of up to 2 points. */
    @Test
    void knownLengthsAndAnglesAreRecovered() {
        Random random = new Random(11);
        double pick = 2;
        int lengths = 0;
        int angles = 0;
        for (int i = 0; i < 100; i++) {
            BufferedImage picture = new BufferedImage(1200, 800, BufferedImage.TYPE_INT_RGB);
            Graphics2D g = picture.createGraphics();
            g.setColor(Color.WHITE);
            g.fillRect(0, 0, 1200, 800);
            g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_OFF);
            g.setStroke(new BasicStroke(3, BasicStroke.CAP_BUTT, BasicStroke.JOIN_MITER));
            double perMm = 2 + 1.5 * random.nextDouble();
            Point s1 = new Point(60, 740 - 100 * random.nextDouble());
            Point s2 = new Point(60 + 300 * perMm, s1.y() + 20 * random.nextGaussian());
            double mm = Math.hypot(s2.x() - s1.x(), s2.y() - s1.y()) / perMm;
            Point a = new Point(150 + 300 * random.nextDouble(), 100 + 200 * random.nextDouble());
            double true1 = 60 + 80 * random.nextDouble();
            double turn = Math.PI * random.nextDouble() / 3;
            Point b = new Point(a.x() + true1 * perMm * Math.cos(turn), a.y() + true1 * perMm * Math.sin(turn));
            double wide = Math.toRadians(20 + 100 * random.nextDouble());
            Point d = new Point(900, 200);
            Point c = new Point(d.x() + 200 * Math.cos(turn + wide), d.y() + 200 * Math.sin(turn + wide));
            Point e = new Point(d.x() + 150 * Math.cos(turn), d.y() + 150 * Math.sin(turn));
            line(g, Color.BLACK, s1, s2);
            line(g, Color.RED, a, b);
            line(g, Color.BLUE, d, c);
            line(g, Color.GREEN, d, e);
            g.dispose();
            Point[] scale = found(picture, Color.BLACK, s1, s2);
            Point[] bar = found(picture, Color.RED, a, b);
            // Where it is drawn and where its ink begins differ by a point at most; it is picked worse than that.
            OnPicture on = new OnPicture(Integer.toString(i), pick, 0);
            Quantity length = on.length(
                    picked(bar[0], pick, random),
                    picked(bar[1], pick, random),
                    picked(scale[0], pick, random),
                    picked(scale[1], pick, random),
                    Quantity.exact(mm, LabUnit.parse("mm")),
                    "l",
                    "l");
            lengths += Math.abs(length.value() - true1) <= 1.96 * length.u() ? 1 : 0;
            Quantity angle = on.angle(
                    picked(d, pick, random),
                    picked(found(picture, Color.GREEN, d, e)[1], pick, random),
                    picked(found(picture, Color.BLUE, d, c)[1], pick, random),
                    "w",
                    "w");
            angles += Math.abs(angle.value() - Math.toDegrees(wide)) <= 1.96 * angle.u() ? 1 : 0;
        }
        assertThat(lengths).isBetween(88, 100);
        assertThat(angles).isBetween(88, 100);
    }
}
