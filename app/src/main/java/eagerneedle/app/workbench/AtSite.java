package eagerneedle.app.workbench;

import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.stockroom.Kit;
import eagerneedle.core.stockroom.Site;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A session where it takes place: with what the laboratory says once for all its sheets, and with the instruments of
 * its bench.
 */
public final class AtSite {
    private AtSite() {}

    /** Puts what the laboratory says in the place of what the sheet says, wherever the sheet asks for it. */
    public static Optional<Command> said(Sheet sheet, Site site) {
        List<Command> acts = new ArrayList<>();
        List<String> words = new ArrayList<>();
        sheet.inputs().forEach((name, input) -> {
            String reading = input.site() == null ? null : site.said().get(input.site());
            if (reading != null && !reading.equals(input.value())) {
                acts.add(new PlanningCommand.SetPlanned(name, input.label(), reading));
                words.add(input.label() + " is " + reading);
            }
        });
        return acts.isEmpty()
                ? Optional.empty()
                : Optional.of(new Command.Together(
                        "By " + (site.laboratory().isEmpty() ? "the laboratory" : site.laboratory()) + ": "
                                + String.join("; ", words) + ".",
                        acts));
    }

    /**
     * Going on at a bench.
     *
     * @param act what sets the session up there
     * @param lacking what the bench does not have, or has and cannot be used, one sentence each
     */
    public record Move(Command act, List<String> lacking) {}

    /**
     * Takes a session to a bench with the instruments that it has. What was read, calibrated and captured before stays
     * with the instruments of that time; what is still to be done is done with those of this bench.
     *
     * @param stock the instruments of the laboratory
     */
    public static Move to(Kit kit, Session session, Sheet sheet, List<Instrument> stock, Instant now) {
        Map<String, Instrument> known =
                stock.stream().collect(Collectors.toMap(Instrument::id, i -> i, (a, b) -> a, LinkedHashMap::new));
        Set<String> named = InstrumentsInUse.serials(Session.start("", "", now), sheet, known.keySet());
        Kit.Standing standing = kit.inPlaceOf(named, stock);
        List<String> lacking = new ArrayList<>(standing.lacking());
        Map<String, String> serials = new LinkedHashMap<>(standing.serials());
        serials.values()
                .forEach(
                        s -> Objects.requireNonNull(known.get(s)).objection(now).ifPresent(lacking::add));
        Map<String, List<String>> before = new LinkedHashMap<>();
        List<Command> acts = new ArrayList<>();
        sheet.channels().forEach((name, channel) -> {
            before.put(name, Link.serials(session.channel(sheet, name).chain()));
            Setup setup = session.setup(name);
            List<Link> links = links(channel, serials, known, lacking);
            boolean asSheet = links.equals(channel.chain());
            boolean elsewhere =
                    setup.chain() != null && !Link.serials(setup.chain()).equals(Link.serials(links));
            if (!asSheet && setup.chain() == null || elsewhere) {
                acts.add(new RigCommand.SetUp(name, setup.withChain(asSheet ? null : links), channel.label()));
            }
        });
        sheet.inputs()
                .forEach((name, input) ->
                        tie(name, input, session, serials, known, lacking).ifPresent(acts::add));
        RigCommand.WorkAtBench move = new RigCommand.WorkAtBench(kit.bench(), serials, before, now);
        List<Command> all = new ArrayList<>(List.of(move));
        all.addAll(acts);
        return new Move(new Command.Together(move.says(), all), List.copyOf(lacking));
    }

    private static List<Link> links(
            Channel channel, Map<String, String> serials, Map<String, Instrument> known, List<String> lacking) {
        List<Link> out = new ArrayList<>();
        for (Link l : channel.chain()) {
            String own = l.instrument() == null ? null : serials.get(l.instrument());
            Link other =
                    own == null ? null : Objects.requireNonNull(known.get(own)).link();
            if (own == null) {
                out.add(l);
            } else if (other == null) {
                // The stockroom does not say how it answers: it is the sheet's instrument under another serial.
                out.add(l.named(own, l.label()));
            } else if (Objects.equals(other.kind(), l.kind())
                    && Objects.equals(other.from(), l.from())
                    && Objects.equals(other.to(), l.to())) {
                out.add(other.named(own, l.label()));
            } else {
                lacking.add(own + " is set up for " + other.from() + ", and " + channel.label() + " needs " + l.from()
                        + "; look at it at Rig.");
                out.add(l);
            }
        }
        return out;
    }

    private static Optional<Command> tie(
            String name,
            Sheet.Input input,
            Session session,
            Map<String, String> serials,
            Map<String, Instrument> known,
            List<String> lacking) {
        if (session.measured().containsKey(name) || input.by() == null || input.isGiven() || input.value() == null) {
            return Optional.empty();
        }
        Optional<Instrument> own = Pattern.compile("[^A-Za-z0-9._-]+")
                .splitAsStream(input.by())
                .filter(serials::containsKey)
                .map(w -> known.get(serials.get(w)))
                .findFirst();
        Instrument tied = session.tied().get(name);
        if (own.isEmpty()) {
            return tied != null && session.bench().serials().containsValue(tied.id())
                    ? Optional.of(new PlanningCommand.TieInput(name, input.label(), null))
                    : Optional.empty();
        }
        Quantity nominal = Reading.parse(session.planned().getOrDefault(name, input.value()))
                .toQuantity("nominal", "", "");
        if (!own.get().reads(nominal)) {
            lacking.add(own.get().name() + " " + own.get().id() + " does not read " + input.label()
                    + "; choose what it is read with at Plan.");
            return Optional.empty();
        }
        return Optional.of(new PlanningCommand.TieInput(name, input.label(), own.get()));
    }
}
