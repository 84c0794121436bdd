package eagerneedle.core.sheet;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Written;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** Finds what a pool takes that the other sheet does not have. */
final class PoolCheck {
    private static final Pattern PLACED = Pattern.compile("^[^:]*?(?:, line \\d+(?:, column \\d+)?)?: ");

    private final Sheet sheet;
    private final SheetCheck check;

    PoolCheck(Sheet sheet, SheetCheck check) {
        this.sheet = sheet;
        this.check = check;
    }

    /** False where the sheet that is taken from is not known, so that nothing else can be told. */
    boolean all() {
        Pool pool = sheet.pool();
        if (!pool.isThere()) {
            return true;
        }
        if (sheet.captures().containsKey(Pool.NAME)) {
            check.problem(
                    "/captures/" + Pool.NAME, 1, "the columns of the pool are called by 'pool'; rename this capture.");
        }
        if (pool.from().equals(sheet.id())) {
            check.problem("/pool/from", 1, "a pool takes from another method, not from itself.");
            return false;
        }
        Optional<String> text = PooledSheet.textOf(sheet);
        if (text.isEmpty()) {
            check.problem(
                    "/pool/from",
                    1,
                    "there is no sheet " + pool.from() + " beside this one, and none ships"
                            + NearName.hint(pool.from(), SheetReader.shipped())
                            + " Put its file into the same folder.");
            return false;
        }
        SheetReader.Looked looked = SheetReader.look(text.get(), pool.from() + ".yaml");
        if (looked.located().isEmpty() || !looked.problems().isEmpty()) {
            check.problem(
                    "/pool/from",
                    1,
                    "the sheet " + pool.from() + " is not good itself: "
                            + looked.problems().get(0).getMessage());
            return false;
        }
        Sheet source = looked.located().get().sheet();
        if (source.pool().isThere()) {
            check.problem(
                    "/pool/from", 1, pool.from() + " is a pool itself; take from the method whose sessions it takes.");
            return false;
        }
        pool.take().forEach((name, formula) -> taken(name, formula, text.get()));
        shared(source);
        sessions(source);
        return true;
    }

    /** One by one, so that what is wrong is told where it is written. */
    private void taken(String name, String formula, String text) {
        SheetReader.look(text, sheet.pool().from() + ".yaml", PooledSheet.results(Map.of(name, formula)))
                .problems()
                .forEach(p -> check.problem(
                        "/pool/take/" + name,
                        1,
                        "in " + sheet.pool().from() + ": "
                                + PLACED.matcher(p.getMessage()).replaceFirst("")));
    }

    private void shared(Sheet source) {
        for (int i = 0; i < sheet.pool().shared().size(); i++) {
            String name = sheet.pool().shared().get(i);
            List<String> known = new ArrayList<>(source.inputs().keySet());
            source.channels().forEach((n, c) -> {
                known.add(n);
                if (c.calibration() != null) {
                    known.add(n + Pool.REFERENCE);
                }
            });
            if (!known.contains(name)) {
                check.problem(
                        "/pool/shared/" + i,
                        1,
                        sheet.pool().from() + " has no input, channel or reference of a calibration called " + name
                                + NearName.hint(name, known));
            }
        }
    }

    private void sessions(Sheet source) {
        sheet.pool()
                .sessions()
                .forEach((session, readings) -> readings.forEach((input, reading) -> {
                    String at = "/pool/sessions/" + session + "/" + input;
                    if (!source.inputs().containsKey(input)) {
                        check.problem(
                                at,
                                1,
                                sheet.pool().from() + " has no input " + input
                                        + NearName.hint(input, source.inputs().keySet()));
                    } else {
                        check.attempt(at, () -> Written.check(reading));
                    }
                }));
    }
}
