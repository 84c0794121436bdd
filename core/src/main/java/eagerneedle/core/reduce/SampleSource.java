package eagerneedle.core.reduce;

import eagerneedle.core.trace.RawSamples;

/** Where raw samples are kept. Reading the same run and channel twice gives the same samples. */
@FunctionalInterface
public interface SampleSource {
    /** Raw samples of a channel in a run; {@link RawSamples#NONE} if there are none. */
    RawSamples samples(int run, String channel);

    /** How many there are; a store that knows it without reading them says so. */
    default long count(int run, String channel) {
        return samples(run, channel).size();
    }
}
