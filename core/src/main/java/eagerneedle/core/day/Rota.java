package eagerneedle.core.day;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.chocosolver.solver.Model;
import org.chocosolver.solver.search.strategy.Search;
import org.chocosolver.solver.variables.IntVar;

/**
 * Who does what at which bench in which round: every group carries out as many different methods as are asked for, and
 * in no round is more of anything needed than there is.
 *
 * <p>Benches of one method are one constraint, instruments that several methods need another, so that neither an
 * assignment nor a colouring of edges gives it; it is left to a constraint solver. Where counting shows that something
 * runs short, that is said with how many are wanted; else one more of each thing is tried.
 *
 * @param places in the order of rounds, then of groups
 * @param clashes why there is no rota, and what would make one; empty where there is
 */
public record Rota(List<Place> places, List<String> clashes) {
    /** Seconds after which the solver is believed to find nothing. */
    private static final int PATIENCE_S = 10;

    private static final int TRIED_S = 2;

    /**
     * A group at a bench.
     *
     * @param slot the round, from 0
     * @param bench of this method, from 1
     */
    public record Place(int slot, String group, String method, int bench) {}

    public Rota {
        places = List.copyOf(places);
        clashes = List.copyOf(clashes);
    }

    public boolean isThere() {
        return clashes.isEmpty();
    }

    /**
     * Plans an afternoon.
     *
     * @param needs what a bench of each method needs, by its id in the afternoon
     * @param available how many there are of each kind; one that is not in it is there as often as it is needed
     */
    public static Rota of(Afternoon day, Map<String, Need> needs, Map<String, Integer> available) {
        List<Limit> limits = limits(day, needs, available);
        List<Limit> short1 = limits.stream().filter(l -> l.lacks(day) > 0).toList();
        if (!short1.isEmpty()) {
            // Counting alone shows it, and shows all of it; a search would take long to find out.
            return new Rota(List.of(), short1.stream().map(l -> l.counted(day)).toList());
        }
        Optional<List<Place>> found = solve(day, limits, PATIENCE_S);
        if (found.isPresent()) {
            return new Rota(found.get(), List.of());
        }
        List<String> says = new ArrayList<>();
        for (int i = 0; i < limits.size(); i++) {
            List<Limit> more = new ArrayList<>(limits);
            more.set(i, limits.get(i).with(1));
            if (solve(day, more, TRIED_S).isPresent()) {
                says.add(limits.get(i).says());
            }
        }
        return new Rota(
                List.of(),
                says.isEmpty()
                        ? List.of("No rota was found with what there is, and one more of any one thing does not help: "
                                + "offer more rounds, or fewer methods to each group.")
                        : says);
    }

    /**
     * Of a set of methods at most so many benches at once.
     *
     * @param more names one of what is limited
     */
    private record Limit(String more, List<String> methods, int most) {
        Limit with(int lent) {
            return new Limit(more, methods, most + lent);
        }

        /** How often it is needed at least: a group leaves out at most so many methods, and carries out the others. */
        private int wanted(Afternoon day) {
            return Math.max(0, methods.size() - (day.methods().size() - day.each()))
                    * day.groups().size();
        }

        /** How many are missing by counting alone. */
        int lacks(Afternoon day) {
            return (wanted(day) + day.slots() - 1) / day.slots() - most;
        }

        String counted(Afternoon day) {
            int all = most + lacks(day);
            return there() + ", and " + all + (all == 1 ? " is" : " are") + " wanted; needed at least " + wanted(day)
                    + " times in " + day.slots() + (day.slots() == 1 ? " round." : " rounds.");
        }

        String says() {
            return there() + "; with one more there is a rota, and without there is none.";
        }

        private String there() {
            return more + ": there " + (most == 1 ? "is 1" : "are " + most);
        }
    }

