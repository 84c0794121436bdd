package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.chain.Link;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Correction;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What the influences of one session are called in a pool of several. Most belong to their session alone. The same in
 * all are those of an instrument, by its serial; of a value that is given, such as that of a certificate; of a
 * calibration that two sessions hold; and of what the pool says is shared.
 */
final class PoolIdentity implements UnaryOperator<String> {
    private static final Pattern INPUT = Pattern.compile("^input:([^#/]+)");
    private static final Pattern CHAIN = Pattern.compile("^chain:([^/]+)/(\\d+)");
    private static final Pattern LINK = Pattern.compile("^link:([^/]+)");
    private static final Pattern CALIBRATION = Pattern.compile("^calibration:([^#/]+)(?:/[a-z]*(\\d+)(/indication)?)?");

    private final String name;
    private final Pool pool;
    private final Sheet sheet;
    private final Session session;

    /**
     * @param name what the session is called in the pool
     * @param sheet that of the session
     */
    PoolIdentity(String name, Pool pool, Sheet sheet, Session session) {
        this.name = name;
        this.pool = pool;
        this.sheet = sheet;
        this.session = session;
    }

    @Override
    public String apply(String id) {
        return once(id).map(thing -> "once|" + thing + "|" + id).orElse(name + "|" + id);
    }

    /** What it is the influence of, where that is one thing in all sessions. */
    private Optional<String> once(String id) {
        if (id.startsWith("instrument:")) {
            return Optional.of("serial");
        }
        if (id.startsWith(Correction.ROOT)) {
            return Optional.of("standard");
        }
        Matcher m = INPUT.matcher(id);
        if (m.find()) {
            return input(m.group(1));
        }
        m = CHAIN.matcher(id);
        if (m.find()) {
            return chain(m.group(1), Integer.parseInt(m.group(2)));
        }
        m = LINK.matcher(id);
        if (m.find()) {
            return link(m.group(1));
        }
        m = CALIBRATION.matcher(id);
        return m.find() ? calibration(m) : Optional.empty();
    }

    private Optional<String> input(String input) {
        Sheet.Input i = sheet.inputs().get(input);
        if (i == null || !i.isGiven() && !pool.shared().contains(input)) {
            return Optional.empty();
        }
        String planned = session.planned().getOrDefault(input, i.value());
        return Optional.of(session.measured().getOrDefault(input, planned));
    }

    private Optional<String> chain(String channel, int place) {
        Channel c = sheet.channels().get(channel);
        if (c == null || place >= c.chain().size()) {
            return Optional.empty();
        }
        Link link = c.chain().get(place);
        return link.instrument() != null
                ? Optional.of(link.instrument())
                : pool.shared().contains(channel) ? Optional.of(pool.from()) : Optional.empty();
    }

    private Optional<String> link(String shared) {
        return sheet.channels().entrySet().stream()
                .flatMap(c -> c.getValue().chain().stream()
                        .filter(l -> shared.equals(l.shared()))
                        .filter(l -> l.instrument() != null || pool.shared().contains(c.getKey()))
                        .map(l -> l.instrument() == null ? pool.from() : l.instrument()))
                .findFirst();
    }

    private static String content(Calibration c) {
        int readings = c.closure() == null ? 0 : Arrays.deepHashCode(c.closure().readings());
        return Integer.toHexString(Objects.hash(c.points(), c.by(), c.reference(), readings)) + " " + c.taken();
    }

    /** One that two sessions hold is the same, whatever else they hold; a reference may be the same in two. */
    private Optional<String> calibration(Matcher m) {
        Optional<Calibration> c = session.calibrations().stream()
                .filter(k -> k.id().equals(m.group(1)))
                .findFirst();
        boolean ofReference = m.group(2) != null && m.group(3) == null;
        if (ofReference && c.isPresent() && pool.shared().contains(c.get().channel() + Pool.REFERENCE)) {
            int point = Integer.parseInt(m.group(2));
            List<String> references =
                    c.get().points().stream().map(p -> p.reference()).toList();
            return point < references.size()
                    ? Optional.of(c.get().reference() + " " + references.get(point))
                    : Optional.empty();
        }
        return c.map(PoolIdentity::content);
    }
}
