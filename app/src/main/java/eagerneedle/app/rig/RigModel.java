package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Way;
import eagerneedle.core.sheet.Device;
import eagerneedle.core.sheet.Output;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.report.WiringCard;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
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

    /** The instruments that the sheet names, by name; empty where readings are typed or brought in. */
    Map<String, Device> devices() {
        return sheet().devices();
    }

    /** The first of them. */
    Optional<Device> device() {
        return devices().values().stream().findFirst();
    }

    private boolean isByHand(Device d) {
        return d.driver().equals("manual") && !Rigs.standIn(sheet(), d);
    }

    boolean byHand() {
        return !devices().isEmpty() && devices().values().stream().allMatch(this::isByHand);
    }

    private boolean isSimulated() {
        return devices().values().stream().anyMatch(d -> Rigs.standIn(sheet(), d));
    }

    Connection connection() {
        boolean connected = desk.rig().isPresent();
        boolean several = devices().size() > 1;
        String label = several ? "instruments" : device().map(Device::label).orElse("");
        String act = connected
                ? "Disconnect"
                : byHand()
                        ? "Take readings by hand"
                        : isSimulated() ? several ? "Connect the simulated instruments" : "Connect, simulated" : "";
        boolean elsewhere = !connected && device().isPresent() && !byHand();
        return new Connection(
                connected,
                act,
                several ? "" : standing(0),
                !elsewhere ? "" : several ? "or real ones" : isSimulated() ? "or a real one at" : label + " at");
    }

    /** How it stands with one instrument of those that are connected; empty for one that is not. */
    String standing(int device) {
        String name = List.copyOf(devices().keySet()).size() > device
                ? List.copyOf(devices().keySet()).get(device)
                : "";
        return desk.rig().stream()
                .flatMap(r -> r.standings().stream())
                .filter(s -> s.device().equals(name))
                .map(s -> (devices().size() > 1
                                        && s.label()
                                                .equals(Objects.requireNonNull(
                                                                devices().get(name))
                                                        .label())
                                ? ""
                                : s.label() + ", ")
                        + s.state().name().toLowerCase(Locale.ROOT)
                        + (s.simulated() ? ", simulated" : ""))
                .findFirst()
                .orElse("");
    }

    /** Mistakes that the simulated instruments can rehearse, none of them first. */
    List<String> mistakes() {
        List<String> all = new java.util.ArrayList<>(List.of(NO_MISTAKE));
        if (isSimulated() && desk.hunt().isEmpty()) {
            all.addAll(Rigs.faults(sheet()));
        }
        return all;
    }

    /** What a mistake is called. */
    String mistakeLabel(String mistake) {
        return switch (mistake) {
            case NO_MISTAKE -> "with everything as it should be";
            case "swapped" -> "two leads exchanged";
            case "reversed" -> "a sensor the wrong way round";
            case "open" -> "a broken lead";
            default ->
                sheet().mistakes().stream()
                        .filter(m -> m.id().equals(mistake))
                        .map(Sheet.Mistake::label)
                        .findFirst()
                        .orElse(mistake);
        };
    }

    /** The instruments that the sheet has: simulated with a mistake, or readings typed by hand. */
    Opening own(String mistake) {
        Set<String> chosen = mistake.equals(NO_MISTAKE) ? Set.of() : Set.of(mistake);
        Set<String> faults = desk.hunt().map(h -> Set.copyOf(h.atBench())).orElse(chosen);
        Way simulated = new Way.Simulated(desk.pace(), faults);
        Map<String, Way> ways = new LinkedHashMap<>();
        devices().forEach((name, d) -> {
            if (Rigs.standIn(sheet(), d)) {
                ways.put(name, simulated);
            } else if (isByHand(d)) {
                ways.put(name, new Way.At(""));
            }
        });
        return opening(ways);
    }

    /**
     * Real instruments at addresses.
     *
     * @param addresses one a device, in the order of the sheet; one without an address is left out
     */
    Opening at(List<String> addresses) {
        Map<String, Way> ways = new LinkedHashMap<>();
        int i = 0;
        for (Map.Entry<String, Device> d : devices().entrySet()) {
            String address = addresses.get(i++).strip();
            if (!address.isEmpty() || devices().size() == 1 || isByHand(d.getValue())) {
                ways.put(d.getKey(), new Way.At(address));
            }
        }
        if (ways.isEmpty()) {
            throw new IllegalArgumentException("Write at least one address: host:port, or a serial port.");
        }
        return opening(ways);
    }

    private Opening opening(Map<String, Way> ways) {
        Sheet sheet = sheet();
        Map<String, Double> rates = new LinkedHashMap<>();
        ways.keySet().forEach(name -> rates.put(name, rate(name)));
        return () -> LiveRig.to(sheet, ways, rates);
    }

    private double rate(String device) {
        return sheet().channels().entrySet().stream()
                .filter(c -> devices().size() < 2 || device.equals(c.getValue().device()))
                .mapToDouble(
                        c -> desk.bench().session().channel(sheet(), c.getKey()).rate())
                .max()
                .orElse(10);
    }

    /** Connects an instrument that was opened; what to do now, in one sentence. */
    String connect(LiveRig rig) {
        desk.connect(rig);
        boolean several = rig.devices().size() > 1;
        return (several ? rig.devices().size() + " instruments" : rig.label())
                + (rig.typed().isEmpty()
                        ? several ? " are connected and send." : " is connected and sends."
                        : several ? " are ready: type what is shown." : " is ready: type what it shows.");
    }

    /** The limits of an output. */
    Output output(String output) {
        return devices().values().stream()
                .map(d -> d.outputs().get(output))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .orElseThrow();
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
                        all.putIfAbsent(key, new Sheet.Step("warm-" + key, text, l.warmUp(), false));
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
