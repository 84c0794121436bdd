package eagerneedle.app.day;

import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.core.day.Afternoon;
import eagerneedle.core.day.Need;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.core.day.Rota;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * An afternoon as it is carried out: its rota, what every bench of it needs from the stockroom and when, and what
 * stands in the way.
 *
 * @param day what is asked for
 * @param rota who does what
 * @param needs what a bench of each method needs
 * @param benches each bench with its instruments, in the order of the methods
 * @param fetching what is fetched from the stockroom, each kind once with how many benches need it
 * @param warnings what is overdue, missing, or to be switched on early, one sentence each
 */
public record DayPlan(
        Afternoon day,
        Rota rota,
        Map<String, Need> needs,
        List<Bench> benches,
        List<String> fetching,
        List<String> warnings) {
    /** Fewer minutes of warming up than this are not worth a time of their own. */
    private static final double WARM = 1;

    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm");

    /**
     * One bench of a method.
     *
     * @param number among those of its method, from 1
     * @param instruments serials of the stockroom with what they are called; kinds without a serial by their name
     * @param switchedOn when it is to be switched on; empty where nothing has to warm up
     * @param groups who is there, by round; empty for nobody
     */
    public record Bench(
            String method,
            String title,
            int number,
            List<String> instruments,
            String switchedOn,
            List<String> groups) {}

    public DayPlan {
        benches = List.copyOf(benches);
        fetching = List.copyOf(fetching);
        warnings = List.copyOf(warnings);
    }

    /**
     * Plans an afternoon with what the stockroom has.
     *
     * @param sheets the sheet of each method, by its name in the afternoon
     * @param stock the instruments of the laboratory
     */
    public static DayPlan of(Afternoon day, Map<String, Sheet> sheets, List<Instrument> stock) {
        Instant at =
                day.date().atTime(day.begins()).atZone(ZoneId.systemDefault()).toInstant();
        Set<String> known = stock.stream().map(Instrument::id).collect(Collectors.toSet());
        Map<String, Need> needs = new LinkedHashMap<>();
        Set<String> warnings = new LinkedHashSet<>();
        Set<String> wanted = new LinkedHashSet<>();
        day.methods().forEach((m, offered) -> {
            Sheet sheet = java.util.Objects.requireNonNull(sheets.get(m));
            Set<String> kinds = new LinkedHashSet<>();
            double warm = sheet.prepare().stream()
                    .mapToDouble(Sheet.Step::minutes)
                    .max()
                    .orElse(0);
            for (String serial : InstrumentsInUse.serials(Session.start("", "", at), sheet, known)) {
                Optional<Instrument> i =
                        stock.stream().filter(x -> x.id().equals(serial)).findFirst();
                if (i.isEmpty()) {
                    warnings.add(sheet.title() + " names " + serial + ", which the stockroom does not have.");
                } else {
                    kinds.add(kind(i.get()));
                    warm = Math.max(warm, i.get().warmUp() == null ? 0 : i.get().warmUp());
                }
            }
            offered.needs().forEach(n -> kinds.add(n.toLowerCase(Locale.ROOT)));
            wanted.addAll(kinds);
            needs.put(m, new Need(m, name(sheet), List.copyOf(kinds), warm));
        });
        Map<String, List<Instrument>> there = new LinkedHashMap<>();
        for (Instrument i : stock) {
            if (!wanted.contains(kind(i))) {
                continue;
            }
            Optional<String> out = out(i, at);
            out.ifPresent(why -> warnings.add(i.id() + ", " + i.name() + ", " + why + "."));
            if (out.isEmpty()) {
                there.computeIfAbsent(kind(i), k -> new ArrayList<>()).add(i);
            }
        }
        Map<String, Integer> available = new LinkedHashMap<>();
        wanted.forEach(k -> available.put(
                k,
                day.have()
                        .getOrDefault(
                                k,
                                Math.max(
                                        day.kits(),
                                        there.getOrDefault(k, List.of()).size()))));
        Rota rota = Rota.of(day, needs, available);
        List<Bench> benches = rota.isThere() ? benches(day, rota, needs, there, available) : List.of();
        return new DayPlan(day, rota, needs, benches, fetching(rota, needs, there), List.copyOf(warnings));
    }

    /** What a method is called for short: its title up to a colon. */
    private static String name(Sheet sheet) {
        return sheet.title().split(":", 2)[0].strip();
    }

    /** What instruments that stand in for each other are called. */
    private static String kind(Instrument i) {
        return i.name().toLowerCase(Locale.ROOT);
    }

    /** Why an instrument cannot be used on that day. */
    private static Optional<String> out(Instrument i, Instant at) {
        if (i.retired()) {
            return Optional.of("is retired");
        }
        if (i.quarantine().isPresent()) {
            return Optional.of("is in quarantine and is not counted");
        }
        return i.calibration()
                .filter(c -> c.due() != null && c.due().isBefore(at))
                .map(c -> "is overdue for calibration since "
                        + DateTimeFormatter.ofPattern("d MMM uuuu", Locale.UK)
                                .withZone(ZoneId.systemDefault())
                                .format(c.due())
                        + " and is not counted");
    }

    /** Every bench that is used, with instruments of its own as far as there are enough for all at once. */
    private static List<Bench> benches(
            Afternoon day,
            Rota rota,
            Map<String, Need> needs,
            Map<String, List<Instrument>> there,
            Map<String, Integer> available) {
        List<Bench> out = new ArrayList<>();
        Map<String, Integer> given = new LinkedHashMap<>();
        needs.forEach((m, need) -> {
            for (int b = 1; b <= rota.benches(m); b++) {
                int bench = b;
                List<String> groups = new ArrayList<>();
                int first = -1;
                for (int s = 0; s < day.slots(); s++) {
                    int slot = s;
                    String who = rota.places().stream()
                            .filter(p -> p.slot() == slot && p.method().equals(m) && p.bench() == bench)
                            .map(Rota.Place::group)
                            .findFirst()
                            .orElse("");
                    groups.add(who);
                    first = first < 0 && !who.isEmpty() ? s : first;
                }
                List<String> instruments = need.kinds().stream()
                        .map(k -> instrument(
                                day, k, there.getOrDefault(k, List.of()), available.getOrDefault(k, 0), given))
                        .toList();
                String on = need.warmUp() > WARM
                        ? CLOCK.format(day.at(Math.max(0, first)).minusMinutes((long) Math.ceil(need.warmUp())))
                        : "";
                out.add(new Bench(m, need.title(), b, instruments, on, groups));
            }
        });
        return out;
    }

    private static String instrument(
            Afternoon day, String kind, List<Instrument> all, int available, Map<String, Integer> given) {
        if (day.shared().contains(kind)) {
            return (all.isEmpty() ? kind : all.get(0).id() + ", " + all.get(0).name()) + ", shared by all";
        }
        int n = given.merge(kind, 1, Integer::sum);
        if (n <= all.size()) {
            Instrument i = all.get(n - 1);
            return i.id() + ", " + i.name() + (i.place() == null ? "" : " (kept at " + i.place() + ")");
        }
        return n <= available ? kind : kind + ", handed on from another bench";
    }

    /** What is fetched: each kind once, with how many, and the serials that the stockroom has. */
    private static List<String> fetching(Rota rota, Map<String, Need> needs, Map<String, List<Instrument>> there) {
        Map<String, Integer> many = new java.util.TreeMap<>();
        needs.forEach((m, need) -> need.kinds().forEach(k -> many.merge(k, rota.benches(m), Integer::sum)));
        List<String> out = new ArrayList<>();
        many.forEach((kind, n) -> {
            String known = there.getOrDefault(kind, List.of()).stream()
                    .limit(n)
                    .map(i -> i.id() + (i.place() == null ? "" : ", kept at " + i.place()))
                    .collect(Collectors.joining("; "));
            if (n > 0) {
                out.add(kind + ": " + n + (known.isEmpty() ? "" : " (" + known + ")"));
            }
        });
        return out;
    }

    /** When a round begins and ends. */
    public String time(int slot) {
        return CLOCK.format(day.at(slot)) + " to " + CLOCK.format(day.at(slot).plusMinutes(day.minutes()));
    }

    /**
     * Which benches were looked at for that day: one line a method, the ones that are not ready first.
     *
     * @param checks in the order in which they were signed; the last of a bench counts
     */
    public List<String> ready(List<ReadyCheck> checks) {
        List<String> out = new ArrayList<>();
        needs.forEach((method, need) -> {
            Map<String, ReadyCheck> last = new LinkedHashMap<>();
            checks.stream()
                    .filter(c -> c.method().equals(method)
                            && c.at().atZone(ZoneId.systemDefault())
                                    .toLocalDate()
                                    .equals(day.date()))
                    .forEach(c -> last.put(c.bench(), c));
            if (last.isEmpty()) {
                return;
            }
            List<String> bad = last.values().stream()
                    .filter(c -> !c.isReady())
                    .map(c -> c.bench() + " is not ready ("
                            + c.rows().stream()
                                    .filter(r -> !r.good())
                                    .map(r -> r.what().toLowerCase(Locale.ROOT))
                                    .collect(Collectors.joining(", "))
                            + "; " + c.by() + ")")
                    .toList();
            List<String> good = last.values().stream()
                    .filter(ReadyCheck::isReady)
                    .map(c -> c.bench() + " (" + c.by() + ", "
                            + CLOCK.withZone(ZoneId.systemDefault()).format(c.at()) + ")")
                    .toList();
            List<String> parts = new ArrayList<>();
            bad.forEach(b -> parts.add("▲ " + b));
            if (!good.isEmpty()) {
                parts.add("ready: " + String.join(", ", good));
            }
            int open = rota.benches(method) - last.size();
            if (open > 0) {
                parts.add(open + (open == 1 ? " bench" : " benches") + " not looked at");
            }
            out.add(need.title() + ": " + String.join("; ", parts) + ".");
        });
        return out;
    }

    /** What is to be switched on, the earliest first. */
    public List<String> switching() {
        return benches.stream()
                .filter(b -> !b.switchedOn().isEmpty())
                .sorted(Comparator.comparing(Bench::switchedOn))
                .map(b -> b.switchedOn() + " " + b.title() + ", bench " + b.number())
                .toList();
    }
}
