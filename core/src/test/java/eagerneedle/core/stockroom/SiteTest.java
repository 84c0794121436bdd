package eagerneedle.core.stockroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a laboratory says once, and which instruments of a bench stand in for those of a sheet. */
class SiteTest {
    private static final String TEXT = """
            laboratory: Tarn Hollow College, physics
            g: 9.8127(2) m/s^2
            mains: 50 Hz
            pressure: 98.6(15) kPa
            paper: letter
            staff: [M. Ash, J. Birch]
            kits:
              bench 7: [TH-CP-07, TH-LG-07, TH-LG-08]
              bench 9: [TH-CP-01]
            """;

    private static Instrument instrument(String id, String kind, String name, String measures) {
        return new Instrument(
                id, kind, name, measures, null, null, null, null, null, null, null, null, null, null, null, false);
    }

    private static List<Instrument> stock() {
        List<Instrument> all = new ArrayList<>();
        for (String n : List.of("01", "07")) {
            all.add(instrument("TH-CP-" + n, "hand instrument", "caliper", "mm"));
        }
        for (String n : List.of("01", "02", "07", "08")) {
            all.add(instrument("TH-LG-" + n, "converter", "logger " + n, "V"));
        }
        all.add(instrument("TH-CM-01", "reference", "check masses", "g"));
        all.add(instrument("TH-MM-01", "hand instrument", "micrometer", "mm"));
        return all;
    }

    @Test
    void everythingSaidIsThere() {
        Site site = Site.read(TEXT, "site.yaml");
        assertThat(site.said())
                .containsEntry("g", "9.8127(2) m/s^2")
                .containsEntry("mains", "50 Hz")
                .containsEntry("pressure", "98.6(15) kPa");
        assertThat(site.letter()).isTrue();
        assertThat(site.staff()).containsExactly("M. Ash", "J. Birch");
        assertThat(site.kit("Bench 7 ").orElseThrow().serials()).hasSize(3);
        assertThat(site.kit("bench 8")).isEmpty();
        assertThat(Site.read("", "site.yaml")).isEqualTo(Site.UNSAID);
    }

    @Test
    void aBenchGivesWhatItHasOfEachKindAndSaysWhatItLacks() {
        Set<String> named = new LinkedHashSet<>(List.of("TH-LG-01", "TH-LG-02", "TH-CP-01", "TH-CM-01", "TH-MM-01"));
        Kit.Standing at = Site.read(TEXT, "s").kit("bench 7").orElseThrow().inPlaceOf(named, stock());
        // Two loggers in their order; a reference belongs to no bench; the micrometer is not there.
        assertThat(at.serials())
                .containsExactly(
                        java.util.Map.entry("TH-LG-01", "TH-LG-07"),
                        java.util.Map.entry("TH-LG-02", "TH-LG-08"),
                        java.util.Map.entry("TH-CP-01", "TH-CP-07"));
        assertThat(at.lacking())
                .containsExactly("bench 7 has no micrometer of its own; TH-MM-01 is used, as the sheet says.");
        // What the sheet names and the bench has stays.
        assertThat(Site.read(TEXT, "s").kit("bench 9").orElseThrow().inPlaceOf(Set.of("TH-CP-01"), stock()))
                .isEqualTo(new Kit.Standing(java.util.Map.of(), List.of()));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "g: fast | g cannot be used",
                "g: 9.81 kg | is not in m/s^2",
                "g: -9.81 m/s^2 | is not above 0",
                "gravity: 9.81 m/s^2 | has no entry gravity",
                "paper: A5 | paper is A4 or Letter, not A5",
                "staff: M. Ash | staff is a list",
                "'staff: [A, A]' | stands twice",
                "'staff: [[A]]' | a list of names",
                "kits: [TH-CP-07] | one bench a line",
                "'kits: {a: [X-1], b: [X-1]}' | stands at a and at b",
                "'- 1' | says nothing of a laboratory",
                "'g: [' | line 1"
            })
    void whatCannotBeUsedIsOneSentence(String text, String says) {
        assertThatThrownBy(() -> Site.read(text, "site.yaml"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("site.yaml")
                .hasMessageContaining(says)
                .hasMessageEndingWith(".");
    }
}
