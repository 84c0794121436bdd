package eagerneedle.app.plot;

import org.jspecify.annotations.Nullable;

/** The cursors that a hand has put on a plot: none, one or two, in the order they were set. */
final class PlotCursors {
    private double[] at = {};
    private PlotView.@Nullable CursorListener listener;

    void onChange(PlotView.CursorListener told) {
        listener = told;
    }

    /** True where cursors can be set. */
    boolean areOffered() {
        return listener != null;
    }

    boolean isEmpty() {
        return at.length == 0;
    }

    double[] at() {
        return at.clone();
    }

    /** Sets the next one at a place; with both set it takes them away. */
    void next(double place) {
        if (listener != null) {
            at = at.length == 2 ? new double[0] : at.length == 1 ? new double[] {at[0], place} : new double[] {place};
            tell();
        }
    }

    /** Moves the one that was set last. */
    void push(double by) {
        at[at.length - 1] += by;
        tell();
    }

    /** Takes them away, and says so where there were any. */
    void clear() {
        if (forget()) {
            tell();
        }
    }

    /** Takes them away without a word. */
    boolean forget() {
        boolean were = at.length > 0;
        at = new double[0];
        return were;
    }

    private void tell() {
        if (listener != null) {
            listener.set(at.clone());
        }
    }
}
