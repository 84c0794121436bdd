package eagerneedle.app.workbench;

import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Samples of one channel as they come in, safe to add to and to look at from different threads: the newest ones
 * themselves, as many as there is room for, and the outline of all of them.
 *
 * <p>They are kept in pieces. Long blocks stay the arrays that the driver made, whose times all channels of an
 * instrument share; short ones are gathered. Nothing that came is moved again: one array for each channel that grows
 * would be copied at every doubling, and by the collector of memory between them, which stopped the window.
 */
final class GrowingSamples {
    /** Samples from which a block is kept as it came. */
    private static final int LONG = 256;

    private static final int GATHERED = 1024;

    /** Neighbouring samples; those from {@code size} on are not yet any. */
    private static final class Piece {
        private final double[] time;
        private final double[] values;
        private int size;

        Piece(double[] time, double[] values, int size) {
            this.time = time;
            this.values = values;
            this.size = size;
        }

        void add(double[] t, double[] v) {
            System.arraycopy(t, 0, time, size, t.length);
            System.arraycopy(v, 0, values, size, v.length);
            size += t.length;
        }

        /** Index of the first sample at or after a moment. */
        int from(double moment) {
            int at = Arrays.binarySearch(time, 0, size, moment);
            return at < 0 ? -at - 1 : at;
        }
    }

    private final int room;
    private final Pyramid outline = new Pyramid();
    private final List<Piece> pieces = new ArrayList<>();
    private int size;
    private long gone;

    /** @param room how many of the newest samples are kept at least */
    GrowingSamples(int room) {
        this.room = Math.max(1024, room);
    }

    /** Takes samples, in order of time; the arrays are kept and not written to. */
    synchronized void add(double[] t, double[] v) {
        if (t.length == 0) {
            return;
        }
        Piece last = pieces.isEmpty() ? null : pieces.get(pieces.size() - 1);
        if (t.length >= LONG) {
            pieces.add(new Piece(t, v, t.length));
        } else if (last != null && last.size + t.length <= last.time.length) {
            last.add(t, v);
        } else {
            Piece gathered = new Piece(new double[GATHERED], new double[GATHERED], 0);
            gathered.add(t, v);
            pieces.add(gathered);
        }
        size += t.length;
        if (size > 2 * room) {
            letGo();
        }
        outline.add(t, v, t.length);
    }

    private void letGo() {
        int pieced = 0;
        int dropped = 0;
        while (size - dropped - pieces.get(pieced).size >= room) {
            dropped += pieces.get(pieced++).size;
        }
        pieces.subList(0, pieced).clear();
        size -= dropped;
        gone += dropped;
    }

    /** All samples that are still here. */
    synchronized RawSamples all() {
        return from(0, 0, size);
    }

    /** So many samples from one of a piece on: all to the newest. */
    private RawSamples from(int piece, int first, int n) {
        double[] t = new double[n];
        double[] v = new double[n];
        int at = 0;
        int skip = first;
        for (Piece p : pieces.subList(piece, pieces.size())) {
            System.arraycopy(p.time, skip, t, at, p.size - skip);
            System.arraycopy(p.values, skip, v, at, p.size - skip);
            at += p.size - skip;
            skip = 0;
        }
        return new RawSamples(t, v);
    }

    /** All samples that are still here where they are few, otherwise so many of them, evenly chosen. */
    synchronized RawSamples thinned(int most) {
        int n = Math.min(size, most);
        double[] t = new double[n];
        double[] v = new double[n];
        int piece = 0;
        long before = 0;
        for (int i = 0; i < n; i++) {
            long at = (long) i * size / n;
            while (at - before >= pieces.get(piece).size) {
                before += pieces.get(piece++).size;
            }
            t[i] = pieces.get(piece).time[(int) (at - before)];
            v[i] = pieces.get(piece).values[(int) (at - before)];
        }
        return new RawSamples(t, v);
    }

    /** True when no sample had to make room for newer ones. */
    synchronized boolean whole() {
        return gone == 0;
    }

    /** The samples of the last so many seconds, as far as they are still here. */
    synchronized RawSamples last(double seconds) {
        if (size == 0) {
            return RawSamples.NONE;
        }
        double moment = end() - seconds;
        int piece = pieces.size() - 1;
        int n = pieces.get(piece).size;
        while (piece > 0 && pieces.get(piece).time[0] >= moment) {
            n += pieces.get(--piece).size;
        }
        int first = pieces.get(piece).from(moment);
        return from(piece, first, n - first);
    }

    /** The outline of everything that came. */
    Pyramid outline() {
        return outline;
    }

    /** How many came. */
    synchronized long count() {
        return gone + size;
    }

    /** Moment of the newest sample, s; 0 while there is none. */
    synchronized double end() {
        if (size == 0) {
            return 0;
        }
        Piece last = pieces.get(pieces.size() - 1);
        return last.time[last.size - 1];
    }
}
