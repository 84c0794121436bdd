package eagerneedle.core.physics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Motion, events, friction, gates and draws, each against what is known of it in closed form. */
class PhysicsTest {
    private static final LabUnit METRE = LabUnit.parse("m");

    /** A sheet of one channel and one capture around a block of physics. */
    static String sheet(String rig) {
        return """
                sheet: 2
                id: trial
                title: Trial
                subject: Motion
                inputs:
                  g: {label: local g, value: "9.81 m/s^2"}
                  L: {label: length, value: "1.000(5) m", by: steel tape}
                  half: {label: half of it, value: "0.500(1) m", by: steel tape}
                devices: {logger: {label: Logger, driver: line}}
                channels:
                  x: {label: place, unit: m, device: logger, rate: 100, chain: [{kind: converter, label: timer, from: m, step: 0.001, bits: 14}]}
                captures:
                  roll:
                    label: Roll
                    channels: [x]
                    longest: 20
                    levels:
                      low: {label: low, set: {h: "0.10 m"}}
                      high: {label: high, set: {h: "0.20 m"}}
                    by_eye:
                      mark: {label: mark, value: "0.500(1) m"}
                    quantities:
                      twice: {formula: "2 * h"}
                      y: {formula: mean(x)}
                results:
                  whole: {label: whole, unit: m, formula: "half * 2"}
                rig:
                """ + rig.indent(2);
    }

    private static World world(String rig, long seed) {
        SheetReader.Located located = SheetReader.read(sheet(rig), "trial.yaml");
        assertThat(PhysicsTrial.of(located)).isEmpty();
        return new World(located.sheet(), located.sheet().rig(), seed);
    }

    private static Course course(String rig) {
        return world(rig, 1).run("roll", "low");
    }

    private static double after(Course c, double seconds) {
        c.advance(seconds - c.time());
        return c.signal("x", METRE);
    }

    /** A pendulum of large swing keeps its energy to 1e-6, sampled finely for a hundred periods. */
    @Test
    void whatDoesNotRubKeepsItsEnergy() {
        Course c = course("""
                roll:
                  state: {a: 2 rad, w: 0 rad/s}
                  rates: {a: w, w: "-g / (1 m) * sin(a) * 1 rad"}
                  signals: {x: "a / (1 rad) * 1 m"}
                """);
        double energy = -Math.cos(2) * 9.81;
        for (int i = 0; i < 20_000; i++) {
            c.advance(0.01);
            double e = c.state("w") * c.state("w") / 2 - 9.81 * Math.cos(c.state("a"));
            assertThat(e).isCloseTo(energy, within(1e-6 * 9.81));
        }
    }

    /** A ball falls and bounces: every landing is where the closed form has it, to a microsecond. */
    @Test
    void eventsAreFoundToAMicrosecond() {
        Course c = course("""
                roll:
                  state: {y: 1 m, v: 0 m/s, count: 0}
                  rates: {y: v, v: -g}
                  when: {lands: {passes: "-y", set: {y: 0 m, v: "-0.8 * v", count: count + 1}}}
                  signals: {x: y}
                """);
        double land = Math.sqrt(2 / 9.81);
        double speed = Math.sqrt(2 * 9.81);
        for (int n = 1; n <= 6; n++) {
            double expected = land;
            for (int k = 1; k < n; k++) {
                expected += 2 * speed * Math.pow(0.8, k) / 9.81;
            }
            // Polled unevenly, so that no sample falls on the moment.
            while (c.state("count") < n) {
                c.advance(0.013);
            }
            assertThat(c.happened("lands")).as("landing %d", n).isCloseTo(expected, within(1e-6));
        }
    }

    /** Dry friction stops what slides after v^2 / 2a, and then nothing moves at all. */
    @Test
    void whatComesToRestByFrictionStays() {
        Course c = course("""
                roll:
                  state: {y: 0 m, v: 1 m/s}
                  rates: {y: v, v: "dry(v, 0.1 m/s^2, 0.5 m/s^2)"}
                  signals: {x: y}
                """);
        double stop = 1 / (2 * 0.4);
        assertThat(after(c, 3)).isCloseTo(stop, within(1e-9));
        assertThat(c.state("v")).isZero();
        assertThat(after(c, 9)).isEqualTo(after(c, 3.5));
    }

