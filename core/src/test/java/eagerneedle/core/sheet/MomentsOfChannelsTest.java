package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Which moments belong to which channel, and what a name with a dot is part of. */
class MomentsOfChannelsTest {
    private static Capture capture(String sheet, String capture) {
        return SheetReader.read(SheetReader.shippedText(sheet), sheet + ".yaml")
                .sheet()
                .captures()
                .get(capture);
    }

    @Test
    void windowsOfOneChannelFollowItsOwnMoments() {
        Capture cool = capture("cooling-alloys", "cool");
        assertThat(cool.moments("T.t3")).containsExactlyInAnyOrder("ends.t3", "dips.t3");
        assertThat(cool.moments()).hasSize(12);
        assertThat(capture("colliding-wagons", "meet").moments("nothing"))
                .as("of a channel without windows all are told")
                .isEqualTo(capture("colliding-wagons", "meet").moments());
    }

    @Test
    void aPartOfAFitRestsOnWhatTheFitRestsOn() {
        Capture cool = capture("flask-jackets", "cool");
        assertThat(cool.whole("cooling.foam.q")).isEqualTo("cooling.foam");
        assertThat(cool.whole("cooling.foam")).isEqualTo("cooling.foam");
        assertThat(cool.whole("T.foam")).isEqualTo("T.foam");
        assertThat(cool.restsOnSamples("k.foam")).isTrue();
        assertThat(cool.headline()).isEqualTo("k.bare");
    }

    /** Forty-five levels of two sets: their places in the text do not double with each. */
    @Test
    void manyLevelsAreRead() {
        Capture pull = capture("warmed-cord", "pull");
        assertThat(pull.levels()).hasSize(45);
        assertThat(pull.levels().get("s3.c50").at())
                .containsEntry("stretch", "s3")
                .containsEntry("step", "c50");
    }
}
