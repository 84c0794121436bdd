package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.session.Run;
import eagerneedle.rig.driver.OutputGuard;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import javafx.scene.Node;

/** Rows taken level after level without being asked, and what is made safe when that ends. */
final class AllLevels {
    private final Desk desk;
    private final CaptureModel model;
    private final Node owner;
    private final Runnable begin;
    private final Consumer<Run> keep;

    /**
     * @param owner where something is said
     * @param begin begins the next row
     * @param keep keeps the row that waits
     */
    AllLevels(Desk desk, CaptureModel model, Node owner, Runnable begin, Consumer<Run> keep) {
        this.desk = desk;
        this.model = model;
        this.owner = owner;
        this.begin = begin;
        this.keep = keep;
    }

    /** What was set by itself is brought back to safe, by its ramp. */
    void rest() {
        desk.rig().get().outputs().values().stream().filter(OutputGuard::isOn).forEach(this::makeSafe);
    }

    private void makeSafe(OutputGuard guard) {
        Notices.attempt(owner, () -> guard.set(guard.limits().safe()));
    }

    /**
     * Keeps a row that was taken by itself and goes on with the next level; stops where something is wrong.
     *
     * @param same whether the next level is captured in this mode too, asked once the row is kept
     */
    void goOn(HoldMode hold, BooleanSupplier same) {
        String refused = model.refusal();
        String beyond = model.saturated(desk.rig().get()).orElse("");
        if (!refused.isEmpty() || !beyond.isEmpty()) {
            hold.endAutomatic(
                    beyond.isEmpty()
                            ? "Stopped: " + refused
                            : "Stopped: " + beyond + " is beyond its range at this level.");
            rest();
            return;
        }
        String before = model.capture();
        keep.accept(model.pending().orElseThrow());
        boolean more = desk.bench()
                .schedule()
                .next()
                .filter(next -> next[0].equals(before))
                .isPresent();
        if (more && same.getAsBoolean()) {
            begin.run();
        } else {
            hold.endAutomatic("All levels are taken.");
            desk.rig().get().outputs().values().forEach(this::makeSafe);
        }
    }
}
