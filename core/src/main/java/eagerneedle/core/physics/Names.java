package eagerneedle.core.physics;

import eagerneedle.core.physics.Code.Part;
import java.util.Collection;
import java.util.Optional;

/** What the names in a formula of a rig stand for. */
interface Names {
    Optional<Part> of(String name);

    /** All of them, for suggestions. */
    Collection<String> all();
}
