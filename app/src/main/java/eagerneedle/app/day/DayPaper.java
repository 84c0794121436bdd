package eagerneedle.app.day;

import eagerneedle.core.day.ReadyCheck;
import eagerneedle.core.day.Rota;
import eagerneedle.report.DayPages;
import eagerneedle.report.Paper;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Path;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The pages of an afternoon: the one for the wall, and one for each bench. */
public final class DayPaper {
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("EEEE d MMMM uuuu", Locale.UK);

    private DayPaper() {}

    /**
     * Writes them.
     *
     * @param checks of benches, of which those of that day stand on the wall
     * @param output ends in .pdf or .html
     * @throws IOException when it cannot be written
     */
    public static void write(DayPlan made, List<ReadyCheck> checks, Path output, boolean letter) throws IOException {
        Paper paper = letter ? Paper.LETTER : Paper.A4;
        String name = FileName.of(output).toLowerCase(Locale.ROOT);
        if (name.endsWith(".pdf")) {
            Beside.write(output, DayPages.pdf(wall(made, checks), benches(made), paper));
        } else if (name.endsWith(".html")) {
            Beside.write(output, DayPages.html(wall(made, checks), benches(made), paper));
        } else {
            throw new IllegalArgumentException(
                    "The pages are PDF or HTML; name the output something.pdf or something.html.");
        }
    }

    /** The day in words. */
    public static String date(DayPlan made) {
        return DATE.format(made.day().date());
    }

    /** A row for each group: its name, and where it is in each round. */
    public static List<List<String>> rows(DayPlan made) {
        List<List<String>> rows = new ArrayList<>();
        if (made.rota().isThere()) {
            for (String g : made.day().groups()) {
                List<String> row = new ArrayList<>(List.of(g));
                for (int s = 0; s < made.day().slots(); s++) {
                    row.add(made.rota().of(g, s).map(p -> place(made, p)).orElse("free"));
                }
                rows.add(row);
            }
        }
        return rows;
    }

    private static String place(DayPlan made, Rota.Place p) {
        return java.util.Objects.requireNonNull(made.needs().get(p.method())).title() + ", bench " + p.bench();
    }

    private static DayPages.Wall wall(DayPlan made, List<ReadyCheck> checks) {
        List<String> times = new ArrayList<>();
        for (int s = 0; s < made.day().slots(); s++) {
            times.add(made.time(s));
        }
        return new DayPages.Wall(
                made.day().title(),
                date(made),
                times,
                rows(made),
                made.day().staff(),
                made.switching(),
                made.fetching(),
                made.warnings(),
                made.ready(checks));
    }

    private static List<DayPages.Bench> benches(DayPlan made) {
        return made.benches().stream()
                .map(b -> {
                    List<List<String>> rounds = new ArrayList<>();
                    for (int s = 0; s < made.day().slots(); s++) {
                        String who = b.groups().get(s);
                        rounds.add(List.of(made.time(s), who.isEmpty() ? "nobody" : who));
                    }
                    return new DayPages.Bench(b.title(), b.number(), b.switchedOn(), b.instruments(), rounds);
                })
                .toList();
    }
}
