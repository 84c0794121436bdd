package eagerneedle.store.export;

import static eagerneedle.store.export.SpreadsheetCell.words;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** The ledger and single runs as CSV, numbers at full precision, decimal points, one header row with units. */
public final class LedgerCsv {
    private LedgerCsv() {}

    /** One row a quantity. */
    public static String of(Ledger ledger) {
        return print(csv -> {
            csv.printRecord("name", "label", "group", "value", "unit", "u", "dof", "k", "U", "problem");
            for (Ledger.Entry e : ledger.entries()) {
                if (e.quantity().isPresent()) {
                    Quantity q = e.quantity().get();
                    csv.printRecord(
                            words(e.name()),
                            words(e.label()),
                            words(e.group()),
                            q.value(),
                            q.unit().symbol(),
                            q.u(),
                            Double.isInfinite(q.dof()) ? "" : q.dof(),
                            Coverage.DEFAULT.factor(q.dof()),
                            Coverage.DEFAULT.expanded(q),
                            "");
                } else {
                    csv.printRecord(
                            words(e.name()),
                            words(e.label()),
                            words(e.group()),
                            "",
                            "",
                            "",
                            "",
                            "",
                            "",
                            words(e.instead()));
                }
            }
        });
    }

    /** A run: its clock, its raw values as they came, and the measurand where it could be worked out. */
    public static String of(Run run, String channel, RawSamples raw, Trace trace) {
        return print(csv -> {
            csv.printRecord(
                    "time (s)",
                    words(channel) + " raw (" + run.rawUnit(channel) + ")",
                    words(channel) + " (" + trace.unit().symbol() + ")");
            int at = 0;
            for (int i = 0; i < raw.size(); i++) {
                boolean known = at < trace.size() && trace.time()[at] == raw.time()[i];
                csv.printRecord(raw.time()[i], raw.values()[i], known ? trace.value()[at++] : "");
            }
        });
    }

    private interface Body {
        void print(CSVPrinter csv) throws IOException;
    }

    private static String print(Body body) {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(
                out, CSVFormat.DEFAULT.builder().setRecordSeparator("\n").get())) {
            body.print(csv);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toString();
    }
}
