package eagerneedle.app.reduce;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.reduce.WaysModel.Way;
import eagerneedle.core.quantity.Notation;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What may be reckoned in several ways, without a window. */
class WaysModelTest {
    @TempDir
    Path folder;

    private static String load(PlainDesk desk) {
        return Notation.bracket(desk.bench().reduction().quantity("P").orElseThrow());
    }

    @Test
    void whatEachWayWouldGiveIsWhatItGivesOnceTaken() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "signpost-arm")) {
            WaysModel model = new WaysModel(desk);
            assertThat(model.hasWays()).isTrue();
            assertThat(model.choices().get(0).usual()).startsWith("The sheet takes bending and torsion together: ");
            List<Way> ways = model.choices().get(0).ways();
            assertThat(ways).extracting(Way::taken).containsExactly(true, false, false);
            String usual = load(desk);
            for (Way way : ways) {
                model.take(way);
                assertThat(way.gives()).contains(load(desk));
                assertThat(model.choices().get(0).ways())
                        .filteredOn(Way::taken)
                        .extracting(Way::name)
                        .containsExactly(way.name());
            }
            assertThat(load(desk)).isNotEqualTo(usual);
            model.take(ways.get(0));
            assertThat(desk.bench().session().picked())
                    .as("the usual way is no departure")
                    .isEmpty();
            assertThat(load(desk)).isEqualTo(usual);
        }
        try (PlainDesk desk = PlainDesk.fresh(folder, "drying-cabinet")) {
            assertThat(new WaysModel(desk).hasWays()).isFalse();
        }
    }
}
