package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

class QuantityTest {
    private static Quantity q(String text, String id) {
        return Reading.parse(text).toQuantity(id, id, "test");
    }

    @Test
    void aQuantityMinusItselfIsExactlyNothing() {
        Quantity x = q("9.8123(4) m/s^2", "x");
        Quantity none = x.minus(x);
        assertThat(none.value()).isZero();
        assertThat(none.u()).isZero();
        assertThat(none.isExact()).isTrue();
        assertThat(x.dividedBy(x).u()).isZero();
        assertThat(x.plus(x).u()).isEqualTo(2 * x.u());
    }

    @Test
    void independentUncertaintiesAddInSquare() {
        Quantity sum = q("3.0(3) m", "a").plus(q("4.0(4) m", "b"));
        assertThat(sum.value()).isEqualTo(7);
        assertThat(sum.u()).isCloseTo(0.5, within(1e-15));
    }

    @Test
    void productsCarryRelativeUncertainties() {
        Quantity a = q("2.00(2) m", "a");
        Quantity b = q("5.00(10) kg", "b");
        Quantity p = a.times(b);
        assertThat(p.u() / p.value()).isCloseTo(Math.hypot(0.01, 0.02), within(1e-15));
        assertThat(p.unit().symbol()).isEqualTo("kg*m");
        Quantity r = a.dividedBy(b);
        assertThat(r.u() / r.value()).isCloseTo(Math.hypot(0.01, 0.02), within(1e-15));
    }

    @Test
    void lengthsInDifferentUnitsMeetInTheLeftOne() {
        Quantity sum = q("2 mm", "a").plus(q("1 cm", "b"));
        assertThat(sum.value()).isCloseTo(12, within(1e-12));
        assertThat(sum.unit().symbol()).isEqualTo("mm");
        assertThat(q("3 mm", "a").dividedBy(q("2 m", "b")).value()).isCloseTo(0.0015, within(1e-18));
    }

    @Test
    void temperaturesAndDifferencesAreNotConfused() {
        Quantity t = q("20.0(5) degC", "t");
        assertThat(t.plus(q("5 K", "d")).value()).isEqualTo(25);
        assertThat(q("5 K", "d").plus(t).unit().symbol()).isEqualTo("degC");
        assertThatThrownBy(() -> t.plus(q("5 degC", "s")))
                .isInstanceOf(UnitException.class)
                .hasMessageContaining("cannot be added");
        Quantity d = q("30.0(5) degC", "s").minus(t);
        assertThat(d.unit().symbol()).isEqualTo("K");
        assertThat(d.value()).isCloseTo(10, within(1e-12));
        assertThat(d.u()).isCloseTo(0.5 * Math.sqrt(2), within(1e-12));
        assertThat(t.minus(q("2 K", "d")).value()).isEqualTo(18);
        assertThatThrownBy(() -> q("5 K", "d").minus(t)).isInstanceOf(UnitException.class);
        for (Runnable meaningless : List.<Runnable>of(
                () -> t.times(Quantity.number(2)),
                () -> q("3 W/K", "w").times(t),
                () -> t.dividedBy(q("2 s", "s")),
                () -> q("1 J", "j").dividedBy(t),
                () -> t.power(2))) {
            assertThatThrownBy(meaningless::run)
                    .isInstanceOf(UnitException.class)
                    .hasMessageContaining("write the difference in K, or to(..., \"K\")");
        }
        assertThat(t.to(LabUnit.KELVIN).times(Quantity.number(1)).value()).isCloseTo(293.15, within(1e-12));
    }

    @Test
    void powersFollowTheChainRule() {
        Quantity h = q("0.250(5) m", "h");
        Quantity p = h.power(2.5);
        assertThat(p.value()).isCloseTo(Math.pow(0.25, 2.5), within(1e-15));
        assertThat(p.u()).isCloseTo(2.5 * Math.pow(0.25, 1.5) * 0.005, within(1e-15));
        assertThatThrownBy(() -> q("-1.0(1)", "n").power(0.5)).isInstanceOf(ArithmeticException.class);
        assertThatThrownBy(() -> q("0.0(1)", "n").power(0.5))
                .isInstanceOf(ArithmeticException.class)
                .hasMessageContaining("slope");
        assertThatThrownBy(() -> Quantity.number(0).power(-1)).isInstanceOf(ArithmeticException.class);
    }

    @Test
    void divisionByZeroIsToldNotComputed() {
        assertThatThrownBy(() -> q("1 m", "a").dividedBy(Quantity.number(0)))
                .isInstanceOf(ArithmeticException.class)
                .hasMessageContaining("zero");
    }