    /** A drive that grows breaks loose where it exceeds the grip, not before and not later. */
    @Test
    void whatRestsBreaksLooseWhereItsDriveExceedsTheGrip() {
        Course c = course("""
                roll:
                  state: {y: 0 m, v: 0 m/s}
                  rates: {y: v, v: "dry(v, 0.1 m/s^3 * t, 0.2 m/s^2)"}
                  signals: {x: y}
                """);
        assertThat(after(c, 2)).isZero();
        // v' = 0.1 (t - 2), so y = 0.1 (t - 2)^3 / 6.
        assertThat(after(c, 5)).isCloseTo(0.1 * 27 / 6, within(1e-9));
    }

    /** A rate that jumps where a state passes a line: parabola before, parabola behind. */
    @Test
    void aComparisonInARateIsAnEvent() {
        Course c = course("""
                roll:
                  state: {y: 0 m, v: 1 m/s}
                  rates: {y: v, v: "if(y > 0.5 m, -4 m/s^2, 0 m/s^2)"}
                  signals: {x: y}
                """);
        double t = 0.4;
        assertThat(after(c, 0.5 + t)).isCloseTo(0.5 + t - 2 * t * t, within(1e-9));
    }

    /** The same comparison, and friction, by names in hidden. */
    @Test
    void aHiddenComparisonIsAnEventToo() {
        Course c = course("""
                hidden: {wall: "if(y > 0.5 m, 4 m/s^2, 0 m/s^2)", slides: "dry(v, -wall, 0 m/s^2)"}
                roll:
                  state: {y: 0 m, v: 1 m/s}
                  rates: {y: v, v: slides}
                  signals: {x: "if(y > 10 m, 0 m, y)"}
                """);
        assertThat(after(c, 0.9)).isCloseTo(0.5 + 0.4 - 2 * 0.16, within(1e-9));
    }

    /** What cannot be followed ends with a sentence, and soon. */
    @Test
    void whatCannotBeFollowedIsTold() {
        String rig = """
                roll:
                  state: {y: 1 m, v: 0 m/s}
                  rates: {y: v, v: "%s"}
                  signals: {x: y}
                """;
        assertThatThrownBy(() -> after(untried(rig.formatted("if(y > 1 m, -1e6 m/s^2, 1e6 m/s^2) - 1e9 1/s * v")), 5))
                .isInstanceOf(RigException.class)
                .hasMessageContaining("dry(speed, drive, grip)");
        assertThatThrownBy(() -> after(untried(rig.formatted("-sqrt(y / (1 m) - 0.5) * 1 m/s^2")), 5))
                .isInstanceOf(RigException.class)
                .hasMessageContaining("A rate has no value at t = ");
        assertThatThrownBy(() -> after(untried(rig.formatted("1e6 1/m/s^2 * y^2")), 50))
                .isInstanceOf(RigException.class);
    }

    private static Course untried(String rig) {
        SheetReader.Located located = SheetReader.read(sheet(rig), "trial.yaml");
        return new World(located.sheet(), located.sheet().rig(), 1).run("roll", "low");
    }

    /** Two of one moment happen in the order in which they are written, both from the values before. */
    @Test
    void whatHappensAtOnceSeesTheValuesBefore() {
        Course c = course("""
                roll:
                  state: {a: 1, b: 2}
                  when:
                    swap: {at: 1 s, set: {a: b, b: a}}
                    later: {at: 2 s, set: {a: a + b}}
                  signals: {x: "a * 1 m + b * 10 m"}
                """);
        assertThat(after(c, 1.5)).isEqualTo(12);
        assertThat(after(c, 2.5)).isEqualTo(13);
    }

