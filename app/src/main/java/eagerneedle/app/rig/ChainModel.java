package eagerneedle.app.rig;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.chain.Advice;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.picture.ChainPicture;
import eagerneedle.rig.driver.Driver;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;

/** One channel at the rig: what it is made of, what it reads now, what is amiss with it, and what could stand in it. */
final class ChainModel {
    private static final double LIVE_SECONDS = 1;
    private static final int ENOUGH_FOR_NOISE = 8;

    /** Another setting or instrument for one place of the chain. */
    record Alternative(String words, Setup setup, String did) {}

    /** A place of the chain with what else may stand in it. */
    record Place(String words, List<Alternative> alternatives) {}

    /** What the channel reads: its value with scatter, and the unit or what is the matter. */
    record Now(String value, String unit) {}

    private final Desk desk;
    private final String name;
    private Optional<WindowStatistics> live = Optional.empty();
    private String trouble = "";

    ChainModel(Desk desk, String name) {
        this.desk = desk;
        this.name = name;
    }

    String name() {
        return name;
    }

    Channel channel() {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    private Setup setup() {
        return desk.bench().session().setup(name);
    }

    static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    String title() {
        return capital(channel().label());
    }

    /** How the channel is tagged, wired and sampled. */
    String tag() {
        Channel c = channel();
        return (c.tag() == null ? "" : "tag " + c.tag() + " · ") + "input " + c.inputOr(name)
                + (c.position() == null ? "" : " · at " + c.position())
                + (c.specimen() == null ? "" : " · on " + c.specimen())
                + (c.rate() > 0 ? " · " + Notation.plain(c.rate(), 5) + "/s" : "")
                + (c.average() > 1 ? " · mean of " + c.average() : "");
    }

    /** Takes the newest samples in. */
    void take(LiveRig rig) {
        take(rig.last(name, LIVE_SECONDS), rig.state() == Driver.State.RUNNING);
    }

    /** @param running true when samples should be arriving */
    void take(RawSamples raw, boolean running) {
        Channel c = channel();
        live = LiveReadings.of(c, raw);
        trouble = raw.size() == 0
                ? running ? "No samples of this channel arrive." : ""
                : new SampleWatch(c.label(), c.toChain(), 0)
                        .look(0, raw.time(), raw.values()).stream()
                                .findFirst()
                                .map(f -> f.message() + " " + f.remedy())
                                .orElse("");
    }

    /** Forgets what was read: nothing is connected. */
    void forget() {
        live = Optional.empty();
        trouble = "";
    }

    /** What the channel reads in its unit; NaN without a reading. */
    double reading() {
        return live.map(WindowStatistics::mean).orElse(Double.NaN);
    }

    Now now() {
        Channel c = channel();
        boolean connected = desk.rig().isPresent();
        return live.map(w -> new Now(
                        Notation.bracketed(
                                w.mean(), Math.max(w.sd(), c.toChain().stepAt(w.mean()) / Math.sqrt(12))),
                        c.labUnit().pretty()))
                .orElse(connected ? new Now("out of reach", "") : new Now("", "not connected"));
    }

    /** Where in its reach the chain is looked at: the middle of what is needed of it. */
    double at() {
        double[] reach = channel().toChain().reach();
        return channel()
                .needed()
                .map(n -> Math.max(reach[0], Math.min(reach[1], (n[0] + n[1]) / 2)))
                .orElse((reach[0] + reach[1]) / 2);
    }

    /** The step and the uncertainty of the chain there. */
    String fineness() {
        Chain chain = channel().toChain();
        LabUnit unit = channel().labUnit().difference();
        return "one step " + Printed.plain(chain.stepAt(at()), 2, unit) + ", u of the chain "
                + Printed.plain(ChainPicture.uncertainty(chain, at()), 2, unit);
    }

    /** What is amiss with the signal or the chain, and what could be done; what is pressing only. */
    List<Advice> advice() {
        List<Advice> all = new ArrayList<>();
        if (!trouble.isEmpty()) {
            all.add(new Advice("signal", false, trouble, null));
        }
        Channel c = channel();
        double[] need = c.needed().orElse(new double[] {Double.NaN, Double.NaN});
        double fastest = c.fastest() == null
                ? Double.NaN
                : Reading.parse(c.fastest())
                        .unit()
                        .convert(Reading.parse(c.fastest()).value(), LabUnit.SECOND);
        // Live noise speaks once there are enough samples; rounded, so that the advice does not flicker with it.
        double noise = live.filter(w -> w.n() >= ENOUGH_FOR_NOISE)
                .map(w -> Double.parseDouble(String.format(Locale.ROOT, "%.1g", w.sd())))
                .orElse(Double.NaN);
        all.addAll(Advice.on(
                c.toChain(), new Advice.Need(need[0], need[1], c.stepWanted(), c.rate(), c.average(), fastest, noise)));
        return Advice.pressing(all);
    }

    void apply(Advice.Fix fix) {
        Double rate = fix.rate();
        Integer average = fix.average();
        Setup changed = fix.chain() != null ? setup().withChain(fix.chain()) : setup();
        changed = rate != null ? changed.withRate(rate) : changed;
        changed = average != null ? changed.withAverage(average) : changed;
        set(changed, title() + ": " + fix.label() + ".");
    }

    void choose(Alternative a) {
        set(a.setup(), a.did());
    }

    private void set(Setup changed, String did) {
        desk.bench().apply(new RigCommand.SetUp(name, changed, did));
    }

    boolean isAsSheet() {
        return setup().equals(Setup.AS_SHEET);
    }

    void asSheet() {
        set(Setup.AS_SHEET, title() + ": set up as the sheet says.");
    }

    /** Writes where the sensor sits and on what; blank for unknown. */
    void tag(String position, String specimen) {
        String p = position.isBlank() ? null : position.strip();
        String s = specimen.isBlank() ? null : specimen.strip();
        set(
                setup().tagged(p, s),
                "Tagged " + channel().label() + (p == null ? "" : " at " + p) + (s == null ? "" : " on " + s) + ".");
    }

    /** The places of the chain in which something else could stand. */
    List<Place> places() {
        List<Place> out = new ArrayList<>();
        List<Link> links = channel().chain();
        for (int i = 0; i < links.size(); i++) {
            List<Alternative> all = alternatives(links, i);
            if (!all.isEmpty()) {
                out.add(new Place(
                        capital(links.get(i).kind()) + ": " + links.get(i).label(), all));
            }
        }
        return out;
    }

    private List<Alternative> alternatives(List<Link> links, int at) {
        Link link = links.get(at);
        List<Alternative> out = new ArrayList<>();
        if (link.gains() != null) {
            link.gains()
                    .forEach(g -> out.add(
                            with(links, at, "gain " + Notation.plain(g, 5), link.withGain(Digits.plain(g, 12)))));
        }
        if (link.ranges() != null) {
            link.ranges()
                    .forEach(r -> out.add(with(
                            links,
                            at,
                            "range " + Notation.plain(r.get(0), 4) + " to " + Notation.plain(r.get(1), 4) + " "
                                    + link.from(),
                            link.withRange(r.get(0), r.get(1)))));
        }
        desk.stockroom().all().stream()
                .filter(other -> fits(other, link))
                .forEach(other -> out.add(with(
                        links,
                        at,
                        other.name() + " " + other.id(),
                        Objects.requireNonNull(other.link())
                                .named(
                                        other.id(),
                                        Objects.requireNonNull(other.link()).label()))));
        if (links.size() > 2 && link.label().equals("amplifier") && link.instrument() == null) {
            List<Link> fewer = new ArrayList<>(links);
            fewer.remove(at);
            out.add(new Alternative("take it out", setup().withChain(fewer), title() + ": took the amplifier out."));
        }
        return out;
    }

    private static boolean fits(Instrument other, Link link) {
        return !other.isOut()
                && other.link() != null
                && other.link().kind().equals(link.kind())
                && other.link().from().equals(link.from())
                && Objects.equals(other.link().to(), link.to())
                && !other.id().equals(link.instrument());
    }

    private Alternative with(List<Link> links, int at, String words, Link link) {
        List<Link> changed = new ArrayList<>(links);
        changed.set(at, link);
        return new Alternative(words, setup().withChain(changed), title() + ": " + words + ".");
    }
}
