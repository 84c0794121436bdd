package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonProperty;

/**
 * Something an instrument can set.
 *
 * @param lowest smallest value it may be set to, in {@code unit}
 * @param highest largest
 * @param ramp fastest change, in {@code unit} a second; 0 for none
 * @param dwellAbove value above which time is limited; null for none
 * @param dwell longest time above it, in s
 * @param safe value at which it is off
 * @param step smallest change it can be set by; 0 where that is not known
 * @param command how the instrument is told, {@code %s} for the value
 */
public record Output(
        String label,
        String unit,
        double lowest,
        double highest,
        double ramp,
        @JsonProperty("dwell_above") Double dwellAbove,
        double dwell,
        double safe,
        double step,
        String command) {}
