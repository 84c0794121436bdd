package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;

/** Laws that hold for every quantity. */
class QuantityPropertiesTest {
    @Provide
    Arbitrary<Quantity> lengths() {
        return Combinators.combine(
                        Arbitraries.doubles().between(0.1, 1000),
                        Arbitraries.doubles().between(0, 0.2),
                        Arbitraries.integers().between(0, 6),
                        Arbitraries.of("m", "mm", "km", "cm"))
                .as((v, r, leaf, unit) -> Quantity.of(
                        v, v * r, LabUnit.parse(unit), Leaf.typeA("leaf" + leaf, "leaf" + leaf, "test", 3 + leaf)));
    }

    private static void same(Quantity a, Quantity b) {
        double scale = Math.abs(a.coherent().value()) + a.coherent().u() + 1e-300;
        assertThat(b.coherent().value()).isCloseTo(a.coherent().value(), within(1e-11 * scale));
        assertThat(b.coherent().u()).isCloseTo(a.coherent().u(), within(1e-10 * scale));
    }

    @Property(tries = 200)
    void additionCommutesAndAssociates(
            @ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b, @ForAll("lengths") Quantity c) {
        same(a.plus(b), b.plus(a));
        same(a.plus(b).plus(c), a.plus(b.plus(c)));
    }

    @Property(tries = 200)
    void multiplicationDistributes(
            @ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b, @ForAll("lengths") Quantity c) {
        same(a.times(b.plus(c)), a.times(b).plus(a.times(c)));
    }

    @Property(tries = 200)
    void whatIsTakenAwayAgainLeavesNoTrace(@ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b) {
        Quantity back = a.plus(b).minus(b);
        double scale = a.coherent().value() + b.coherent().value();
        assertThat(back.coherent().value()).isCloseTo(a.coherent().value(), within(1e-13 * scale));
        assertThat(back.coherent().u()).isCloseTo(a.coherent().u(), within(1e-12 * scale));
        same(a.times(b).dividedBy(b), a);
        same(a.power(2).power(0.5), a);
        same(a.negate().negate(), a);
    }

    @Property(tries = 200)
    void unitsNeverChangeThePhysics(@ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b) {
        LabUnit mm = LabUnit.parse("mm");
        LabUnit km = LabUnit.parse("km");
        same(a.times(b), a.to(mm).times(b.to(km)));
        same(a.dividedBy(b), a.to(km).dividedBy(b.to(mm)));
        same(a.plus(b), a.to(mm).plus(b.to(km)));
        assertThat(a.to(mm).dof()).isCloseTo(a.dof(), within(1e-9 * Math.min(a.dof(), 1e9)));
    }

    @Property(tries = 200)
    void correlationLiesBetweenMinusOneAndOne(
            @ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b, @ForAll("lengths") Quantity c) {
        Quantity x = a.plus(b);
        Quantity y = b.minus(c);
        assertThat(x.correlation(y)).isBetween(-1.0, 1.0);
        assertThat(x.covariance(y) / x.coherent().unit().factor()).isFinite();
        double uSum = x.plus(y).coherent().u();
        double expected = x.coherent().u() * x.coherent().u()
                + y.coherent().u() * y.coherent().u()
                + 2 * x.coherent().covariance(y.coherent());
        assertThat(uSum * uSum)
                .isCloseTo(
                        Math.max(0, expected),
                        within(1e-9
                                * (1e-12
                                        + uSum * uSum
                                        + x.coherent().u() * x.coherent().u())));
    }

    @Property(tries = 100)
    void limitsAreNeverNarrowerThanStandardUncertainties(@ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b) {
        Quantity q = a.times(b);
        assertThat(q.limit()).isGreaterThanOrEqualTo(q.u() * (1 - 1e-12));
    }

