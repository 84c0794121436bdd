package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.chain.Link;
import eagerneedle.core.sheet.Channel;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How a channel is set up at this bench, where that differs from the sheet. Null means as the sheet says.
 *
 * @param chain its links
 * @param rate samples a second
 * @param average conversions averaged into one sample
 * @param input the instrument's channel it is wired to
 * @param position where its sensor sits
 * @param specimen what its sensor sits on
 * @param rounds how many times the points of its calibration are gone through
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Setup(
        @Nullable List<Link> chain,
        @Nullable Double rate,
        @Nullable Integer average,
        @Nullable String input,
        @Nullable String position,
        @Nullable String specimen,
        @Nullable Integer rounds) {
    public static final Setup AS_SHEET = new Setup(null, null, null, null, null, null, null);

    public Setup withChain(@Nullable List<Link> links) {
        return new Setup(links, rate, average, input, position, specimen, rounds);
    }

    public Setup withRate(double samplesASecond) {
        return new Setup(chain, samplesASecond, average, input, position, specimen, rounds);
    }

    public Setup withAverage(int conversions) {
        return new Setup(chain, rate, conversions, input, position, specimen, rounds);
    }

    public Setup wiredTo(String channel) {
        return new Setup(chain, rate, average, channel, position, specimen, rounds);
    }

    public Setup tagged(@Nullable String newPosition, @Nullable String newSpecimen) {
        return new Setup(chain, rate, average, input, newPosition, newSpecimen, rounds);
    }

    public Setup withRounds(int times) {
        return new Setup(chain, rate, average, input, position, specimen, times);
    }

    /** The channel as it is set up. */
    public Channel of(Channel channel) {
        Channel c = channel.with(chain, rate, average, input).tagged(position, specimen);
        return rounds == null ? c : c.calibratedIn(rounds);
    }
}
