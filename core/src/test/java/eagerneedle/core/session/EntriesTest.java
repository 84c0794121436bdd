package eagerneedle.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import org.junit.jupiter.api.Test;

/** What people enter with a run: each act changes one thing, says so, and leaves the run before as it was. */
class EntriesTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private final Session before =
            Session.start("", "a day", DAY).withRun(Run.captured(1, "hang", "one", DAY, "logger", Run.COUNTS));

    private static Entries entries(Session s) {
        return s.run(1).orElseThrow().entries();
    }

    @Test
    void aReadingByEyeIsEnteredCheckedAndTakenBack() {
        Session read = new RunCommand.EnterByEye(1, "pointer", "pointer of the spring", "212.0(5) mm").apply(before);
        assertThat(entries(read).byEye()).containsEntry("pointer", "212.0(5) mm");
        assertThat(entries(before).byEye()).isEmpty();
        assertThat(entries(new RunCommand.EnterByEye(1, "pointer", "pointer of the spring", null).apply(read))
                        .byEye())
                .isEmpty();
        assertThatThrownBy(() ->
                        new RunCommand.EnterByEye(1, "pointer", "pointer of the spring", "about there").apply(before))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void samplesAreVoidedWithAReasonOnly() {
        Session voided = new RunCommand.VoidSamples(1, 2.5, 3.5, " knocked ").apply(before);
        Entries.Voided v = entries(voided).voided().get(0);
        assertThat(v.reason()).isEqualTo("knocked");
        assertThat(v.holds(2.5)).isTrue();
        assertThat(v.holds(3.5)).isTrue();
        assertThat(v.holds(3.6)).isFalse();
        assertThatThrownBy(() -> new RunCommand.VoidSamples(1, 2, 3, " ").apply(before))
                .hasMessageContaining("Say why");
        assertThatThrownBy(() -> new RunCommand.VoidSamples(1, 3, 2, "knocked").apply(before))
                .hasMessageContaining("ends before it begins");
    }

    @Test
    void aRunThatGoesOnRemembersWhenAndAPictureItsNumber() {
        Session s = new RunCommand.AttachPicture(1, new Entries.Picture(7, "set-up.png"))
                .apply(new RunCommand.ContinueRun(1, DAY.plusSeconds(90)).apply(before));
        assertThat(entries(s).resumed()).containsExactly(DAY.plusSeconds(90));
        assertThat(entries(s).pictures()).containsExactly(new Entries.Picture(7, "set-up.png"));
        assertThat(new RunCommand.ContinueRun(1, DAY).says()).isEqualTo("Continued run 1.");
    }

    @Test
    void aWatchIsExplainedAndTheExplanationTakenBack() {
        Session known = new RecordCommand.Explain("dead/1/", "It is dead.", "asleep on purpose").apply(before);
        assertThat(known.explained()).containsEntry("dead/1/", "asleep on purpose");
        assertThat(new RecordCommand.Explain("dead/1/", "It is dead.", null)
                        .apply(known)
                        .explained())
                .isEmpty();
    }
}
