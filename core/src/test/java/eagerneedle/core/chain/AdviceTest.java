package eagerneedle.core.chain;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class AdviceTest {
    private static final double NONE = Double.NaN;
    private final Link pair = Link.sensor("type K pair", "degC", "mV", "thermocouple", Map.of("pair", "K"));
    private final Link toVolts = Link.linear("conditioner", "leads", "mV", "V", "0.001", null);

    private static Advice.Need need(double low, double high, double step) {
        return new Advice.Need(low, high, step, 10, 1, NONE, NONE);
    }

    private static Advice about(String what, List<Advice> all) {
        return all.stream().filter(a -> a.about().equals(what)).findFirst().orElseThrow();
    }

    @Test
    void aCoarseStepIsCuredByTheSmallestGainThatDoes() {
        Chain chain = Chain.of(List.of(pair, toVolts, Link.converter("logger", "V", -0.8, 0.8, 13, "signed")));
        Advice a = about("step", Advice.on(chain, need(15, 80, 0.1)));
        assertThat(a.good()).isFalse();
        // 195 µV a step over 40.8 µV/K is 4.8 K; fifty times less is 0.096 K.
        assertThat(a.fix().label()).isEqualTo("add gain 50");
        Chain better = Chain.of(a.fix().chain());
        assertThat(better.step(15, 80)).isLessThanOrEqualTo(0.1);
        assertThat(better.reach()[1]).isGreaterThan(80);
        assertThat(about("step", Advice.on(better, need(15, 80, 0.1))).good()).isTrue();
    }

    @Test
    void aSaturatingGainIsTurnedDownToTheLargestThatFits() {
        Link amplifier = new Link(
                "conditioner",
                "amplifier",
                null,
                "mV",
                "V",
                null,
                null,
                "1.000(2)",
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                List.of(0.05, 0.1, 0.2, 0.5, 1.0),
                null,
                null,
                null,
                null,
                null);
        Chain chain = Chain.of(List.of(pair, amplifier, Link.converter("logger", "V", -1, 1, 16, "signed")));
        Advice a = about("range", Advice.on(chain, need(15, 80, NONE)));
        assertThat(a.good()).isFalse();
        assertThat(a.says()).contains("logger is at its limit");
        // 3.27 mV at 80 °C: gain 0.2 gives 0.65 V, gain 0.5 too much.
        assertThat(a.fix().label()).isEqualTo("set gain 0.2");
        assertThat(Chain.of(a.fix().chain()).shared().get(0).contribution().applyAsDouble(80))
                .as("the share of uncertainty is kept")
                .isNotZero();
        assertThat(about("range", Advice.on(Chain.of(a.fix().chain()), need(15, 80, NONE)))
                        .good())
                .isTrue();
    }

    @Test
    void aSensorAtItsLimitHasNoFixByClick() {
        Chain chain =
                Chain.of(List.of(pair.within(0, 60), toVolts, Link.converter("logger", "V", -1, 1, 16, "signed")));
        Advice a = about("range", Advice.on(chain, need(15, 80, NONE)));
        assertThat(a.good()).isFalse();
        assertThat(a.says()).contains("type K pair is at its limit").contains("wider");
        assertThat(a.fix()).isNull();
    }

    @Test
    void noiseAsksForAveragingOnlyWhereItHelps() {
        Chain chain = Chain.of(List.of(
                Link.linear("sensor", "hook", "N", "V", "0.1", null),
                Link.converter("logger", "V", -5, 5, 16, "signed")));
        Advice noisy = about("noise", Advice.on(chain, new Advice.Need(0, 10, 0.01, 10, 1, NONE, 0.03)));
        assertThat(noisy.fix().average()).isEqualTo(9);
        Advice hopeless = about("noise", Advice.on(chain, new Advice.Need(0, 10, 0.01, 10, 1, NONE, 3)));
        assertThat(hopeless.good()).isFalse();
        assertThat(hopeless.fix()).isNull();
        Advice limited = about("noise", Advice.on(chain, new Advice.Need(0, 10, 0.01, 10, 16, NONE, 0.0002)));
        assertThat(limited.says()).contains("averaging gains nothing");
    }

    @Test
    void theRateFollowsTheFastestThing() {
        Chain chain = Chain.of(List.of(
                Link.linear("sensor", "hook", "N", "V", "0.1", null),
                Link.converter("logger", "V", -5, 5, 16, "signed")));
        Advice slow = about("rate", Advice.on(chain, new Advice.Need(0, 10, 0.01, 50, 1, 0.03, NONE)));
        assertThat(slow.fix().rate()).isEqualTo(500);
        assertThat(about("rate", Advice.on(chain, new Advice.Need(0, 10, 0.01, 500, 1, 0.03, NONE)))
                        .good())
                .isTrue();
        assertThat(Advice.pressing(Advice.on(chain, new Advice.Need(0, 10, 0.01, 50, 1, 0.03, NONE))))
                .extracting(Advice::about)
                .containsExactly("rate");
    }
}
