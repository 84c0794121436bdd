package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.sheet.SheetReader;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

/**
 * Whole classes of hand-ins are marked: made rightly, by other ways and windows, by each mistake, by two, by slips, and
 * out of the air. With {@code -DeveryMethod=true} of all methods, and the table is printed.
 */
class MarkingTest {
    private static final List<String> SOME = List.of("letter-scale", "potters-wheel", "rain-spillway", "signpost-arm");

    @Test
    void whatIsRightIsRightWhatIsWrongIsNamedAndWhatNothingExplainsIsLeftSo() {
        Map<String, Map<Integer, MarkingRehearsal.Count>> sum = new TreeMap<>();
        for (String method : Boolean.getBoolean("everyMethod") ? SheetReader.shipped() : SOME) {
            MarkingRehearsal r = new MarkingRehearsal(method, 11);
            for (int digits = 2; digits <= 4; digits++) {
                r.all(digits);
                r.chains(digits);
            }
            r.counts.forEach((kind, by) -> by.forEach((digits, c) -> sum.computeIfAbsent(kind, k -> new TreeMap<>())
                    .computeIfAbsent(digits, d -> new MarkingRehearsal.Count())
                    .add(c)));
        }
        if (Boolean.getBoolean("everyMethod")) {
            sum.forEach((kind, by) -> System.out.println(kind + " " + by));
        }
        for (String right : List.of("correct", "other way", "other windows")) {
            sum.get(right)
                    .forEach((digits, c) -> sum.computeIfAbsent("right work", k -> new TreeMap<>())
                            .computeIfAbsent(digits, d -> new MarkingRehearsal.Count())
                            .add(c));
        }
        for (int digits = 2; digits <= 4; digits++) {
            atLeast(sum, "right work", digits, 0.995);
        }
        atLeast(sum, "single mistake", 3, 0.85);
        atLeast(sum, "single mistake", 4, 0.95);
        atLeast(sum, "two mistakes", 4, 0.95);
        atLeast(sum, "general slip", 4, 0.95);
        atLeast(sum, "slip of the sheet", 4, 0.95);
        atLeast(sum, "row left out", 4, 0.8);
        atLeast(sum, "another's data", 4, 0.95);
        atLeast(sum, "unknown", 3, 0.85);
        atLeast(sum, "unknown", 4, 0.95);
        atLeast(sum, "chain of two", 3, 1);
        atLeast(sum, "chain of two", 4, 1);
    }

    private static void atLeast(
            Map<String, Map<Integer, MarkingRehearsal.Count>> sum, String kind, int digits, double share) {
        MarkingRehearsal.Count c = sum.get(kind).get(digits);
        assertThat(c.of).as(kind).isGreaterThan(4);
        assertThat(c.share()).as(kind + ", " + digits + " digits: " + c.bad).isGreaterThanOrEqualTo(share);
    }
}
