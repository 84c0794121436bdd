package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.chain.Link;
import eagerneedle.core.sheet.Channel;
import java.util.List;

/**
 * How a channel is set up at this bench, where that differs from the sheet. Null means as the sheet says.
 *
 * @param chain its links
 * @param rate samples a second
 * @param average conversions averaged into one sample
 * @param input the instrument's channel it is wired to
 * @param position where its sensor sits
 * @param specimen what its sensor sits on
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Setup(List<Link> chain, Double rate, Integer average, String input, String position, String specimen) {
    public static final Setup AS_SHEET = new Setup(null, null, null, null, null, null);

    public Setup withChain(List<Link> links) {
        return new Setup(links, rate, average, input, position, specimen);
    }

    public Setup withRate(double samplesASecond) {
        return new Setup(chain, samplesASecond, average, input, position, specimen);
    }

    public Setup withAverage(int conversions) {
        return new Setup(chain, rate, conversions, input, position, specimen);
    }

    public Setup wiredTo(String channel) {
        return new Setup(chain, rate, average, channel, position, specimen);
    }

    public Setup tagged(String newPosition, String newSpecimen) {
        return new Setup(chain, rate, average, input, newPosition, newSpecimen);
    }

    /** The channel as it is set up. */
    public Channel of(Channel channel) {
        return channel.with(chain, rate, average, input).tagged(position, specimen);
    }
}
