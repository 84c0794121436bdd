package eagerneedle.app.station;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.sheet.Sheet;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * The cautions of a session. Each is read and acknowledged, or the member of staff in charge takes them over, before
 * anything is connected and before the first run; the notebook keeps which and when.
 */
public record Cautions(Workbench bench) {
    /** Under this name a session keeps that staff has taken its cautions over. */
    private static final String STAFF = "cautions";

    /** Something to beware of, and whether it was read. */
    public record Caution(String id, String text, boolean read) {}

    private Map<String, Instant> signed() {
        return bench.session().signOffs();
    }

    /** All, in the order of the sheet. */
    public List<Caution> all() {
        List<Caution> out = new ArrayList<>();
        for (String text : bench.sheet().cautions()) {
            String id = "caution-" + (out.size() + 1);
            out.add(new Caution(id, text, signed().containsKey(id)));
        }
        return out;
    }

    /** True where staff has taken them over. */
    public boolean areTakenOver() {
        return signed().containsKey(STAFF);
    }

    /** True while some are neither read nor taken over and no run was taken yet. */
    public boolean arePending() {
        return !areTakenOver()
                && bench.session().keptRuns().isEmpty()
                && all().stream().anyMatch(c -> !c.read());
    }

    /** Notes in the notebook that a caution was read, or takes that back. */
    public void read(Caution caution, boolean isRead) {
        bench.apply(new RigCommand.SignOff(
                caution.id(),
                "caution read: " + caution.text(),
                isRead ? bench.clock().instant() : null));
    }

    /**
     * Notes that a member of staff takes them over.
     *
     * @param by who; empty where the laboratory does not say who its staff are
     */
    public void takeOver(String by) {
        if (!areTakenOver()) {
            bench.apply(new RigCommand.SignOff(
                    STAFF,
                    "cautions taken over by the member of staff in charge",
                    bench.clock().instant(),
                    by));
        }
    }

    /**
     * The same by whoever is at the bench, where that is one of the staff.
     *
     * @param staff of the laboratory; empty where it does not say
     * @throws IllegalArgumentException with one sentence where it is not known who that is
     */
    public void takeOver(List<String> staff) {
        String at = bench.session().bench().operator();
        if (!staff.isEmpty() && !staff.contains(at) && staff.size() > 1) {
            throw new IllegalArgumentException("Choose on the card of the cautions who of the staff takes them over: "
                    + String.join(", ", staff) + ".");
        }
        takeOver(staff.isEmpty() ? "" : staff.contains(at) ? at : staff.get(0));
    }

    /** Who took them over; empty where nobody did, or nobody was named. */
    public String takenOverBy() {
        return bench.session().bench().agreed().getOrDefault(STAFF, "");
    }

    /**
     * Lets work begin.
     *
     * @throws IllegalArgumentException with one sentence while cautions are pending
     */
    public void require() {
        if (arePending()) {
            throw new IllegalArgumentException("Read the cautions first and tick them, or let the member of staff in "
                    + "charge take them over (Ctrl+K).");
        }
    }

    /** Steps of the preparation that nobody signed off, in words; empty for none. */
    public String stepsLeft() {
        List<String> open = bench.sheet().prepare().stream()
                .filter(s -> !signed().containsKey(s.id()))
                .map(Sheet.Step::text)
                .toList();
        return open.isEmpty()
                ? ""
                : (open.size() == 1
                                ? "Not signed off at Rig yet: "
                                : open.size() + " steps are not signed off at Rig" + " yet: ")
                        + String.join("; ", open) + ".";
    }
}
