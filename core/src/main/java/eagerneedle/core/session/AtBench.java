package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Who works where.
 *
 * @param operator who is at the bench; empty where nobody said
 * @param bench what the bench is called; empty where it has no instruments of its own
 * @param serials what stands at this bench in place of each serial that the sheet names
 * @param agreed the member of staff who agreed to a step or took the cautions over, by what was signed
 * @param earlier benches at which it was before, in order
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record AtBench(
        String operator, String bench, Map<String, String> serials, Map<String, String> agreed, List<Stay> earlier) {
    /** A bench at which the session was, with what stood there, until a moment. */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Stay(Instant until, String bench, Map<String, String> serials) {}

    public static final AtBench NOBODY = new AtBench("", "", Map.of(), Map.of(), List.of());
    private static final Pattern SERIAL = Pattern.compile("[A-Za-z0-9._-]+");

    public AtBench {
        operator = operator == null ? "" : operator;
        bench = bench == null ? "" : bench;
        serials = serials == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(serials));
        agreed = agreed == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(agreed));
        earlier = earlier == null ? List.of() : List.copyOf(earlier);
    }

    AtBench by(String who) {
        return new AtBench(who, bench, serials, agreed, earlier);
    }

    AtBench at(String newBench, Map<String, String> newSerials, Instant now) {
        List<Stay> before = new ArrayList<>(earlier);
        before.add(new Stay(now, bench, serials));
        return new AtBench(operator, newBench, newSerials, agreed, before);
    }

    /** With who agreed to something; without it when nobody did. */
    AtBench agreed(String step, @Nullable String who) {
        Map<String, String> more = new LinkedHashMap<>(agreed);
        if (who == null || who.isBlank()) {
            more.remove(step);
        } else {
            more.put(step, who);
        }
        return new AtBench(operator, bench, serials, more, earlier);
    }

    /** Words of the sheet with the serials of this bench in place of the sheet's. */
    public String named(String words) {
        return named(words, serials);
    }

    /** The same with those of the bench at which the session was at a moment; null for now. */
    public String named(String words, @Nullable Instant then) {
        return named(
                words,
                then == null
                        ? serials
                        : earlier.stream()
                                .filter(s -> then.isBefore(s.until()))
                                .findFirst()
                                .map(Stay::serials)
                                .orElse(serials));
    }

    private static String named(String words, Map<String, String> serials) {
        return SERIAL.matcher(words)
                .replaceAll(m -> Matcher.quoteReplacement(serials.getOrDefault(m.group(), m.group())));
    }

    /** Who answers for what is done: the operator, or the instructor on duty where nobody said who that is. */
    public String inCharge() {
        return operator.isEmpty() ? "instructor on duty" : operator;
    }
}
