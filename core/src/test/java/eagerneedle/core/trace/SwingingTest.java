package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.LabUnit;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What swings is not steady, though its slope over a window is nothing; noise, even correlated, does not swing. */
class SwingingTest {
    private static final double STEP = 0.01;

    @ParameterizedTest
    @CsvSource({
        // amplitude, Hz, correlation from sample to sample, swings
        "0, 2, 0, false",
        "-40, 2, 0, true",
        "0, 2, 0.9, false",
        "40, 2, 0, true",
        "2, 2, 0, true",
        "0.2, 2, 0, false",
        "40, 0.8, 0, true",
        "0.015, 2, 0, false"
    })
    void aSwingIsToldFromNoise(double amplitude, double hertz, double correlation, boolean swings) {
        int told = 0;
        for (int seed = 0; seed < 200; seed++) {
            Random random = new Random(seed);
            double[] t = new double[300];
            double[] v = new double[t.length];
            double noise = 0;
            for (int i = 0; i < t.length; i++) {
                t[i] = i / 200.0;
                noise = correlation * noise + Math.sqrt(1 - correlation * correlation) * 0.1 * random.nextGaussian();
                // A negative one began with a jump, when the load was hung on.
                v[i] = amplitude < 0 && i < 20
                        ? 100
                        : 400 + amplitude * Math.sin(2 * Math.PI * hertz * t[i] + seed) + noise;
            }
            Trace trace = new Trace("load", t, v, LabUnit.parse("g"), STEP, List.of());
            told += Steadiness.swings(trace) ? 1 : 0;
        }
        assertThat(told).isEqualTo(swings ? 200 : 0);
    }
}
