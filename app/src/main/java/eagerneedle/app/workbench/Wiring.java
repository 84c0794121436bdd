package eagerneedle.app.workbench;

import eagerneedle.core.chain.Converter;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Which input of an instrument each channel of a sheet is wired to, and what comes from it.
 *
 * @param device which of the sheet's instruments it is
 * @param description what the instrument says of itself
 * @param setups how channels are set up in this session, by name
 */
record Wiring(Sheet sheet, String device, Driver.Description description, Map<String, Setup> setups) {
    /** True for a channel that this instrument reads: its own, or any where the sheet has no other. */
    boolean reads(String channel) {
        Channel c = sheet.channels().get(channel);
        return c == null || c.device() == null || sheet.devices().size() < 2 || device.equals(c.device());
    }

    /** The instrument's own channel for a channel of the sheet. */
    String input(String channel) {
        Channel c = sheet.channels().get(channel);
        Setup how = setups.getOrDefault(channel, Setup.AS_SHEET);
        String own = how.input() != null ? how.input() : c == null ? channel : c.inputOr(channel);
        return description.channels().contains(own)
                        || description.channels().size() != 1
                        || sheet.channels().keySet().stream()
                                        .filter(this::reads)
                                        .count()
                                != 1
                ? own
                : description.channels().get(0);
    }

    /** What the samples of a channel of the sheet are in: counts, or the unit the instrument measures in. */
    String rawUnit(String channel) {
        int at = description.channels().indexOf(input(channel));
        return at < 0 ? Run.COUNTS : description.units().get(at);
    }

    /** The columns of the channels of a capture in what the instrument sends; of all channels for no such capture. */
    Map<String, Integer> columns(String capture) {
        Map<String, Integer> columns = new LinkedHashMap<>();
        for (String channel : sheet.captures().containsKey(capture)
                ? sheet.capture(capture).channels()
                : List.copyOf(sheet.channels().keySet())) {
            int column = description.channels().indexOf(input(channel));
            if (column >= 0 && reads(channel)) {
                columns.put(channel, column);
            }
        }
        return columns;
    }

    /** Samples as counts of a channel's converter, which is what chains are read backwards from. */
    RawSamples counted(String channel, RawSamples raw) {
        String unit = rawUnit(channel);
        if (unit.equals(Run.COUNTS) || raw.size() == 0 || !sheet.channels().containsKey(channel)) {
            return raw;
        }
        Converter converter = setups.getOrDefault(channel, Setup.AS_SHEET)
                .of(sheet.channels().get(channel))
                .toChain()
                .converter();
        LabUnit from = LabUnit.parse(unit);
        double[] counts = new double[raw.size()];
        for (int i = 0; i < counts.length; i++) {
            counts[i] = converter.exactCount(from.convert(raw.values()[i], converter.input()));
        }
        return new RawSamples(raw.time(), counts);
    }
}
