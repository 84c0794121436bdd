package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.report.WiringCard;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The instrument of a session: how it may be connected, and what is to be prepared before. */
final class RigModel {
    static final String NO_MISTAKE = "no mistake";

    /** A way to connect an instrument, to be tried on a thread of its own since it may take seconds. */
    interface Opening {
        LiveRig open() throws IOException;
    }

    /**
     * What may be done about the connection.
     *
     * @param act words of the button that connects or disconnects; empty when there is nothing to press
     * @param state what is connected and how it does; empty while nothing is
     * @param elsewhere words before the address of a real instrument; empty when none can be given now
     */
    record Connection(boolean connected, String act, String state, String elsewhere) {}

    private final Desk desk;

    RigModel(Desk desk) {
        this.desk = desk;
    }

    private Sheet sheet() {
        return desk.bench().sheet();
    }

    private String name() {
        return sheet().devices().keySet().iterator().next();
    }

    /** The instrument that the sheet names; absent where readings are typed or brought in. */
    Optional<Sheet.Device> device() {
        return sheet().devices().values().stream().findFirst();
    }

    boolean byHand() {
        return device().filter(d -> d.driver().equals("manual") && !Rigs.standIn(sheet(), d))
                .isPresent();
    }

    Connection connection() {
        boolean connected = desk.rig().isPresent();
        String label = device().map(Sheet.Device::label).orElse("");
        boolean simulated = device().filter(d -> Rigs.standIn(sheet(), d)).isPresent();
        String act = connected
                ? "Disconnect"
                : byHand() ? "Take readings by hand" : simulated ? "Connect the simulated " + label : "";
        boolean elsewhere = !connected && device().isPresent() && !byHand();
        return new Connection(
                connected,
                act,
                desk.rig().map(RigModel::words).orElse(""),
                !elsewhere ? "" : simulated ? "or a real one at" : label + " at");
    }

    private static String words(LiveRig rig) {
        return rig.label() + ", " + rig.state().name().toLowerCase(Locale.ROOT)
                + (rig.isSimulated() ? ", simulated" : "");
    }

    /** Mistakes that the simulated instrument can rehearse, none of them first. */
    List<String> mistakes() {
        List<String> all = new java.util.ArrayList<>(List.of(NO_MISTAKE));
        device().filter(d -> Rigs.standIn(sheet(), d)).ifPresent(d -> all.addAll(Rigs.faults(sheet())));
        return all;
    }

    /** The instrument that the sheet has: simulated with a mistake, or readings typed by hand. */
    Opening own(String mistake) {
        Sheet sheet = sheet();
        String name = name();
        double rate = rate();
        if (byHand()) {
            return () -> LiveRig.at(sheet, name, "", rate);
        }
        Set<String> faults = mistake.equals(NO_MISTAKE) ? Set.of() : Set.of(mistake);
        double pace = desk.pace();
        return () -> LiveRig.simulated(sheet, name, rate, pace, faults);
    }

    /** A real instrument at an address. */
    Opening at(String address) {
        Sheet sheet = sheet();
        String name = name();
        double rate = rate();
        return () -> LiveRig.at(sheet, name, address.strip(), rate);
    }

    private double rate() {
        return sheet().channels().keySet().stream()
                .mapToDouble(n -> desk.bench().session().channel(sheet(), n).rate())
                .max()
                .orElse(10);
    }

    /** Connects an instrument that was opened; what to do now, in one sentence. */
    String connect(LiveRig rig) {
        desk.connect(rig);
        return rig.label() + (rig.typed().isEmpty() ? " is connected and sends." : " is ready: type what it shows.");
    }

    /** The limits of an output. */
    Sheet.Output output(String output) {
        return sheet().devices().get(name()).outputs().get(output);
    }

    /**
     * The sheet's steps; where none of them waits, the warm-up of every instrument in a chain that needs one comes
     * first.
     */
    List<Sheet.Step> preparation() {
        Map<String, Sheet.Step> all = new LinkedHashMap<>();
        if (sheet().prepare().stream().noneMatch(s -> s.minutes() > 0)) {
            sheet().channels().keySet().stream()
                    .flatMap(n -> desk.bench().session().channel(sheet(), n).chain().stream())
                    .filter(l -> l.warmUp() != null && l.warmUp() > 0)
                    .forEach(l -> {
                        String key =
                                l.instrument() == null ? l.label().replaceAll("[^A-Za-z0-9]+", "-") : l.instrument();
                        String text = l.label() + (l.instrument() == null ? "" : " " + l.instrument()) + " warmed up";
                        all.putIfAbsent(key, new Sheet.Step("warm-" + key, text, l.warmUp()));
                    });
        }
        sheet().prepare().forEach(s -> all.put("step " + s.id(), s));
        return List.copyOf(all.values());
    }

    String wiringName() {
        return sheet().id() + " wiring.pdf";
    }

    /** The wiring card as it is now. */
    byte[] wiring(boolean web) {
        return web
                ? WiringCard.html(sheet(), desk.bench().session()).getBytes(StandardCharsets.UTF_8)
                : WiringCard.pdf(sheet(), desk.bench().session());
    }
}
