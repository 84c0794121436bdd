package eagerneedle.core.physics;

/**
 * A comparison within rate equations, where these jump. While a step is taken it stays as it was, so that the step is
 * smooth; where it changes is found afterwards, and the step ends there.
 */
class Switch implements Code {
    private final Code difference;
    private final boolean below;
    private final boolean equal;
    private boolean holds;

    /**
     * @param difference left side less right side
     * @param below true where it holds for a negative difference
     * @param equal true where it holds for no difference
     */
    Switch(Code difference, boolean below, boolean equal) {
        this.difference = difference;
        this.below = below;
        this.equal = equal;
    }

    @Override
    public double at(Moment m) {
        return holds ? 1 : 0;
    }

    /** Looks at how things are now. */
    void settle(Moment m) {
        double d = difference.at(m);
        holds = d == 0 ? equal : d < 0 == below;
    }

    /** True when it is no longer as it was settled. */
    boolean hasChanged(Moment m) {
        double d = difference.at(m);
        return holds != (d == 0 ? equal : d < 0 == below);
    }

    /** Dry friction: its three ways are forwards, backwards, and at rest. */
    static final class Dry extends Switch {
        private final Code speed;
        private final Code drive;
        private final Code grip;
        private final int state;
        private int way;

        /** @param state index of the state that the speed is; -1 when it is none */
        Dry(Code speed, Code drive, Code grip, int state) {
            super(speed, false, false);
            this.speed = speed;
            this.drive = drive;
            this.grip = grip;
            this.state = state;
        }

        @Override
        public double at(Moment m) {
            return way == 0 ? 0 : drive.at(m) - way * grip.at(m);
        }

        @Override
        void settle(Moment m) {
            double v = speed.at(m);
            if (v * way < 0) {
                // It has just come to rest: what remains of its speed is smaller than the moment is known.
                if (state >= 0) {
                    m.y[state] = 0;
                }
                v = 0;
            }
            double d = drive.at(m);
            way = v != 0 ? (int) Math.signum(v) : Math.abs(d) > grip.at(m) ? (int) Math.signum(d) : 0;
        }

        @Override
        boolean hasChanged(Moment m) {
            return way == 0 ? Math.abs(drive.at(m)) > grip.at(m) || speed.at(m) != 0 : way * speed.at(m) < 0;
        }
    }
}
