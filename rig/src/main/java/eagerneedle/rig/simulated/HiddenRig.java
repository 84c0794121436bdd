package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import java.util.Map;

/** A rig whose truth and readings are drawn from a seed. */
abstract class HiddenRig implements RigModel {
    final Hidden hidden;

    HiddenRig(long seed) {
        this.hidden = new Hidden(seed);
    }

    @Override
    public Map<String, Quantity> truth() {
        return hidden.truth();
    }

    @Override
    public Map<String, String> readings() {
        return hidden.readings();
    }
}
