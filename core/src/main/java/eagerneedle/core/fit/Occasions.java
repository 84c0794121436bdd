package eagerneedle.core.fit;

import eagerneedle.core.quantity.Digest;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Which readings the points of a fit are: two results that rest on the same ones share their scatter.
 *
 * @param group readings of one group may have been taken together, such as those of one capture
 * @param ids one a point, in the order of the points, such as the run it was read in
 */
public record Occasions(String group, List<String> ids) {
    public Occasions {
        ids = List.copyOf(ids);
    }

    /**
     * Readings that nothing names are told by what they are: the same values with the same influences are the same
     * readings.
     */
    public static Occasions of(List<Quantity> y) {
        Digest digest = new Digest();
        List<String> ids = new ArrayList<>();
        for (Quantity q : y) {
            ids.add(Integer.toString(ids.size()));
            digest.add(q.value());
            for (Map.Entry<Leaf, Double> e : q.contributions().entrySet()) {
                digest.add(e.getKey().id());
                digest.add(e.getValue());
            }
        }
        return new Occasions("values " + digest, ids);
    }
}
