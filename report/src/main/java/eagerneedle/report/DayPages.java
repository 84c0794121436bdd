package eagerneedle.report;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The pages of an afternoon: one for the wall, and one for every bench. */
public final class DayPages {
    private DayPages() {}

    /**
     * What stands on the wall.
     *
     * @param times of the rounds
     * @param rows a group each: its name, then what it does in each round
     * @param switching what is switched on early
     * @param fetching what is fetched from the stockroom
     * @param warnings what stands in the way
     * @param ready which benches were looked at and signed for that day
     */
    public record Wall(
            String title,
            String date,
            List<String> times,
            List<List<String>> rows,
            List<String> staff,
            List<String> switching,
            List<String> fetching,
            List<String> warnings,
            List<String> ready) {}

    /**
     * What stands at a bench.
     *
     * @param rounds a round each: its time, and who is there
     */
    public record Bench(
            String title, int number, String switchedOn, List<String> instruments, List<List<String>> rounds) {}

    public static String html(Wall wall, List<Bench> benches, Paper paper) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("paper", paper.css());
        m.put("title", wall.title());
        m.put("date", wall.date());
        m.put("times", wall.times());
        m.put("rows", wall.rows());
        m.put("staff", wall.staff());
        m.put("switching", wall.switching());
        m.put("fetching", wall.fetching());
        m.put("warnings", wall.warnings());
        m.put("ready", wall.ready());
        m.put(
                "benches",
                benches.stream()
                        .map(b -> Map.of(
                                "title", b.title(),
                                "number", b.number(),
                                "on", b.switchedOn(),
                                "instruments", b.instruments(),
                                "rounds", b.rounds()))
                        .toList());
        return Papers.html("day.ftlh", m);
    }

    public static byte[] pdf(Wall wall, List<Bench> benches, Paper paper) {
        return Papers.pdf(html(wall, benches, paper));
    }
}
