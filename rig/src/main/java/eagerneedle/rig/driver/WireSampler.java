package eagerneedle.rig.driver;

import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** A driver that talks over a wire. */
abstract class WireSampler extends Sampler implements Conversation.Listener {
    final Wire wire;
    private volatile @Nullable Conversation talk;

    WireSampler(Wire wire) {
        this.wire = wire;
    }

    @Override
    public double longestWay() {
        return wire.way();
    }

    final void connect(String threadName) throws IOException {
        talk = new Conversation(wire, this, threadName);
    }

    final void send(String line) throws IOException {
        Conversation t = talk;
        if (t == null) {
            throw new IOException("The instrument is not connected.");
        }
        t.send(line);
    }

    /** Last words to the instrument, before the wire is let go. */
    interface Farewell {
        void say() throws IOException;
    }

    final void hangUp(Farewell farewell) {
        Conversation t = talk;
        if (t != null && state != State.CLOSED) {
            try {
                farewell.say();
            } catch (IOException e) {
                // It is gone; its own watchdog makes it safe.
            }
        }
        state = State.CLOSED;
        sink = null;
        if (t != null) {
            t.close();
        }
    }
}