    @Test
    void onceIsOnce() {
        String rig = """
                roll:
                  state: {n: 0}
                  when: {up: {passes: "sin(2 * pi * t / (1 s)) - 0.5", set: {n: n + 1}%s}}
                  signals: {x: "n * 1 m"}
                """;
        assertThat(after(course(rig.formatted("")), 5.5)).isEqualTo(6);
        assertThat(after(course(rig.formatted(", once: true")), 5.5)).isEqualTo(1);
    }

    /** The same moment is the same to the last bits of a step, however often it was asked for on the way. */
    @Test
    void pollingDoesNotMoveTheWorld() {
        String rig = """
                roll:
                  state: {y: 1 m, v: 0 m/s}
                  rates: {y: v, v: "-40 1/s^2 * y - 0.3 1/s * v"}
                  signals: {x: y}
                """;
        Course coarse = course(rig);
        Course fine = course(rig);
        double rough = after(coarse, 4);
        for (int i = 0; i < 4000; i++) {
            fine.advance(0.001);
        }
        assertThat(fine.signal("x", METRE)).isCloseTo(rough, within(1e-8));
        double w = Math.sqrt(40 - 0.15 * 0.15);
        double closed = Math.exp(-0.6) * (Math.cos(4 * w) + 0.15 / w * Math.sin(4 * w));
        assertThat(rough).isCloseTo(closed, within(1e-8));
    }

    @Test
    void aStateOfTheSessionGoesOnFromRunToRun() {
        World w = world("""
                state: {ice: "1 m"}
                rates: {ice: "-0.1 m/s"}
                roll:
                  signals: {x: ice}
                """, 1);
        Course first = w.run("roll", "low");
        first.advance(3);
        first.end();
        Course second = w.run("roll", "high");
        second.advance(1);
        assertThat(second.signal("x", METRE)).isCloseTo(0.6, within(1e-9));
    }

    /** Spokes pass at the roots of the motion: uniformly accelerated, to nanoseconds. */
    @Test
    void edgesAreRootsOfTheMotion() {
        Course c = course("""
                roll:
                  state: {s: "-0.01 m", v: 0 m/s}
                  rates: {s: v, v: 0.5 m/s^2}
                  edges: {x: {of: s, every: 0.02 m, blocked: 0.25}}
                """);
        List<double[]> edges = new ArrayList<>();
        for (int i = 0; i < 400; i++) {
            c.advance(0.005);
            edges.addAll(c.edges());
        }
        for (int k = 0; k < 40; k++) {
            double place = 0.02 * (k / 2) + (k % 2 == 1 ? 0.005 : 0);
            assertThat(edges.get(k)[0]).isCloseTo(Math.sqrt(2 * (place + 0.01) / 0.5), within(1e-9));
            assertThat(edges.get(k)[1]).isEqualTo(k % 2 == 0 ? 1 : 0);
        }
    }

    /** What swings back and forth through one flag darkens the gate twice a period, and alternately. */
    @Test
    void aFlagThatSwingsIsSeenBothWays() {
        Course c = course("""
                roll:
                  state: {s: 0.1 m, v: 0 m/s}
                  rates: {s: v, v: "-(2 * pi)^2 * 1 1/s^2 * s"}
                  edges: {x: {of: s, every: 1 m, blocked: 0.01}}
                """);
        c.advance(2);
        List<double[]> edges = c.edges();
        assertThat(edges).hasSize(8);
        for (int k = 0; k < 8; k++) {
            assertThat(edges.get(k)[1]).as("edge %d", k).isEqualTo(k % 2 == 0 ? 1 : 0);
        }
        assertThat(edges.get(0)[0]).isCloseTo(Math.acos(0.1) / (2 * Math.PI), within(1e-9));
        assertThat(edges.get(1)[0]).isCloseTo(0.25, within(1e-9));
    }

    @Test
    void aCircuitIsSolvedWhereItsFormulaIsZero() {
        Course c = course("""
                roll:
                  signals: {x: "root('2 m - x - 0.1 m * ln(1 + x / (1 mm))', from: 0 m, to: 2 m)"}
                """);
        double x = c.signal("x", METRE);
        assertThat(2 - x - 0.1 * Math.log(1 + x / 1e-3)).isCloseTo(0, within(1e-12));
    }

