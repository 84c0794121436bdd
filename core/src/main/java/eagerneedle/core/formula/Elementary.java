package eagerneedle.core.formula;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;
import org.jspecify.annotations.Nullable;

/** Elementary functions of one quantity with their exact derivatives. */
public enum Elementary {
    SIN(Math::sin, Math::cos, "cos(x)", Takes.ANGLE),
    COS(Math::cos, x -> -Math.sin(x), "-sin(x)", Takes.ANGLE),
    TAN(Math::tan, x -> 1 / (Math.cos(x) * Math.cos(x)), "1 / cos(x)^2", Takes.ANGLE),
    ASIN(Math::asin, x -> 1 / Math.sqrt(1 - x * x), "1 / sqrt(1 - x^2)", Takes.NUMBER),
    ACOS(Math::acos, x -> -1 / Math.sqrt(1 - x * x), "-(1 / sqrt(1 - x^2))", Takes.NUMBER),
    ATAN(Math::atan, x -> 1 / (1 + x * x), "1 / (1 + x^2)", Takes.NUMBER),
    EXP(Math::exp, Math::exp, "exp(x)", Takes.NUMBER),
    LN(Math::log, x -> 1 / x, "1 / x", Takes.NUMBER),
    LOG10(Math::log10, x -> 1 / (x * Math.log(10)), "1 / (x * ln(10))", Takes.NUMBER),
    LOG2(Elementary::log2, x -> 1 / (x * Math.log(2)), "1 / (x * ln(2))", Takes.NUMBER),
    SINH(Math::sinh, Math::cosh, "cosh(x)", Takes.NUMBER),
    COSH(Math::cosh, Math::sinh, "sinh(x)", Takes.NUMBER),
    TANH(Math::tanh, x -> 1 - Math.tanh(x) * Math.tanh(x), "1 - tanh(x)^2", Takes.NUMBER);

    private enum Takes {
        ANGLE,
        NUMBER
    }

    private final DoubleUnaryOperator f;
    private final DoubleUnaryOperator slope;
    private final String derivative;
    private final Takes takes;

    Elementary(DoubleUnaryOperator f, DoubleUnaryOperator slope, String derivative, Takes takes) {
        this.f = f;
        this.slope = slope;
        this.derivative = derivative;
        this.takes = takes;
    }

    /** The function of this name, or null. */
    public static @Nullable Elementary named(String name) {
        for (Elementary f : values()) {
            if (f.name().toLowerCase(Locale.ROOT).equals(name)) {
                return f;
            }
        }
        return null;
    }

    /** True when it has a finite slope wherever it has a finite value. */
    public boolean isSmooth() {
        return switch (this) {
            case SIN, COS, ATAN, EXP, SINH, COSH, TANH -> true;
            case TAN, ASIN, ACOS, LN, LOG10, LOG2 -> false;
        };
    }

    /** The derivative as a formula in x. */
    public String derivative() {
        return derivative;
    }

    public double valueAt(double x) {
        return f.applyAsDouble(x);
    }

    public double slopeAt(double x) {
        return slope.applyAsDouble(x);
    }

    /** @throws ArithmeticException outside the function's domain, or where its derivative is unbounded */
    public Quantity of(Quantity q) {
        String name = name().toLowerCase(Locale.ROOT);
        if (!q.unit().isDimensionless()) {
            throw new ArithmeticException(
                    name + " takes " + (takes == Takes.ANGLE ? "an angle" : "a pure number") + ", not " + q + ".");
        }
        Quantity x = q.to(LabUnit.ONE);
        double v = f.applyAsDouble(x.value());
        double d = slope.applyAsDouble(x.value());
        if (!Double.isFinite(v)) {
            throw new ArithmeticException(name + " has no value at " + q + ".");
        }
        if (!Double.isFinite(d) && !x.isExact()) {
            throw new ArithmeticException("The uncertainty of " + name + " cannot be propagated at " + q + ".");
        }
        boolean angle = this == ASIN || this == ACOS || this == ATAN;
        return x.through(f, angle ? LabUnit.RADIAN : LabUnit.ONE, Double.isFinite(d) ? d : 0);
    }

    /** Exact for whole powers of two. */
    private static double log2(double x) {
        if (!(x >= Double.MIN_NORMAL) || Double.isInfinite(x)) {
            return Math.log(x) / Math.log(2);
        }
        int exponent = Math.getExponent(x);
        return exponent + Math.log(x / Math.scalb(1.0, exponent)) / Math.log(2);
    }

    public static Quantity power(Quantity base, Quantity exponent) {
        if (!exponent.unit().isDimensionless()) {
            throw new ArithmeticException("An exponent must be a pure number, not " + exponent + ".");
        }
        double p = exponent.in(LabUnit.ONE);
        if (exponent.isExact()) {
            return base.power(p);
        }
        if (!base.unit().isDimensionless() || !(base.in(LabUnit.ONE) > 0)) {
            throw new ArithmeticException(
                    "With an uncertain exponent the base must be a positive pure number, not " + base + ".");
        }
        return EXP.of(LN.of(base).times(exponent));
    }

    public static Quantity abs(Quantity q) {
        if (q.unit().isAffine()) {
            throw new ArithmeticException("The size of a temperature depends on its zero; write it in K.");
        }
        return q.through(Math::abs, q.unit(), q.value() < 0 ? -1 : 1);
    }

    public static Quantity atan2(Quantity y, Quantity x) {
        Quantity a = y.coherent();
        Quantity b = x.coherent();
        if (!a.unit().fits(b.unit())) {
            throw new ArithmeticException("atan2 takes two values of one kind, not " + y + " and " + x + ".");
        }
        double r2 = a.value() * a.value() + b.value() * b.value();
        if (r2 == 0) {
            throw new ArithmeticException("atan2 has no value where both are zero.");
        }
        return Quantity.through(List.of(a, b), v -> Math.atan2(v[0], v[1]), LabUnit.RADIAN, new double[] {
            b.value() / r2, -a.value() / r2
        });
    }
}
