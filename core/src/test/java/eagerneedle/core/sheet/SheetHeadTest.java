package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** The head of every method says what its whole sheet says. */
class SheetHeadTest {
    @Test
    void theHeadIsThatOfTheSheet() {
        for (String id : SheetReader.shipped()) {
            Sheet sheet = SheetReader.read(SheetReader.shippedText(id), id).sheet();
            SheetHead head = SheetHead.shipped(id);
            assertThat(head.id()).isEqualTo(sheet.id());
            assertThat(head.title()).isEqualTo(sheet.title());
            assertThat(head.subject()).isEqualTo(sheet.subject());
            assertThat(head.question()).isEqualTo(sheet.question().strip());
        }
    }
}
