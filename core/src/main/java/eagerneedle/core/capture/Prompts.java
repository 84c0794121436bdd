package eagerneedle.core.capture;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A schedule of readings at set moments, and what became of each: taken (when, and so how late), skipped, or still to
 * come. Immutable: every act gives a new schedule. Times in s from the start of the run.
 *
 * @param first moment of the first reading
 * @param every from one to the next
 * @param count how many
 * @param marks what was done so far, one for each reading that is over, in order
 */
public record Prompts(double first, double every, int count, List<Mark> marks) {
    /**
     * What became of one reading.
     *
     * @param due when it was wanted
     * @param taken when it was taken; null when it was skipped
     * @param value a reading entered by hand afterwards, as written; null when the instrument took it
     */
    public record Mark(
            double due, @Nullable Double taken, @Nullable String value) {
        /** How late it was taken, s; NaN when it was skipped. */
        public double late() {
            return taken == null ? Double.NaN : taken - due;
        }
    }

    public Prompts {
        if (!(every > 0) || count < 1 || first < 0) {
            throw new IllegalArgumentException("Prompted readings need an interval above 0 and at least one reading.");
        }
        marks = List.copyOf(marks);
    }

    /** The schedule at its start. */
    public static Prompts of(double first, double every, int count) {
        return new Prompts(first, every, count, List.of());
    }

    /** True when every reading is taken or skipped. */
    public boolean over() {
        return marks.size() >= count;
    }

    /** When reading number i is wanted, from 0. */
    public double due(int i) {
        return first + i * every;
    }

    /** Time to the next reading, s; below 0 when it is late already; NaN when all are over. */
    public double toGo(double now) {
        return over() ? Double.NaN : due(marks.size()) - now;
    }

    /**
     * Takes the next reading now. Readings whose whole interval has passed are skipped first: a reading belongs to the
     * moment it was taken near.
     */
    public Prompts take(double now) {
        Prompts p = passed(now);
        return p.over() ? p : p.with(new Mark(p.due(p.marks.size()), now, null));
    }

    /**
     * Takes every reading whose moment has come, each at its own moment: where the instrument is sampled all the time,
     * no reading need be late because somebody looked late.
     */
    public Prompts punctual(double now) {
        Prompts p = this;
        while (!p.over() && p.toGo(now) <= 0) {
            p = p.with(new Mark(p.due(p.marks.size()), p.due(p.marks.size()), null));
        }
        return p;
    }

    /** Skips the next reading. */
    public Prompts skip() {
        return over() ? this : with(new Mark(due(marks.size()), null, null));
    }

    /** Skips every reading for which it is too late, because the one after it is due. */
    public Prompts passed(double now) {
        Prompts p = this;
        while (!p.over() && p.marks.size() + 1 < count && now >= p.due(p.marks.size() + 1)) {
            p = p.skip();
        }
        return p;
    }

    /**
     * Enters a skipped reading afterwards, from a note made at the time. @throws IllegalArgumentException when it was
     * not skipped
     */
    public Prompts late(int i, double taken, String value) {
        if (i < 0 || i >= marks.size() || marks.get(i).taken() != null) {
            throw new IllegalArgumentException("Only a reading that was skipped can be entered afterwards.");
        }
        List<Mark> m = new ArrayList<>(marks);
        m.set(i, new Mark(m.get(i).due(), taken, value));
        return new Prompts(first, every, count, m);
    }

    private Prompts with(Mark mark) {
        List<Mark> m = new ArrayList<>(marks);
        m.add(mark);
        return new Prompts(first, every, count, m);
    }
}
