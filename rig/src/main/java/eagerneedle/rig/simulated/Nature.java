package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.chain.TiedChain;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.physics.World;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Channel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** How instruments really are, within what the sheet says of them. */
final class Nature {
    private static final double ERROR_OF_SPAN = 0.08;

    private Nature() {}

    /**
     * The chain of a channel: every number moved by a draw of its own uncertainty, but for those that inputs give,
     * which are as these really are.
     */
    static Chain chain(World world, String name, Channel channel) {
        List<Link> links = new ArrayList<>();
        List<Link> given = TiedChain.isTied(channel.chain())
                ? TiedChain.of(
                                channel.chain(),
                                n -> world.quantity(n)
                                        .orElseThrow(() -> new IllegalArgumentException("Nobody knows " + n + ".")))
                        .links()
                : channel.chain();
        if (world.isIdeal()) {
            return Chain.of(given);
        }
        for (Link l : given) {
            Link moved = l;
            Draws draws = l.instrument() == null ? world.drawsOf(name) : world.common();
            for (String number : Chain.uncertainOf(l)) {
                moved = Chain.moved(moved, number, draws.normal(path(l, name, links.size()) + "/" + number));
            }
            links.add(moved);
        }
        return Chain.of(links);
    }

    /** A link that channels share is as it is for all of them. */
    private static String path(Link l, String channel, int place) {
        return l.shared() == null ? "chain/" + channel + "/" + place : "link/" + l.shared();
    }

    /**
     * Errors of the intervals of the lower and of the upper circle of a channel, in its unit, which the world is told.
     */
    static double[][] circles(World world, String name, Channel channel, double span) {
        double[][] errors = {circle(world, name, "lower", channel, span), circle(world, name, "upper", channel, span)};
        world.are(name + ".lower", quantities(errors[0], channel));
        world.are(name + ".upper", quantities(errors[1], channel));
        return errors;
    }

    private static List<Quantity> quantities(double[] values, Channel channel) {
        return Arrays.stream(values)
                .mapToObj(v -> Quantity.exact(v, channel.labUnit()))
                .toList();
    }

    /** They add up to nothing. */
    private static double[] circle(World world, String name, String which, Channel channel, double span) {
        String large = world.plan().circles().get(name);
        double[] e = new double[channel.calibrationPlan().intervals()];
        double mean = 0;
        for (int i = 0; i < e.length; i++) {
            String path = "circle/" + name + "/" + which + "/" + i;
            e[i] = large == null
                    ? ERROR_OF_SPAN * span * world.draws().normal(path)
                    : world.reference(large, path).in(channel.labUnit());
            mean += e[i] / e.length;
        }
        for (int i = 0; i < e.length; i++) {
            e[i] -= mean;
        }
        return e;
    }
}