    @Property(tries = 100)
    void budgetSharesSumToOne(@ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b) {
        Quantity q = a.plus(b);
        List<Budget.Line> lines = Budget.of(q).lines();
        if (!q.isExact()) {
            assertThat(lines.stream().mapToDouble(Budget.Line::share).sum()).isCloseTo(1, within(1e-9));
        }
        for (int i = 1; i < lines.size(); i++) {
            assertThat(lines.get(i).share())
                    .isLessThanOrEqualTo(lines.get(i - 1).share());
        }
    }

    @Property(tries = 200)
    void bracketFormReadsBackWithinItsRounding(@ForAll("lengths") Quantity a) {
        if (a.u() > 0) {
            Reading r = Reading.parse(
                    Notation.bracketed(a.value(), a.u()) + " " + a.unit().symbol());
            assertThat(r.value()).isCloseTo(a.value(), within(0.051 * a.u() + 1e-12 * a.value()));
            assertThat(r.u()).isCloseTo(a.u(), within(0.051 * a.u()));
        }
    }

    /** First order agrees with random draws where the formula is nearly linear over the uncertainties. */
    @Property(tries = 12)
    void propagationAgreesWithRandomDraws(@ForAll("lengths") Quantity a) {
        double va = 3 + a.value() / 1000;
        double ua = 0.01;
        double ub = 0.02;
        Quantity x = Quantity.of(va, ua, LabUnit.ONE, Leaf.typeA("a", "a", "", 1e9));
        Quantity y = Quantity.of(2, ub, LabUnit.ONE, Leaf.typeA("b", "b", "", 1e9));
        Quantity q = x.power(2).times(y).plus(x.dividedBy(y));
        Random r = new Random(Double.doubleToLongBits(va));
        int n = 40_000;
        double sum = 0;
        double squares = 0;
        for (int k = 0; k < n; k++) {
            double s = va + ua * r.nextGaussian();
            double t = 2 + ub * r.nextGaussian();
            double v = s * s * t + s / t - q.value();
            sum += v;
            squares += v * v;
        }
        double sd = Math.sqrt((squares - sum * sum / n) / (n - 1));
        assertThat(q.u()).isBetween(0.98 * sd, 1.02 * sd);
    }

    @Property(tries = 60)
    void propagationAgreesWithMonteCarloForNearlyLinearFunctions(
            @ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b) {
        Quantity x = Quantity.of(
                5 + Math.abs(a.in(LabUnit.parse("m"))),
                0.02,
                LabUnit.ONE,
                Leaf.typeB("x", "x", "", Distribution.NORMAL));
        Quantity y = Quantity.of(
                7 + Math.abs(b.in(LabUnit.parse("m"))),
                0.03,
                LabUnit.ONE,
                Leaf.typeB("y", "y", "", Distribution.RECTANGULAR));
        Quantity f = x.times(y).plus(x.power(2)).dividedBy(y.plus(x));
        MonteCarlo m = MonteCarlo.of(f, Coverage.DEFAULT, MonteCarlo.Settings.QUICK);
        assertThat(m.sd()).isCloseTo(f.u(), within(0.02 * f.u()));
        assertThat(m.mean()).isCloseTo(f.value(), within(0.05 * f.u()));
    }

    @Property(tries = 60)
    void covarianceMatricesAreSymmetricAndPositiveSemiDefinite(
            @ForAll("lengths") Quantity a, @ForAll("lengths") Quantity b, @ForAll("lengths") Quantity c) {
        Covariance v = Covariance.of(
                java.util.List.of(a.plus(b), b.minus(c), a.scaled(2).plus(c), a));
        for (double e : new org.hipparchus.linear.EigenDecompositionSymmetric(
                        org.hipparchus.linear.MatrixUtils.createRealMatrix(v.correlation()))
                .getEigenvalues()) {
            assertThat(e).isGreaterThan(-1e-9);
        }
        for (int i = 0; i < 4; i++) {
            for (int j = 0; j < 4; j++) {
                assertThat(v.matrix()[i][j]).isEqualTo(v.matrix()[j][i]);
            }
        }
    }
}