    /** Flutter has the deviation that is asked for, and is correlated as exp(-t / over). */
    @Test
    void flutterIsCorrelatedInTime() {
        double sum = 0;
        double lag = 0;
        int n = 400;
        for (int seed = 0; seed < n; seed++) {
            Course c = world("roll: {signals: {x: \"flutter(2 m, over: 3 s)\"}}", seed)
                    .run("roll", "low");
            double a = after(c, 5);
            double b = after(c, 8);
            sum += a * a / n;
            lag += a * b / n;
        }
        assertThat(sum).isCloseTo(4, within(4 * 4 * Math.sqrt(2.0 / n)));
        assertThat(lag / sum).isCloseTo(Math.exp(-1), within(4 / Math.sqrt(n)));
    }

    /** A draw happens where it stands: once a session, once a run, at each sample. */
    @Test
    void aDrawHappensWhereItStands() {
        World w = world("""
                hidden: {ofSession: "0(1) m"}
                roll:
                  hidden: {ofRun: "0(1) m"}
                  signals: {x: "ofSession"}
                  low: {signals: {x: ofRun}}
                """, 3);
        Course high = w.run("roll", "high");
        Course again = w.run("roll", "high");
        assertThat(high.signal("x", METRE)).isEqualTo(again.signal("x", METRE));
        Course low = w.run("roll", "low");
        double once = low.signal("x", METRE);
        assertThat(low.signal("x", METRE)).isEqualTo(once);
        assertThat(w.run("roll", "low").signal("x", METRE)).isNotEqualTo(once);
        Course sampled = world("roll: {signals: {x: \"0(1) m\"}}", 3).run("roll", "low");
        assertThat(sampled.signal("x", METRE)).isNotEqualTo(sampled.signal("x", METRE));
    }

    /** An output that was set stands so for everything: what is shown, what moves, and once more from the start. */
    @Test
    void anOutputMovesWhatItDrives() {
        SheetReader.Located located = SheetReader.read(
                sheet("roll: {state: {y: 0 m}, rates: {y: \"belt\"}, signals: {x: \"y + belt * 1 s\"}}\n")
                        .replace(
                                "driver: line}}",
                                "driver: line, outputs: {belt: {unit: m/s, lowest: 0, highest: 9, safe: 0}}}}")
                        .replace("low: {label: low,", "low: {label: low, outputs: {belt: 2},"),
                "belt.yaml");
        assertThat(PhysicsTrial.of(located)).isEmpty();
        World w = new World(located.sheet(), located.sheet().rig(), 1);
        Map<String, Quantity> three = Map.of("belt", Quantity.exact(3, LabUnit.parse("m/s")));
        assertThat(after(w.run("roll", "low"), 2)).as("as the level says").isCloseTo(6, within(1e-9));
        Course fixed = w.run("roll", "low", Map.of(), three);
        assertThat(after(fixed, 2)).isCloseTo(9, within(1e-9));
        assertThat(after(fixed.again(), 1)).isCloseTo(6, within(1e-9));
        Course turned = w.run("roll", "low", three, Map.of());
        assertThat(after(turned, 1)).isCloseTo(6, within(1e-9));
        turned.stands("belt", Quantity.exact(1, LabUnit.parse("m/s")));
        assertThat(after(turned, 2)).as("turned on the way").isCloseTo(5, within(1e-9));
    }

    /** What is to be read by eye must be something that can be shown to one. */
    @Test
    void aReadingThatNoFaceShowsIsTold() {
        assertThat(PhysicsTrial.of(SheetReader.read(
                        sheet(
                                "roll: {signals: {x: 1 m}, readings: {mark: {formula: h, value: \"reading(150 mm)\"}}}\n"),
                        "trial.yaml")))
                .singleElement()
                .satisfies(p -> assertThat(p.getMessage()).contains("nothing can be seen on 'reading(150 mm)'"));
    }

