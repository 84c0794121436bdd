package eagerneedle.core.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Laws that turn up in laboratories, each of which finds its own starting values.
 *
 * <p>Every law is linear in some parameters and curved in at most two. The start is the best point of a grid over the
 * curved ones, the others solved for; the grid spans what the abscissae can show.
 */
public enum NamedModel implements Model {
    /** y = level + amplitude exp(-x / tau). */
    DECAY(
            "exponential decay to a level",
            List.of("level", "amplitude", "tau"),
            List.of(Kind.Y, Kind.DY, Kind.X),
            new int[] {2}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double e = Math.exp(-x / p[2]);
            g[0] = 1;
            g[1] = e;
            g[2] = p[1] * e * x / (p[2] * p[2]);
            g[3] = -p[1] * e / p[2];
            return p[0] + p[1] * e;
        }

        @Override
        List<double[]> grid(double[] x) {
            return scales(x);
        }
    },
    /** y = level (1 - exp(-x / tau)). */
    SATURATION("saturating growth", List.of("level", "tau"), List.of(Kind.Y, Kind.X), new int[] {1}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double e = Math.exp(-x / p[1]);
            g[0] = 1 - e;
            g[1] = -p[0] * e * x / (p[1] * p[1]);
            g[2] = p[0] * e / p[1];
            return p[0] * (1 - e);
        }

        @Override
        List<double[]> grid(double[] x) {
            return scales(x);
        }
    },
    /** y = level x / (half + x). */
    HALF_SATURATION(
            "growth to saturation with a half-way point", List.of("level", "half"), List.of(Kind.Y, Kind.X), new int[] {
                1
            }) {
        @Override
        double value(double x, double[] p, double[] g) {
            double d = p[1] + x;
            g[0] = x / d;
            g[1] = -p[0] * x / (d * d);
            g[2] = p[0] * p[1] / (d * d);
            return p[0] * x / d;
        }

        @Override
        List<double[]> grid(double[] x) {
            return scales(x);
        }
    },
    /** y = scale x^exponent, x in its unit. */
    POWER_LAW("power law", List.of("scale", "exponent"), List.of(Kind.Y, Kind.ONE), new int[] {1}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double f = Math.pow(x, p[1]);
            g[0] = f;
            g[1] = x > 0 ? p[0] * f * Math.log(x) : 0;
            g[2] = p[0] * p[1] * Math.pow(x, p[1] - 1);
            return p[0] * f;
        }

        @Override
        List<double[]> grid(double[] x) {
            List<double[]> out = new ArrayList<>();
            for (int step = -24; step <= 24; step++) {
                out.add(new double[] {0.25 * step});
            }
            return out;
        }
    },
    /** y = offset + factor ln(x), x in its unit. */
    LOGARITHM("logarithm", List.of("offset", "factor"), List.of(Kind.Y, Kind.DY), new int[0]) {
        @Override
        double value(double x, double[] p, double[] g) {
            g[0] = 1;
            g[1] = Math.log(x);
            g[2] = p[1] / x;
            return p[0] + p[1] * g[1];
        }

        @Override
        List<double[]> grid(double[] x) {
            return List.of(new double[0]);
        }
    },
    /** y = factor exp(-energy / (R x)), x a temperature in kelvin, energy in J/mol. */
    ARRHENIUS("Arrhenius law", List.of("factor", "energy"), List.of(Kind.Y, Kind.MOLAR_ENERGY), new int[] {1}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double f = Math.exp(-p[1] / (GAS_CONSTANT * x));
            g[0] = f;
            g[1] = -p[0] * f / (GAS_CONSTANT * x);
            g[2] = p[0] * f * p[1] / (GAS_CONSTANT * x * x);
            return p[0] * f;
        }

        @Override
        List<double[]> grid(double[] x) {
            List<double[]> out = new ArrayList<>();
            double t = Arrays.stream(x).average().orElse(300);
            for (int step = -40; step <= 40; step++) {
                out.add(new double[] {1.5 * step * GAS_CONSTANT * t});
            }
            return out;
        }
    },
    /** y = level / (1 + exp(-(x - middle) / width)). */
    LOGISTIC(
            "logistic growth", List.of("level", "middle", "width"), List.of(Kind.Y, Kind.X, Kind.X), new int[] {1, 2}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double e = Math.exp(-(x - p[1]) / p[2]);
            double s = 1 / (1 + e);
            double slope = p[0] * s * (1 - s) / p[2];
            g[0] = s;
            g[1] = -slope;
            g[2] = -slope * (x - p[1]) / p[2];
            g[3] = slope;
            return p[0] * s;
        }

        @Override
        List<double[]> grid(double[] x) {
            List<double[]> out = new ArrayList<>();
            double low = min(x);
            double span = max(x) - low;
            for (int i = -2; i <= 22; i++) {
                for (double w : new double[] {0.01, 0.03, 0.1, 0.2, 0.4, -0.03, -0.1, -0.2}) {
                    out.add(new double[] {low + span * i / 20, w * span});
                }
            }
            return out;
        }
    },
    /** y = level + amplitude exp(-x / tau) cos(2 pi x / period + phase). */
    DAMPED_COSINE(
            "damped cosine",
            List.of("level", "amplitude", "tau", "period", "phase"),
            List.of(Kind.Y, Kind.DY, Kind.X, Kind.X, Kind.ONE),
            new int[] {2, 3, 4}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double e = Math.exp(-x / p[2]);
            double angle = 2 * Math.PI * x / p[3] + p[4];
            double c = e * Math.cos(angle);
            double s = e * Math.sin(angle);
            g[0] = 1;
            g[1] = c;
            g[2] = p[1] * c * x / (p[2] * p[2]);
            g[3] = p[1] * s * 2 * Math.PI * x / (p[3] * p[3]);
            g[4] = -p[1] * s;
            g[5] = -p[1] * c / p[2] - p[1] * s * 2 * Math.PI / p[3];
            return p[0] + p[1] * c;
        }

        @Override
        List<double[]> grid(double[] x) {
            throw new UnsupportedOperationException("the damped cosine starts from its own search");
        }

        @Override
        double[] start(double[] x, double[] y) {
            return DampedCosineStart.of(x, y);
        }
    },
    /** Two straight lines that meet: y = value + (before or after) (x - break). */
    BROKEN_LINE(
            "two lines with a break",
            List.of("break", "value", "before", "after"),
            List.of(Kind.X, Kind.Y, Kind.Y_PER_X, Kind.Y_PER_X),
            new int[] {0}) {
        @Override
        double value(double x, double[] p, double[] g) {
            boolean left = x < p[0];
            double slope = left ? p[2] : p[3];
            g[0] = -slope;
            g[1] = 1;
            g[2] = left ? x - p[0] : 0;
            g[3] = left ? 0 : x - p[0];
            g[4] = slope;
            return p[1] + slope * (x - p[0]);
        }

        @Override
        List<double[]> grid(double[] x) {
            List<double[]> out = new ArrayList<>();
            double low = min(x);
            double span = max(x) - low;
            for (int i = 1; i < 60; i++) {
                out.add(new double[] {low + span * i / 60});
            }
            return out;
        }
    },
    /** y = first exp(-x / tau1) + second exp(-x / tau2), tau1 the shorter. */
    TWO_EXPONENTIALS(
            "two exponentials",
            List.of("first", "tau1", "second", "tau2"),
            List.of(Kind.Y, Kind.X, Kind.Y, Kind.X),
            new int[] {1, 3}) {
        @Override
        double value(double x, double[] p, double[] g) {
            double a = Math.exp(-x / p[1]);
            double b = Math.exp(-x / p[3]);
            g[0] = a;
            g[1] = p[0] * a * x / (p[1] * p[1]);
            g[2] = b;
            g[3] = p[2] * b * x / (p[3] * p[3]);
            g[4] = -p[0] * a / p[1] - p[2] * b / p[3];
            return p[0] * a + p[2] * b;
        }

        @Override
        List<double[]> grid(double[] x) {
            List<double[]> out = new ArrayList<>();
            List<double[]> one = scales(x).stream().filter(t -> t[0] > 0).toList();
            for (int i = 0; i < one.size(); i++) {
                for (int j = i + 1; j < one.size(); j++) {
                    out.add(new double[] {one.get(i)[0], one.get(j)[0]});
                }
            }
            return out;
        }
    };

    /** Molar gas constant in J/(mol K), exact since 2019. */
    static final double GAS_CONSTANT = 8.31446261815324;

    /** What unit a parameter has, from those of the abscissa and the ordinate. */
    enum Kind {
        X,
        Y,
        /** A difference of two ordinates: of temperatures in K. */
        DY,
        ONE,
        Y_PER_X,
        MOLAR_ENERGY
    }

    private final String words;
    private final List<String> parameters;
    private final List<Kind> kinds;
    private final int[] curved;

    NamedModel(String words, List<String> parameters, List<Kind> kinds, int[] curved) {
        this.words = words;
        this.parameters = parameters;
        this.kinds = kinds;
        this.curved = curved;
    }

    abstract double value(double x, double[] p, double[] g);

    /** Values of the curved parameters worth trying as a start, for abscissae x. */
    abstract List<double[]> grid(double[] x);

    public String words() {
        return words;
    }

    public List<String> parameters() {
        return parameters;
    }

    /** How a sheet names it: {@code decay}, {@code two_exponentials}. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** The model of that id, or null. */
    public static @Nullable NamedModel named(String id) {
        return Arrays.stream(values())
                .filter(m -> m.id().equals(id))
                .findFirst()
                .orElse(null);
    }

    @Override
    public Fit fit(Points data, FitOptions choices) {
        return new NamedFit(this, kinds, curved).of(data, choices);
    }

    /** Starting values from the data alone, in the law's own plain numbers. */
    double[] start(double[] x, double[] y) {
        return new NamedFit(this, kinds, curved).start(x, y);
    }

    /** Lengths from a hundredth to thirty times what the abscissae span, of both signs. */
    private static List<double[]> scales(double[] x) {
        double span = Math.max(max(x), 0) - Math.min(min(x), 0);
        List<double[]> out = new ArrayList<>();
        for (double s = 0.01; s < 30; s *= 1.35) {
            out.add(new double[] {s * (span > 0 ? span : 1)});
        }
        for (double s = 0.1; s < 30; s *= 1.35) {
            out.add(new double[] {-s * (span > 0 ? span : 1)});
        }
        return out;
    }

    private static double min(double[] x) {
        return Arrays.stream(x).min().orElseThrow();
    }

    private static double max(double[] x) {
        return Arrays.stream(x).max().orElseThrow();
    }
}
