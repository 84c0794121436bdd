package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Touch to identify: which input answers when a place is touched, and whether its tag says so. An input answers when it
 * moves by far more than it scattered before, and by far more than any other.
 */
final class TouchModel {
    private static final double QUIET_SECONDS = 2;
    private static final double ANSWER_SECONDS = 0.5;
    private static final int FEWEST = 5;
    private static final double ENOUGH = 12;
    private static final double STANDS_OUT = 3;
    private static final double LONGEST = 20;

    /** How well it stands with what is said. */
    enum Mood {
        PLAIN,
        GOOD,
        ATTENTION
    }

    /** What is said; {@code offer} is what may be done about it, empty for nothing. */
    record Said(String words, Mood mood, String offer) {}

    private record Quiet(double mean, double scatter) {}

    private final Desk desk;
    private final Map<String, Quiet> before = new LinkedHashMap<>();
    private @Nullable String touched;
    private @Nullable String answered;
    private double since;
    private Said said = new Said(
            "Choose a place, then warm its probe or press its gauge: the input that answers is compared with its tag.",
            Mood.PLAIN,
            "");

    TouchModel(Desk desk) {
        this.desk = desk;
    }

    Said said() {
        return said;
    }

    /** Channels whose places can be touched. */
    List<String> places() {
        return List.copyOf(desk.bench().sheet().channels().keySet());
    }

    private Channel channel(String name) {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    /** Where a channel sits. */
    String label(String name) {
        Channel c = channel(name);
        return c.position() == null ? c.label() : c.position();
    }

    /**
     * Somebody touches a place now.
     *
     * @param now s on any clock that goes on
     * @throws IllegalArgumentException with one sentence when it cannot be looked for
     */
    void begin(String place, double now) {
        LiveRig rig =
                desk.rig().orElseThrow(() -> new IllegalArgumentException("Connect the instrument first; then touch."));
        before.clear();
        for (String input : rig.channels()) {
            RawSamples raw = rig.lastOfInput(input, QUIET_SECONDS);
            if (raw.size() < FEWEST) {
                throw new IllegalArgumentException("There are too few samples yet; wait two seconds, then touch.");
            }
            before.put(input, quiet(raw));
        }
        touched = place;
        answered = null;
        since = now;
        said = new Said("Waiting for an answer to the touch at " + label(place) + " ...", Mood.PLAIN, "");
        try {
            rig.arrange(Map.of("touch", label(place)));
        } catch (IOException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
    }

    private static Quiet quiet(RawSamples raw) {
        double mean = Arrays.stream(raw.values()).average().orElse(0);
        double ss =
                Arrays.stream(raw.values()).map(v -> (v - mean) * (v - mean)).sum();
        return new Quiet(mean, Math.max(0.5, Math.sqrt(ss / Math.max(1, raw.size() - 1))));
    }

    /** Looks whether an input has answered. @param now s, on the clock of {@link #begin} */
    void look(LiveRig rig, double now) {
        if (touched == null || answered != null) {
            return;
        }
        String furthest = null;
        double most = 0;
        double second = 0;
        for (Map.Entry<String, Quiet> e : before.entrySet()) {
            RawSamples raw = rig.lastOfInput(e.getKey(), ANSWER_SECONDS);
            if (raw.size() > 0) {
                double moved = Math.abs(quiet(raw).mean() - e.getValue().mean())
                        / e.getValue().scatter();
                second = Math.max(second, Math.min(most, moved));
                if (moved > most) {
                    most = moved;
                    furthest = e.getKey();
                }
            }
        }
        if (furthest != null && most > ENOUGH && most > STANDS_OUT * second) {
            found(furthest);
        } else if (now - since > LONGEST) {
            touched = null;
            said = new Said(
                    "No input stood out within 20 s. Touch longer, or look whether the probe is plugged in at all.",
                    Mood.PLAIN,
                    "");
        }
    }

    private void found(String input) {
        if (touched == null) {
            return;
        }
        String place = touched;
        String expected = channel(place).inputOr(place);
        if (input.equals(expected)) {
            said = new Said("● Input " + input + " answered: the tag at " + label(place) + " is right.", Mood.GOOD, "");
            touched = null;
            return;
        }
        answered = input;
        Optional<String> holder = holder(input);
        said = new Said(
                "▲ Input " + input + " answered to the touch at " + label(place) + ", but the tag says " + expected
                        + "."
                        + holder.map(h -> " The leads of " + label(place) + " and " + label(h) + " are exchanged.")
                                .orElse(""),
                Mood.ATTENTION,
                holder.isPresent() ? "Exchange the tags" : "Tag it so");
    }

    /** The channel that an input belongs to by its tag. */
    private Optional<String> holder(String input) {
        return places().stream()
                .filter(n -> channel(n).inputOr(n).equals(input))
                .findFirst();
    }

    /** Tags the place with the input that answered, as one act; whoever had that input takes the other one. */
    void accept() {
        if (answered == null || touched == null) {
            return;
        }
        String place = touched;
        String old = channel(place).inputOr(place);
        Optional<String> holder = holder(answered);
        List<Command> acts = new ArrayList<>();
        holder.ifPresent(h -> acts.add(tag(h, old)));
        acts.add(tag(place, answered));
        String did = "Tagged: " + label(place) + " is input " + answered
                + holder.map(h -> ", " + label(h) + " is input " + old).orElse("") + ".";
        desk.bench().apply(new Command.Together(did, acts));
        said = new Said("● " + did, Mood.GOOD, "");
        touched = null;
        answered = null;
    }

    private Command tag(String channel, String input) {
        return new RigCommand.SetUp(
                channel,
                desk.bench().session().setup(channel).wiredTo(input),
                "Tagged " + channel(channel).label() + " as input " + input + ".");
    }
}