    /** A session with a difference is the same session but for it. */
    @Test
    void aChangeLeavesEveryOtherDrawAlone() {
        String rig = """
                hidden: {slack: "0.2(1) m", other: "0(1) m"}
                roll:
                  hidden: {kick: "0(1) m"}
                  signals: {x: "kick + other + slack + 0.0(1) m"}
                """;
        SheetReader.Located sheet = SheetReader.read(sheet(rig), "trial.yaml");
        World clean = new World(sheet.sheet(), sheet.sheet().rig(), 9);
        World changed = new World(
                sheet.sheet(), RigChange.of(sheet.sheet().rig(), sheet.sheet(), "rig.slack", "slack + 3 m"), 9);
        World shown =
                new World(sheet.sheet(), RigChange.of(sheet.sheet().rig(), sheet.sheet(), "rig.roll.x", "2 * x"), 9);
        double x = clean.run("roll", "low").signal("x", METRE);
        assertThat(changed.run("roll", "low").signal("x", METRE)).isCloseTo(x + 3, within(1e-12));
        assertThat(shown.run("roll", "low").signal("x", METRE)).isCloseTo(2 * x, within(1e-12));
        assertThat(changed.truths().get("half").value())
                .isEqualTo(clean.truths().get("half").value());
    }

    /** Inside the rig a name is the truth: inputs, what levels set, quantities without samples, results of inputs. */
    @Test
    void namesAreTruths() {
        World w = world("roll: {signals: {x: \"half + twice + whole\"}}", 5);
        double half = w.truths().get("half").value();
        assertThat(half).isNotEqualTo(0.5);
        assertThat(w.truths().get("whole").value()).isCloseTo(2 * half, within(1e-15));
        assertThat(w.run("roll", "high").signal("x", METRE)).isCloseTo(3 * half + 0.4, within(1e-12));
    }

    /** Readings lie about the truth as they say, with the digits of the display; a certificate stays as it is. */
    @Test
    void readingsLieAboutTheTruth() {
        int inside = 0;
        for (int seed = 0; seed < 1000; seed++) {
            World w = world("roll: {signals: {x: half}}", seed);
            Map<String, String> read = w.readings();
            assertThat(read.get("g")).isEqualTo("9.81 m/s^2");
            assertThat(read.get("L")).matches("[01]\\.\\d{3}\\(5\\) m");
            double error = Double.parseDouble(read.get("L").substring(0, 5))
                    - w.truths().get("L").value();
            inside += Math.abs(error) < 0.005 * 1.96 ? 1 : 0;
        }
        assertThat(inside / 1000.0).isCloseTo(0.95, within(0.03));
    }

    /** What an eye reads is what the physics shows, at the start or at the end. */
    @Test
    void theEyeReadsWhatIsThere() {
        Course c = course("""
                roll:
                  state: {y: 0 m}
                  rates: {y: 0.25 m/s}
                  signals: {x: y}
                  readings: {mark: {formula: y, at: end}}
                  lasts: 4 s
                """);
        assertThat(c.seen(false)).isEmpty();
        c.advance(4);
        assertThat(Double.parseDouble(c.seen(true).get("mark").substring(0, 5))).isCloseTo(1, within(0.006));
    }

    /** Numbers of a generator that is written down stay what they are. */
    @Test
    void drawsAreTheSameOnEveryMachine() {
        Draws d = new Draws(42);
        assertThat(d.normal("a")).isEqualTo(new Draws(42).normal("a")).isNotEqualTo(d.normal("b"));
        assertThat(d.normal("a")).isNotEqualTo(new Draws(43).normal("a"));
        double sum = 0;
        double squares = 0;
        double even = 0;
        int n = 20_000;
        for (int i = 0; i < n; i++) {
            double x = d.normal("k" + i);
            sum += x / n;
            squares += x * x / n;
            even += Math.abs(d.even("k" + i)) / n;
        }
        assertThat(sum).isCloseTo(0, within(4 / Math.sqrt(n)));
        assertThat(squares).isCloseTo(1, within(4 * Math.sqrt(2.0 / n)));
        assertThat(even).isCloseTo(0.5, within(4 * Math.sqrt(1.0 / 12 / n)));
    }
}
