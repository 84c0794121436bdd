package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class DescentTest {
    @Test
    void everyQuantityOfEveryMethodStandsOnceAfterAllThatItFollowsFrom() {
        for (String id : SheetReader.shipped()) {
            Sheet sheet = SheetReader.read(SheetReader.shippedText(id), id).sheet();
            List<Descent.Item> items = Descent.of(sheet);
            Set<String> before = new HashSet<>();
            for (Descent.Item item : items) {
                assertThat(before).as(id + " " + item.name()).containsAll(item.from());
                assertThat(before.add(item.name())).isTrue();
            }
            assertThat(before).containsAll(sheet.results().keySet());
        }
    }

    @Test
    void aNameInsideACaptureIsItsOwnBeforeTheSheets() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("letter-scale"), "letter-scale")
                .sheet();
        var byName = Descent.of(sheet).stream().collect(Collectors.toMap(Descent.Item::name, i -> i));
        assertThat(byName.get("loads.eps").from()).containsExactlyInAnyOrder("strain", "ring", "x");
        assertThat(byName.get("loads.mass").from()).containsExactly("loads.m");
        assertThat(byName.get("loads.m").kind()).isEqualTo(Descent.Kind.GIVEN);
        assertThat(byName.get("m_u").from()).contains("up_line", "shown_u", "load_line");
        assertThat(byName.get("x").pointer()).isEqualTo("/inputs/x");
    }
}
