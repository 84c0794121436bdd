package eagerneedle.app.widget;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.DecimalSign;
import org.junit.jupiter.api.Test;

/** What a spreadsheet reads as numbers has its sign; the rest is copied as it stands. */
class CopiedTest {
    private static final String TABLE = "run\tlevel 1.5\ta, m/s^2\nRun 1.2\t0.25 kg\t-9.81\n3\t1.0E-5\t0.003\n1.5\t2.5";

    @Test
    void cellsThatAreNumbersHaveTheSignInUse() {
        assertThat(Copied.cells(TABLE, DecimalSign.POINT)).isEqualTo(TABLE);
        assertThat(Copied.cells(TABLE, DecimalSign.COMMA))
                .isEqualTo("run\tlevel 1.5\ta, m/s^2\nRun 1.2\t0.25 kg\t-9,81\n3\t1,0E-5\t0,003\n1,5\t2,5");
    }
}
