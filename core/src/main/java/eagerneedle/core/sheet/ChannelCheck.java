package eagerneedle.core.sheet;

import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Converter;
import eagerneedle.core.chain.Link;
import eagerneedle.core.chain.Stage;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.List;

/** Whether the channels of a sheet have chains that can be worked with, devices that exist, calibrations that fit. */
final class ChannelCheck {
    private final SheetReader.Located located;
    private final Sheet sheet;
    private final SheetCheck check;

    ChannelCheck(SheetReader.Located located, SheetCheck check) {
        this.located = located;
        this.sheet = located.sheet();
        this.check = check;
    }

    /** Keeps everything that does not fit. */
    void all() {
        sheet.channels().forEach(this::channel);
    }

    private void channel(String name, Channel channel) {
        String p = "/channels/" + name;
        if (!check.attempt(p + "/unit", () -> LabUnit.parse(channel.unit()))) {
            return;
        }
        chain(p, channel);
        for (int i = 0; channel.needs() != null && i < channel.needs().size(); i++) {
            String need = channel.needs().get(i);
            check.attempt(p + "/needs/" + i, () -> Reading.parse(need).unit().convert(0, channel.labUnit()));
        }
        check.attempt(p + "/wants_step", channel::stepWanted);
        String fastest = channel.fastest();
        if (fastest != null) {
            check.attempt(p + "/fastest", () -> Reading.parse(fastest).unit().convert(0, LabUnit.parse("s")));
        }
        Channel.CalibrationPlan plan = channel.calibration();
        if (plan != null) {
            calibration(p + "/calibration", channel, plan);
        }
        if (channel.device() != null && !sheet.devices().containsKey(channel.device())) {
            check.problem(
                    p + "/device",
                    1,
                    "there is no device " + channel.device()
                            + NearName.hint(channel.device(), sheet.devices().keySet()));
        }
    }

    /** The chain as it is written; what follows from a broken one is not told as well. */
    private void chain(String p, Channel channel) {
        for (int i = 0; i < channel.chain().size(); i++) {
            boolean last = i == channel.chain().size() - 1;
            Link link = channel.chain().get(i);
            String at = p + "/chain/" + i;
            if (last != link.kind().equals("converter")) {
                check.problem(at, 1, "a chain ends with its converter and has one only.");
                return;
            }
            if (!last && link.to() == null) {
                check.problem(at, 1, "a " + link.kind() + " needs the unit it gives ('to').");
                return;
            }
            boolean good = check.attempt(at, () -> {
                if (last) {
                    Converter.of(link);
                } else {
                    Stage.of(link);
                }
            });
            if (!good) {
                return;
            }
        }
        if (!check.attempt(p + "/chain", channel::toChain)) {
            return;
        }
        check.attempt(p + "/unit", () -> {
            if (!channel.toChain().unit().equals(channel.labUnit())) {
                throw new IllegalArgumentException(
                        "the channel is in " + channel.labUnit().named() + ", but its sensor takes "
                                + channel.toChain().unit().named() + ".");
            }
        });
    }

    private void calibration(String p, Channel channel, Channel.CalibrationPlan plan) {
        for (String part : List.of("points", "verify", "after")) {
            List<Channel.PointPlan> list = plan.part(part);
            for (int i = 0; i < list.size(); i++) {
                String text = list.get(i).reference();
                String at = located.places().containsKey(p + "/" + part + "/" + i + "/reference")
                        ? p + "/" + part + "/" + i + "/reference"
                        : p + "/" + part + "/" + i;
                Reading reading = null;
                try {
                    reading = Reading.parse(text);
                } catch (IllegalArgumentException e) {
                    check.names(at, text, sheet.inputs().keySet());
                }
                if (reading != null) {
                    LabUnit unit = reading.unit();
                    check.attempt(at, () -> unit.convert(0, channel.labUnit()));
                }
            }
        }
        for (String text : new String[] {plan.tolerance(), plan.band()}) {
            if (text != null) {
                check.attempt(p, () -> Reading.parse(text).unit().scaleTo(channel.labUnit()));
            }
        }
        Relation relation = plan.toRelation();
        int fewest = relation == Relation.CLOSURE ? 0 : relation.fewest();
        if (plan.points().size() < fewest) {
            check.problem(
                    p,
                    1,
                    "a calibration by " + relation.label() + " needs at least " + fewest
                            + (fewest == 1 ? " point." : " points."));
        }
        if (relation == Relation.CLOSURE && plan.divisions() == null) {
            check.problem(p, 1, "a circle closure needs its 'divisions'.");
        }
        if (relation == Relation.ADJUSTED && plan.band() == null) {
            check.problem(p, 1, "an adjustment needs its 'band'.");
        }
    }
}
