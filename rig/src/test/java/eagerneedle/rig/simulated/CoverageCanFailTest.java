package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A coverage that could not fail would prove nothing: a main result whose formula is broken misses its truth. */
class CoverageCanFailTest {
    /** A formula that is broken misses nearly always: forty sessions tell it from one that hits in 95 of 100. */
    private static final int SESSIONS = Math.min(40, Integer.getInteger("sessions", 4));

    private static double coverage(SheetReader.Located sheet, String result) {
        return IntStream.range(0, SESSIONS)
                        .parallel()
                        .filter(seed -> {
                            Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Set.of()), Instant.EPOCH);
                            Quantity q = new Reducer(
                                            sheet,
                                            (run, channel) -> r.samples()
                                                    .getOrDefault(run, Map.of())
                                                    .getOrDefault(channel, RawSamples.NONE))
                                    .reduce(r.session())
                                    .quantity(result)
                                    .orElseThrow();
                            double error = q.value() - r.truth().get(result).in(q.unit());
                            return Math.abs(error) <= Coverage.DEFAULT.expanded(q);
                        })
                        .count()
                / (double) SESSIONS;
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            baggage-chute     | g        | "g_eff * (1 + k_w * m_w / m_c)"                  | "g_eff"
            potters-wheel     | I_disc   | "I_w_disc - I_bare"                              | "I_w_disc"
            weather-vane-reed | k_static | "slope(static_line) * 3 * h * x / (2 * L^3)"     | "slope(static_line) * 3 * h * (L - x) / (2 * L^3)"
            fading-dye        | E_a      | "-slope(arrhenius) * R"                          | "slope(arrhenius) * R"
            drying-cabinet    | T_air    | "mean(air.T)"                                    | "mean(air.T) + 3 K"
            dividing-tables   | lower_1  | "row(tables.lower, 1)"                           | "-row(tables.lower, 1)"
            calibration-day   | beam     | "gate.intercept"                                 | "2 * gate.intercept"
            colliding-wagons  | e_r      | "mean(where(meet.e, kind == springy))"           | "mean(where(meet.e, kind == springy))^2"
            trolley-two-gates | M_line   | "law.slope * (1 + mu) - m_p"                     | "2 * law.slope * (1 + mu) - m_p"
            riding-carriage   | ratio    | "mean(ride.F) / (m_hang * g)"                    | "mean(ride.F) / (2 * m_hang * g)"
            whirling-bob      | m_T      | "by_T.slope / (4 * pi^2 * r_one)"                | "by_T.slope / (2 * pi^2 * r_one)"
            flask-jackets     | G.foam   | "k * (m * c_w + C_flask)"                        | "k * m * c_w"
            warmed-cord       | share    | "sum(weight * phi) / sum(weight)"                | "sum(weight * phi) / sum(weight) / 2"
            cooling-alloys    | w_E      | "(rich.intercept - poor.intercept) / (poor.slope - rich.slope)" | "(rich.intercept - poor.intercept) / (poor.slope + rich.slope)"
            indicator-diode   | n        | a / V_T                                          | 2 * a / V_T
            letter-scale      | m_u      | "sum(unknown.eps) / 5"                           | "sum(unknown.eps) / 4"
            signpost-arm      | P_bend   | "sigma * I / (d_o / 2 * L)"                      | "sigma * I / (d_o * L)"
            brake-reservoir   | sigma_h  | "E / (1 - nu^2) * (e_h + nu * e_a) * p_6"        | "E / (1 - nu^2) * (e_h - nu * e_a) * p_6"
            plank-footbridge  | E_q.three | "pair_q / (W * per_q)"                          | "2 * pair_q / (W * per_q)"
            rain-spillway     | C_d.tri  | "flow.Q / shape"                                 | "2 * flow.Q / shape"
            mast-rotor        | eta.r10  | "P_e / P_w"                                      | "2 * P_e / P_w"
            counted-charge    | I_count  | "electron * seen / share"                        | "electron * seen * share"
            logging-day       | weight   | "row(hang.m, 'one') * g"                         | "row(hang.m, 'two') * g"
            """)
    void aBrokenFormulaMissesItsTruth(String method, String result, String good, String bad) {
        String text = SheetReader.shippedText(method);
        String from = "formula: " + good;
        assertThat(text).contains(from);
        SheetReader.Located broken = SheetTrial.read(text.replace(from, "formula: " + bad), method + ".yaml");
        assertThat(coverage(broken, result))
                .as("coverage of a broken " + result)
                .isLessThan(0.8);
    }
}
