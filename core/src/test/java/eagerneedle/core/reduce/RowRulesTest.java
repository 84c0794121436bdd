package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.session.Command;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.watch.Finding;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Rows that a rule leaves out, that have no value, and that somebody takes in again. */
class RowRulesTest {
    private static final String SHEET = """
            sheet: 2
            id: rows
            title: Rows
            subject: Trials
            inputs:
              unit_mass: {label: mass, value: "1 kg"}
            devices: {logger: {label: Logger, driver: line}}
            channels:
              x: {label: length, unit: m, device: logger, rate: 10, chain: [{kind: converter, label: timer, from: m, step: 0.001, bits: 14}]}
            captures:
              roll:
                label: Roll
                channels: [x]
                levels:
                  a: {label: low, set: {h: "1 m"}}
                  b: {label: high, set: {h: "2 m"}}
                rules:
                  near: {must: "y < 3 m", else: leave-out, says: The cart went past its stop.}
                  odd: {must: "y != 1 m", else: flag, says: Exactly one metre is odd.}
                quantities:
                  y: {label: way, unit: m, formula: mean(x)}
                  z: {label: way when low, unit: m, formula: "if(h < 1.5 m, y, none)"}
            results:
              all: {label: mean way, unit: m, formula: mean(roll.y)}
              low: {label: mean of the low ones, unit: m, formula: mean(roll.z)}
              count_low: {label: how many are low, formula: count(roll.z)}
              ratio: {label: ratio, formula: mean(roll.z / roll.y)}
              long_ones: {label: long ones, unit: m, formula: "mean(where(roll.y, roll.h > 1.5 m))"}
            checks:
              - {label: Every way is short, formula: "roll.y < 2.5 m"}
              - {label: Absent, formula: "none > 1"}
            mistakes:
              - {id: past, label: Runs past the stop counted, change: {roll.rules.near: none}, says: They did not roll freely.}
            rig:
              roll: {signals: {x: h}, lasts: 4 s}
            """;

    private final SheetReader.Located located = SheetTrial.read(SHEET, "rows.yaml");
    private final Map<Integer, Double> ways = Map.of(1, 1.0, 2, 2.0, 3, 5.0, 4, 1.2);
    private final Reducer reducer = new Reducer(located, (run, channel) -> constant(ways.get(run)));
    private Session session = Session.start(SHEET, "rows", Instant.EPOCH);

    private static RawSamples constant(double metres) {
        double[] t = new double[40];
        double[] v = new double[40];
        for (int i = 0; i < t.length; i++) {
            t[i] = i * 0.1;
            v[i] = Math.rint(metres * 1000);
        }
        return new RawSamples(t, v);
    }

    private void act(Command c) {
        session = c.apply(session);
    }

    @BeforeEach
    void runs() {
        int id = 1;
        for (String level : List.of("a", "b", "b", "a")) {
            act(new RunCommand.KeepRun(Run.captured(id++, "roll", level, Instant.EPOCH, "Logger", Run.COUNTS)));
        }
    }

    private double value(Reduction r, String name) {
        return r.quantity(name)
                .orElseThrow(() -> new AssertionError(r.outcome(name).problem()))
                .value();
    }

    @Test
    void aRuleLeavesARowOutAndTakingItInUndoesThat() {
        Reduction r = reducer.reduce(session);
        assertThat(value(r, "all")).isCloseTo((1 + 2 + 1.2) / 3, within(1e-12));
        assertThat(r.runs().get(2).leftOut()).isEqualTo("The cart went past its stop.");
        assertThat(session.run(3).orElseThrow().leftOut())
                .as("the file says nothing of it")
                .isNull();
        assertThat(r.checks().get(0).met()).contains(true);
        act(new RunCommand.LeaveOut(3, null));
        Reduction all = reducer.reduce(session);
        assertThat(value(all, "all")).isCloseTo((1 + 2 + 5 + 1.2) / 4, within(1e-12));
        assertThat(all.runs().get(2).leftOut()).isNull();
        assertThat(all.checks().get(0).met())
                .as("a comparison for each row: all must hold")
                .contains(false);
        act(new RunCommand.LeaveOut(3, "after all"));
        assertThat(value(reducer.reduce(session), "all")).isCloseTo((1 + 2 + 1.2) / 3, within(1e-12));
    }

    @Test
    void whichRulesARunBreaksIsToldFromThatRunAlone() {
        Set<Integer> asked = ConcurrentHashMap.newKeySet();
        Reducer fresh = new Reducer(located, new SampleSource() {
            @Override
            public RawSamples samples(int run, String channel) {
                asked.add(run);
                return constant(ways.get(run));
            }

            @Override
            public long count(int run, String channel) {
                return 40;
            }
        });
        for (Run run : session.runs()) {
            asked.clear();
            assertThat(fresh.broken(session, run, rule -> true))
                    .isEqualTo(reducer.whatIf(session).broken(run))
                    .hasSize(Map.of(1, 1, 3, 1).getOrDefault(run.id(), 0));
            assertThat(asked).containsExactly(run.id());
            assertThat(fresh.broken(session, run, Capture.RowRule::leavesOut)).hasSize(run.id() == 3 ? 1 : 0);
        }
    }

    @Test
    void whatIsNoneHasNoRow() {
        Reduction r = reducer.reduce(session);
        assertThat(value(r, "low")).isEqualTo(1.1);
        assertThat(value(r, "count_low")).isEqualTo(2);
        assertThat(value(r, "ratio")).as("rows find each other by their run").isEqualTo(1);
        assertThat(value(r, "long_ones")).isEqualTo(2);
        assertThat(r.outcome("roll.z").remarks()).containsExactly("1 of 4 rows is none and take no part.");
        assertThat(r.ofRun(session.run(2).orElseThrow(), "z").problem()).isNull();
        assertThat(r.checks().get(1).met()).as("cannot tell").isEmpty();
    }

    @Test
    void rulesAreSaidOnce() {
        List<Finding> found = new SessionWatch().look(reducer.reduce(session), Instant.EPOCH);
        assertThat(found.stream().filter(f -> f.watch().equals("row left out")).map(Finding::message))
                .containsExactly("Run 3: The cart went past its stop.");
        assertThat(found.stream().filter(f -> f.watch().equals("rule of a row")).map(Finding::message))
                .containsExactly("Run 1: Exactly one metre is odd.");
    }

    @Test
    void aMistakeDoesWithoutARule() {
        Sheet.Mistake past = located.sheet().mistakes().get(0);
        Reduction wrong = reducer.mistaken(session, past);
        assertThat(value(wrong, "all")).isCloseTo((1 + 2 + 5 + 1.2) / 4, within(1e-12));
        assertThat(value(reducer.reduce(session), "all")).isCloseTo((1 + 2 + 1.2) / 3, within(1e-12));
    }

    @Test
    void aRuleIsCheckedWhereItStands() {
        assertThat(SheetTrial.look(SHEET.replace("must: \"y < 3 m\"", "must: \"yy < 3 m\""), "rows.yaml")
                        .problems())
                .singleElement()
                .satisfies(p -> {
                    assertThat(p.getMessage()).contains("the name yy is not known here; did you mean y?");
                    assertThat(p.line()).isEqualTo(18);
                });
        assertThat(SheetTrial.look(SHEET.replace("else: flag", "else: ask"), "rows.yaml")
                        .problems())
                .singleElement()
                .satisfies(p -> assertThat(p.getMessage()).contains("refuse, leave-out, propose, flag"));
        assertThat(new Capture.RowRule("y < 1", "refuse", "no").refuses()).isTrue();
    }
}