    @Test
    void degreesOfFreedomFollowWelchAndSatterthwaite() {
        Quantity a = Quantity.of(1, 0.3, LabUnit.ONE, Leaf.typeA("a", "a", "", 4));
        Quantity b = Quantity.of(1, 0.4, LabUnit.ONE, Leaf.typeA("b", "b", "", 9));
        double expected = Math.pow(0.25, 2) / (Math.pow(0.09, 2) / 4 + Math.pow(0.16, 2) / 9);
        assertThat(a.plus(b).dof()).isCloseTo(expected, within(1e-9));
        assertThat(q("1.0(1)", "x").dof()).isInfinite();
        assertThat(Quantity.number(3).dof()).isInfinite();
    }

    @Test
    void leavesOfOnePoolShareTheirDegreesOfFreedom() {
        Leaf first = Leaf.typeA("f#0", "scatter", "", 5).inPool("f");
        Leaf second = Leaf.typeA("f#1", "scatter", "", 5).inPool("f");
        Quantity both = Quantity.of(0, 0.3, LabUnit.ONE, first).with(second, 0.4);
        assertThat(both.dof()).isCloseTo(5, within(1e-12));
    }

    @Test
    void covarianceAndCorrelationComeFromSharedLeaves() {
        Quantity r = q("0.100(1) m", "r");
        Quantity a = r.times(q("2.0(1) N", "f1"));
        Quantity b = r.times(q("3.0(1) N", "f2"));
        assertThat(a.covariance(b)).isCloseTo(2 * 3 * 1e-6, within(1e-18));
        assertThat(a.correlation(b)).isCloseTo(6e-6 / (a.u() * b.u()), within(1e-12));
        assertThat(r.correlation(r)).isEqualTo(1);
        assertThat(r.correlation(Quantity.number(2))).isZero();
    }

    @Test
    void limitsAddUpAbsolutely() {
        Quantity a = q("10.0 limit 0.3 mm", "a");
        Quantity b = q("4.0 limit 0.2 mm", "b");
        assertThat(a.minus(b).limit()).isCloseTo(0.5, within(1e-12));
        assertThat(q("1.00(5) V", "v").limit()).isCloseTo(0.10, within(1e-12));
    }

    @Test
    void budgetsAreSortedAndSumToOne() {
        Quantity g = q("1.00(3) m", "a").plus(q("1.00(4) m", "b")).plus(q("1.000(1) m", "c"));
        Budget budget = Budget.of(g);
        assertThat(budget.lines()).extracting(Budget.Line::label).containsExactly("b", "a", "c");
        assertThat(budget.lines().stream().mapToDouble(Budget.Line::share).sum())
                .isCloseTo(1, within(1e-12));
        double halved = Math.sqrt(0.03 * 0.03 + 0.02 * 0.02 + 1e-6);
        assertThat(budget.lines().get(0).combinedIfHalved(g.u())).isCloseTo(halved, within(1e-12));
        assertThat(Budget.of(Quantity.number(2)).lines()).isEmpty();
    }

    @Test
    void conversionScalesValueAndUncertaintyTogether() {
        Quantity x = q("12.40(30) mm", "x").to(LabUnit.parse("m"));
        assertThat(x.value()).isCloseTo(0.0124, within(1e-17));
        assertThat(x.u()).isCloseTo(0.0003, within(1e-17));
        assertThat(x.to(LabUnit.parse("mm")).value()).isCloseTo(12.4, within(1e-12));
        assertThatThrownBy(() -> x.to(LabUnit.parse("s"))).isInstanceOf(UnitException.class);
    }

    @Test
    void onlyWantedInfluencesAreKept() {
        Quantity x = q("1.0(3)", "a").plus(q("2.0(4)", "b"));
        Quantity kept = x.keeping(l -> l.id().equals("a"));
        assertThat(kept.value()).isEqualTo(3);
        assertThat(kept.u()).isCloseTo(0.3, within(1e-15));
        assertThat(kept.contributions().keySet()).extracting(Leaf::id).isEqualTo(List.of("a"));
    }

    @Test
    void anImpossibleUncertaintyIsRefused() {
        assertThatThrownBy(() -> Quantity.of(1, -0.1, LabUnit.ONE, Leaf.typeA("a", "a", "", 3)))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> Leaf.typeA("a", "a", "", 0)).isInstanceOf(IllegalArgumentException.class);
    }

    /**
     * Student's t for 95 %: 12.706 at 1 degree of freedom, 4.303 at 2, 2.228 at 10; from about 60 on twice the standard
     * uncertainty is more.
     */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({
        "1, 12.7062",
        "2, 4.30265",
        "10, 2.22814",
        "60, 2.0003",
        "200, 2",
        "Infinity, 2"
    })
    void aLimitFromFewReadingsIsNoTighterThanNinetyFivePerCent(double dof, double factor) {
        Quantity q = Quantity.number(5).with(Leaf.typeA("s", "scatter", "readings", dof), 0.1);
        assertThat(q.limit()).isCloseTo(0.1 * factor, within(1e-5));
        assertThat(Quantity.number(5)
                        .with(Leaf.typeA("s", "scatter", "readings", dof).withLimitFactor(1.1), 0.1)
                        .limit())
                .as("a multiple that was stated stands")
                .isCloseTo(0.11, within(1e-12));
    }
}
