package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonCreator;

/**
 * Waiting until steady.
 *
 * @param seconds s over which steadiness is judged; 2 when not said
 * @param samples averaged into the row; 20 when not said
 * @param patience s after which it may be taken as it is; 120 when not said
 * @param settle s that are let pass in any case after something was set
 * @param rest s that outputs are at their safe value before each level, so that what is charged can discharge
 */
public record HoldPlan(double seconds, int samples, double patience, double settle, double rest) {
    public HoldPlan(double seconds, int samples, double patience) {
        this(seconds, samples, patience, 0, 0);
    }

    @JsonCreator
    public HoldPlan {
        seconds = seconds <= 0 ? 2 : seconds;
        samples = samples <= 0 ? 20 : samples;
        patience = patience <= 0 ? 120 : patience;
    }
}
