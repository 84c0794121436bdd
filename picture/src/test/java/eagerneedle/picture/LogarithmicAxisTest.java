package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A logarithmic axis can be read, however many decades it has, or how small a part of one. */
class LogarithmicAxisTest {
    private static final Pattern TEXT = Pattern.compile("<text[^>]*text-anchor=\"end\"[^>]*>([^<]*)</text>");

    /** The numbers beside an upright axis of so many pixels. */
    private static List<String> numbers(double from, double to, double height) {
        double[] y = {Math.log10(from), Math.log10(to)};
        Plot plot = new Plot(
                "t",
                new Plot.Axis("time", "s"),
                new Plot.Axis("level", "V").logarithmically(),
                List.of(new Layer.Points("a", new double[] {0, 1}, y, null, false, 0)));
        SvgSurface s = new SvgSurface(400, height, false, "t");
        PlotPainter.paint(s, plot, new Plot.View(0, 1, y[0], y[1]), 0, 0, 400, height, false);
        return TEXT.matcher(s.document("t")).results().map(m -> m.group(1)).toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1; 100; 1 2 5 10 20 50 100",
                "0.01; 2000; 0.01 1 100",
                "2.5; 7; 3 4 5 6 7",
                "9.79; 9.83; 9.79 9.8 9.81 9.82 9.83",
                "1000; 1002; 1000 1000.5 1001 1001.5 1002",
                "0.31; 0.33; 0.31 0.315 0.32 0.325 0.33"
            })
    void everyTickSaysAValueOfItsOwn(double from, double to, String expected) {
        List<String> numbers = numbers(from, to, 200);
        assertThat(numbers).doesNotHaveDuplicates().hasSizeGreaterThanOrEqualTo(3);
        assertThat(String.join(" ", numbers)).isEqualTo(expected);
    }

    @Test
    void aLowPictureStillHasTwoNumbers() {
        assertThat(numbers(3, 8, 90)).hasSizeGreaterThanOrEqualTo(2).doesNotHaveDuplicates();
    }
}
