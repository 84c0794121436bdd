package eagerneedle.core.reduce;

import eagerneedle.core.chain.Advice;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What can be set otherwise at the bench as it stands: gains and ranges that instruments have, averaging, more rounds
 * of a calibration. Channels of a family are one thing, and are set together.
 */
final class BenchChanges {
    private static final int[] MORE = {4, 16};
    private static final int[] ROUNDS = {2, 4};
    private static final int MOST_AVERAGED = 1024;
    /** Below this share of a step averaging gains nothing. */
    private static final double SEEN = 1 / 3.0;

    /** Minutes that setting one reference and waiting for it takes. */
    private static final double POINT_MIN = 1;

    private BenchChanges() {}

    /**
     * A change.
     *
     * @param says what is done
     * @param minutes more at the bench
     * @param act carries it out
     */
    record Possible(String says, double minutes, RigCommand act) {}

    /** A setting of one channel. */
    private record Setting(String says, double minutes, Setup setup) {}

    /** Everything that can be set otherwise in a session. */
    static List<Possible> of(Sheet sheet, Session now) {
        Map<String, Map<String, Setting>> together = new LinkedHashMap<>();
        Map<String, String> labels = new LinkedHashMap<>();
        sheet.channels().keySet().forEach(name -> {
            Channel channel = now.channel(sheet, name);
            int dot = name.indexOf('.');
            String family = dot < 0 ? name : name.substring(0, dot);
            for (Setting s : settings(channel, now.setup(name))) {
                String key = family + "/" + s.says();
                labels.putIfAbsent(key, dot < 0 ? channel.label() : inCommon(channel.label()));
                together.computeIfAbsent(key, k -> new LinkedHashMap<>()).put(name, s);
            }
        });
        List<Possible> out = new ArrayList<>();
        together.forEach((key, all) -> {
            Map<String, Setup> setups = new LinkedHashMap<>();
            all.forEach((name, s) -> setups.put(name, s.setup()));
            String says = key.substring(key.indexOf('/') + 1) + " of " + labels.get(key)
                    + (all.size() > 1 ? ", " + all.size() + " channels" : "");
            double minutes = all.values().stream().mapToDouble(Setting::minutes).sum();
            out.add(new Possible(
                    says,
                    minutes,
                    new RigCommand.SetUpTogether(
                            setups, Character.toUpperCase(says.charAt(0)) + says.substring(1) + ".")));
        });
        return out;
    }

    /** What the members of a family are called without what tells them apart. */
    private static String inCommon(String label) {
        int comma = label.lastIndexOf(", ");
        return comma < 0 ? label : label.substring(0, comma);
    }

    private static List<Setting> settings(Channel channel, Setup now) {
        List<Setting> out = new ArrayList<>();
        Chain chain = channel.toChain();
        double[] needed = channel.needed().orElse(new double[] {Double.NaN, Double.NaN});
        Advice.Need need = new Advice.Need(
                needed[0], needed[1], Double.NaN, channel.rate(), channel.average(), Double.NaN, Double.NaN);
        for (Advice.Fix fix : Advice.finest(chain, need)) {
            out.add(new Setting(fix.label(), 0, now.withChain(fix.chain())));
        }
        double middle =
                channel.needed().isPresent() ? (needed[0] + needed[1]) / 2 : (chain.reach()[0] + chain.reach()[1]) / 2;
        boolean scatters = chain.noiseAt(middle) / Math.sqrt(channel.average()) > SEEN * chain.stepAt(middle);
        for (int times : MORE) {
            int n = times * channel.average();
            if (scatters && n <= MOST_AVERAGED) {
                out.add(new Setting("average " + n + " conversions a sample", 0, now.withAverage(n)));
            }
        }
        Channel.CalibrationPlan plan = channel.calibration();
        if (plan != null && plan.hasRounds()) {
            int rounds = now.rounds() == null ? 1 : now.rounds();
            double once = plan.points().size() / (double) rounds * (POINT_MIN + plan.seconds() / 60);
            for (int times : ROUNDS) {
                out.add(new Setting(
                        "go " + times * rounds + " times through the calibration",
                        once * (times - 1) * rounds,
                        now.withRounds(times * rounds)));
            }
        }
        return out;
    }
}
