package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class OnPointTest {
    @Test
    void pointsStandUnderEachOtherAndAllEndAtTheSamePlace() {
        List<String> out = OnPoint.of(List.of("12.345(6)", "−3.1", "+407", "—", "0.00212(3)"));
        assertThat(out).containsExactly("  12.345(6)  ", "  −3.1       ", "+407         ", "—", "   0.00212(3)");
    }

    @Test
    void nothingComesOfNothing() {
        assertThat(OnPoint.of(List.of())).isEmpty();
        assertThat(OnPoint.point("no number")).isEqualTo(-1);
    }
}