    private static List<Limit> limits(Afternoon day, Map<String, Need> needs, Map<String, Integer> available) {
        List<Limit> out = new ArrayList<>();
        Map<String, List<String>> users = new LinkedHashMap<>();
        day.methods().forEach((m, offered) -> {
            if (offered.benches() > 0) {
                out.add(new Limit("bench of " + title(needs, m), List.of(m), offered.benches()));
            }
            Need need = needs.get(m);
            if (need != null) {
                need.kinds().stream()
                        .filter(k -> available.containsKey(k) && !day.shared().contains(k))
                        .forEach(k ->
                                users.computeIfAbsent(k, x -> new ArrayList<>()).add(m));
            }
        });
        users.forEach((kind, methods) -> out.add(new Limit(kind, methods, available.getOrDefault(kind, 0))));
        List<String> watched = day.methods().entrySet().stream()
                .filter(e -> e.getValue().staff())
                .map(Map.Entry::getKey)
                .toList();
        if (!watched.isEmpty() && !day.staff().isEmpty()) {
            out.add(new Limit("member of staff", watched, day.staff().size()));
        }
        return out;
    }

    private static String title(Map<String, Need> needs, String method) {
        Need n = needs.get(method);
        return n == null ? method : n.title();
    }

    private static Optional<List<Place>> solve(Afternoon day, List<Limit> limits, int seconds) {
        List<String> methods = List.copyOf(day.methods().keySet());
        int groups = day.groups().size();
        int n = methods.size();
        Model model = new Model();
        // Methods from 1; 0 for a round without one.
        IntVar[][] x = model.intVarMatrix(groups, day.slots(), 0, n);
        for (int g = 0; g < groups; g++) {
            model.allDifferentExcept0(x[g]).post();
            model.count(0, x[g], model.intVar(day.slots() - day.each())).post();
        }
        for (int s = 0; s < day.slots(); s++) {
            IntVar[] round = new IntVar[groups];
            for (int g = 0; g < groups; g++) {
                round[g] = x[g][s];
            }
            IntVar[] count = model.intVarArray(n, 0, groups);
            for (int m = 0; m < n; m++) {
                model.count(m + 1, round, count[m]).post();
            }
            for (Limit l : limits) {
                IntVar[] of =
                        l.methods().stream().map(m -> count[methods.indexOf(m)]).toArray(IntVar[]::new);
                model.sum(of, "<=", l.most()).post();
            }
        }
        IntVar[] flat = new IntVar[groups * day.slots()];
        for (int s = 0; s < day.slots(); s++) {
            for (int g = 0; g < groups; g++) {
                flat[s * groups + g] = x[g][s];
            }
        }
        // Groups can be exchanged for one another: the first round is taken in their order.
        for (int g = 1; g < groups; g++) {
            model.arithm(x[g - 1][0], "<=", x[g][0]).post();
        }
        model.getSolver().setSearch(Search.domOverWDegSearch(flat));
        model.getSolver().limitTime(seconds + "s");
        return model.getSolver().solve() ? Optional.of(places(day, methods, x)) : Optional.empty();
    }

    private static List<Place> places(Afternoon day, List<String> methods, IntVar[][] x) {
        List<Place> out = new ArrayList<>();
        for (int s = 0; s < day.slots(); s++) {
            Map<String, Integer> benches = new LinkedHashMap<>();
            for (int g = 0; g < x.length; g++) {
                int m = x[g][s].getValue();
                if (m > 0) {
                    String method = methods.get(m - 1);
                    out.add(new Place(s, day.groups().get(g), method, benches.merge(method, 1, Integer::sum)));
                }
            }
        }
        return Collections.unmodifiableList(out);
    }

    /** The place of a group in a round; empty where it has none. */
    public Optional<Place> of(String group, int slot) {
        return places.stream()
                .filter(p -> p.slot() == slot && p.group().equals(group))
                .findFirst();
    }

    /** How many benches of a method are ever used at once. */
    public int benches(String method) {
        return places.stream()
                .filter(p -> p.method().equals(method))
                .mapToInt(Place::bench)
                .max()
                .orElse(0);
    }
}
