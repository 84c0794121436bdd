package eagerneedle.core.reduce;

import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;

/**
 * What a node of a session's graph is about. Its text is the origin of leaves and what messages call it; nothing takes
 * it apart.
 */
public sealed interface Key {
    /** An input, a result, or what the calibration of a channel gives, by its name in formulas. */
    record Global(String name) implements Key {
        @Override
        public String toString() {
            return name;
        }
    }

    /** An input as it stands alone, before a declared correlation ties it to others. */
    record Alone(String input) implements Key {
        @Override
        public String toString() {
            return "alone " + input;
        }
    }

    /** A quantity, level or reading of a capture over all its runs that count. */
    record Column(String capture, String name) implements Key {
        @Override
        public String toString() {
            return capture + "." + name;
        }
    }

    /** A trace, quantity, level or reading of one run. */
    record OfRun(int run, String name) implements Key {
        @Override
        public String toString() {
            return "run " + run + "." + name;
        }

        // Written out: every edit looks thousands of them up.
        @Override
        public boolean equals(Object o) {
            return o instanceof OfRun k && k.run == run && k.name.equals(name);
        }

        @Override
        public int hashCode() {
            return 31 * name.hashCode() + run;
        }
    }

    /** A window of one run. */
    record WindowOf(int run, String window) implements Key {
        @Override
        public String toString() {
            return "run " + run + ".window " + window;
        }
    }

    static OfRun of(Run run, String name) {
        return new OfRun(run.id(), name);
    }

    static WindowOf window(Run run, String window) {
        return new WindowOf(run.id(), window);
    }

    /** A rule of a run; no quantity has a blank in its name. */
    static OfRun rule(Run run, String rule) {
        return new OfRun(run.id(), "rule " + rule);
    }

    /** An end of a window that is a moment: {@code from} or {@code to}. */
    static OfRun end(Run run, String window, String end) {
        return new OfRun(run.id(), "window " + window + " " + end);
    }

    /** What a name means in a formula that belongs to no run. */
    static Key named(String name, Sheet sheet) {
        int dot = name.indexOf('.');
        return dot > 0
                        && (sheet.captures().containsKey(name.substring(0, dot))
                                || sheet.pool().columns().contains(name))
                ? new Column(name.substring(0, dot), name.substring(dot + 1))
                : new Global(name);
    }

    /** True for what belongs to one run. */
    default boolean isOfRun() {
        return this instanceof OfRun || this instanceof WindowOf;
    }
}
