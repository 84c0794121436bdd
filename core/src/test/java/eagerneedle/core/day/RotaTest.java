package eagerneedle.core.day;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RotaTest {
    private static final String FIVE = """
            day: Monday afternoon
            date: 2026-11-30
            begins: "13:30"
            slots: 5
            groups: 12
            methods: {dye: {benches: 3}, jacket: {}, wheel: {benches: 3}, scale: {benches: 3}, arm: {staff: true}}
            staff: [M. Ash, J. Birch, R. Elm]
            """;

    private static Map<String, Need> needs() {
        Map<String, Need> out = new LinkedHashMap<>();
        out.put("dye", new Need("dye", "Fading dye", List.of("photometer", "pipette"), 20));
        out.put("jacket", new Need("jacket", "Jackets", List.of("thermometer", "photometer"), 0));
        out.put("wheel", new Need("wheel", "Wheel", List.of(), 0));
        out.put("scale", new Need("scale", "Scale", List.of("thermometer"), 0));
        out.put("arm", new Need("arm", "Arm", List.of(), 0));
        return out;
    }

    private static void holds(Afternoon day, Rota rota, Map<String, Integer> available) {
        assertThat(rota.clashes()).isEmpty();
        for (String g : day.groups()) {
            Set<String> done = new HashSet<>();
            for (int s = 0; s < day.slots(); s++) {
                rota.of(g, s)
                        .ifPresent(p -> assertThat(done.add(p.method()))
                                .as(g + " twice " + p)
                                .isTrue());
            }
            assertThat(done).hasSize(day.each());
        }
        for (int s = 0; s < day.slots(); s++) {
            Map<String, Integer> used = new LinkedHashMap<>();
            Set<String> places = new HashSet<>();
            int watched = 0;
            for (Rota.Place p : rota.places()) {
                if (p.slot() == s) {
                    assertThat(places.add(p.method() + p.bench()))
                            .as("one group a bench")
                            .isTrue();
                    needs().get(p.method()).kinds().forEach(k -> used.merge(k, 1, Integer::sum));
                    Afternoon.Offered o = day.methods().get(p.method());
                    assertThat(p.bench()).isLessThanOrEqualTo(o.benches() == 0 ? 99 : o.benches());
                    watched += o.staff() ? 1 : 0;
                }
            }
            used.forEach((kind, n) -> assertThat(n).as(kind).isLessThanOrEqualTo(available.getOrDefault(kind, 99)));
            assertThat(watched).isLessThanOrEqualTo(day.staff().size());
        }
    }

    @Test
    void twelveGroupsFiveMethodsAndFivePhotometers() {
        Afternoon day = Afternoon.read(FIVE, "day.yaml");
        Map<String, Integer> have = Map.of("photometer", 5, "thermometer", 6);
        Rota rota = Rota.of(day, needs(), have);
        holds(day, rota, have);
        assertThat(rota.places()).hasSize(60);
        assertThat(day.at(2)).hasToString("15:20");
    }

    /** Two methods need one each: 24 times in five rounds, which three photometers do not give, and five do. */
    @Test
    void whatRunsShortIsSaidWithHowManyMore() {
        Afternoon day = Afternoon.read(FIVE, "day.yaml");
        Rota rota = Rota.of(day, needs(), Map.of("photometer", 3, "thermometer", 6));
        assertThat(rota.places()).isEmpty();
        assertThat(rota.clashes())
                .containsExactly("photometer: there are 3, and 5 are wanted; needed at least 24 times in 5 rounds.");
    }

    @Test
    void whereTwoThingsRunShortBothAreSaid() {
        Afternoon day = Afternoon.read(FIVE.replace("dye: {benches: 3}", "dye: {benches: 1}"), "day.yaml");
        Rota rota = Rota.of(day, needs(), Map.of("photometer", 2, "thermometer", 1));
        assertThat(rota.clashes())
                .anyMatch(c -> c.contains("bench of Fading dye: there is 1, and 3 are wanted"))
                .anyMatch(c -> c.contains("photometer: there are 2, and 5 are wanted"))
                .anyMatch(c -> c.contains("thermometer: there is 1, and 5 are wanted"));
    }

    @Test
    void whoCarriesOutFewerMethodsHasRoundsWithoutOne() {
        Afternoon day = Afternoon.read(FIVE + "each: 3\n", "day.yaml");
        Map<String, Integer> have = Map.of("photometer", 3, "thermometer", 6);
        Rota rota = Rota.of(day, needs(), have);
        holds(day, rota, have);
        assertThat(rota.places()).hasSize(36);
    }

    @Test
    void whatIsSharedRunsNeverShort() {
        Afternoon day = Afternoon.read(FIVE + "shared: [Photometer]\n", "day.yaml");
        assertThat(Rota.of(day, needs(), Map.of("photometer", 1, "thermometer", 6))
                        .isThere())
                .isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "[1, 2]",
                "groups: 3",
                "date: 2026-11-30\ngroups: 3",
                "date: 30.11.2026\ngroups: 3\nmethods: [a]",
                "date: 2026-11-30\ngroups: 0\nmethods: [a]",
                "date: 2026-11-30\ngroups: [a, a]\nmethods: [a]",
                "date: 2026-11-30\ngroups: 3\nmethods: [a]\neach: 2\nslots: 3",
                "date: 2026-11-30\ngroups: 3\nmethods: [a]\nrounds: 2",
                "date: 2026-11-30\ngroups: 3\nmethods: {a: {benches: 0}}",
                "date: 2026-11-30\ngroups: 3\nmethods: a",
                "date: 2026-11-30\nbegins: noon\ngroups: 3\nmethods: [a]",
                "date: 2026-11-30\ngroups: [A, {b: 1}]\nmethods: [a]",
                "date: 2026-11-30\ngroups: [A, '']\nmethods: [a]",
                "date: 2026-11-30\ngroups: 3\nmethods: {a: 3}",
                "date: 2026-11-30\ngroups: 3\nmethods: {a: {bench: 3}}",
                "date: [2026\n",
            })
    void whatCannotBeReadIsSaidInOneSentence(String text) {
        assertThatThrownBy(() -> Afternoon.read(text, "day.yaml"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith("day.yaml")
                .hasMessageEndingWith(".");
    }

    @Test
    void anAfternoonIsOverByMidnight() {
        String to = "date: 2026-11-30\nbegins: '13:30'\nminutes: 300\nbetween: 30\ngroups: 2\nmethods: [a, b]\nslots: ";
        assertThat(Afternoon.read(to + 1, "day.yaml").at(0)).hasToString("13:30");
        assertThat(Afternoon.read(to.replace("300", "600") + "1", "day.yaml").slots())
                .isEqualTo(1);
        assertThatThrownBy(() -> Afternoon.read(to + 3, "day.yaml")).hasMessageContaining("beyond midnight");
    }
}
