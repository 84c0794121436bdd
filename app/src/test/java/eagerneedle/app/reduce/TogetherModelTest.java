package eagerneedle.app.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class TogetherModelTest {
    private final SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("baggage-chute"), "chute");
    private final Rehearsal rehearsal = Rehearsal.of(sheet, Rigs.shipped("baggage-chute", 7, Set.of()), Instant.EPOCH);
    private final Reducer reducer = new Reducer(
            sheet,
            (run, channel) -> rehearsal.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));

    private Reduction reduce(Command... acts) {
        Session s = rehearsal.session();
        for (Command c : acts) {
            s = c.apply(s);
        }
        return reducer.reduce(s);
    }

    @Test
    void runsOfALevelGiveTheirMeanAndSayWhetherTheyScatterMore() {
        Reduction r = reduce();
        List<TogetherModel.Together> all = TogetherModel.together(r, "slopes");
        assertThat(all)
                .extracting(TogetherModel.Together::level)
                .containsExactly("block A", "block B", "block C", "block D", "block E");
        double[] ofA = r.runs().stream()
                .filter(x -> x.capture().equals("slopes") && x.level().equals("A"))
                .mapToDouble(x -> r.ofRun(x, "a").quantity().orElseThrow().value())
                .toArray();
        double mean = Double.parseDouble(all.get(0).mean().replaceAll("\\(.*", ""));
        assertThat(mean).isCloseTo(java.util.Arrays.stream(ofA).average().orElseThrow(), within(6e-4));
        assertThat(all.get(0).says())
                .startsWith("4 runs, scattering more than each says of itself")
                .contains("Birge ratio");
    }

    @Test
    void aRunThatIsLeftOutCountsNoMoreAndOneAloneIsNotTakenTogether() {
        Reduction three = reduce(new RunCommand.LeaveOut(9, "x"));
        assertThat(TogetherModel.together(three, "slopes").get(0).says()).startsWith("3 runs");
        Reduction one = reduce(
                new RunCommand.LeaveOut(9, "x"), new RunCommand.LeaveOut(10, "x"), new RunCommand.LeaveOut(11, "x"));
        assertThat(TogetherModel.together(one, "slopes"))
                .extracting(TogetherModel.Together::level)
                .doesNotContain("block A")
                .contains("block B");
        assertThat(TogetherModel.together(one, "nothing of the kind")).isEmpty();
    }
}
