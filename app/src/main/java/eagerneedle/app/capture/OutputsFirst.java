package eagerneedle.app.capture;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.rig.driver.OutputGuard;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * Brings outputs to where a level wants them before its run begins: first to rest where the sheet says so, then up or
 * down by their ramps. No run begins before they are there.
 */
final class OutputsFirst {
    private final Map<String, OutputGuard> guards = new LinkedHashMap<>();
    private final Map<String, Double> wanted;
    private final double rest;
    private double restsSince = Double.NaN;
    private boolean set;

    /**
     * Begins.
     *
     * @param guards of the instruments that are connected, by name
     * @param wanted what the outputs are to be set to, in their units
     * @param rest how long they are at their safe value first, s; 0 for no time
     * @throws IllegalArgumentException with one sentence where there is no such output, or it refuses the value
     */
    OutputsFirst(Map<String, OutputGuard> guards, Map<String, Double> wanted, double rest, String instruments) {
        this.wanted = Map.copyOf(wanted);
        this.rest = rest;
        wanted.keySet().forEach(name -> {
            if (!guards.containsKey(name)) {
                throw new IllegalArgumentException(instruments + " has no output " + name + "; set it by hand.");
            }
            this.guards.put(name, guards.get(name));
        });
        if (rest > 0) {
            this.guards.values().forEach(g -> g.set(g.limits().safe()));
        } else {
            set();
        }
    }

    private void set() {
        guards.forEach((name, g) -> g.set(wanted.getOrDefault(name, g.limits().safe())));
        set = true;
    }

    /**
     * Looks on.
     *
     * @param now s, by any clock
     * @return true once all are there
     * @throws IllegalArgumentException with one sentence where one was switched off meanwhile
     */
    boolean isThere(double now) {
        guards.forEach((name, g) -> {
            if (!g.isOn()) {
                throw new IllegalArgumentException(
                        "The " + label(name, g) + " was switched off before the run could begin.");
            }
        });
        boolean there = guards.values().stream().allMatch(OutputGuard::isThere);
        if (!set && there) {
            restsSince = Double.isNaN(restsSince) ? now : restsSince;
            if (now - restsSince >= rest) {
                set();
                return guards.values().stream().allMatch(OutputGuard::isThere);
            }
            return false;
        }
        return set && there;
    }

    /** What it waits for. */
    String says() {
        return guards.entrySet().stream()
                .map(e -> says(e.getKey(), e.getValue()))
                .collect(Collectors.joining(" "));
    }

    private String says(String name, OutputGuard g) {
        String unit = LabUnit.parse(g.limits().unit()).pretty();
        if (!set) {
            return "The " + label(name, g) + " rests for " + Notation.plain(rest, 3) + " s.";
        }
        double left = g.limits().ramp() > 0
                ? Math.abs(g.target() - g.value()) / g.limits().ramp()
                : 0;
        return "The " + label(name, g) + " goes to " + Notation.plain(g.target(), 5) + " " + unit + ", "
                + Notation.plain(left, 2) + " s to go.";
    }

    private static String label(String name, OutputGuard g) {
        return g.limits().label() == null ? name : g.limits().label();
    }
}
