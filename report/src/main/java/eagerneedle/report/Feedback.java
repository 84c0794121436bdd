package eagerneedle.report;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What a student reads about what was handed in. */
public final class Feedback {
    private Feedback() {}

    /**
     * A quantity.
     *
     * @param given as it was handed in; empty for nothing
     * @param title the verdict, kindly
     * @param says what to do
     * @param expected what the data give; empty while that is not told
     */
    public record Line(
            String label,
            String given,
            String title,
            String says,
            boolean right,
            String expected,
            String points,
            String most) {
        /** For the template, which reads properties. */
        Map<String, Object> model() {
            Map<String, Object> m = new LinkedHashMap<>();
            m.put("label", label);
            m.put("given", given);
            m.put("title", title);
            m.put("says", says);
            m.put("right", right);
            m.put("expected", expected);
            m.put("points", points);
            m.put("most", most);
            return m;
        }
    }

    /**
     * One student's page.
     *
     * @param late how late work is dealt with; empty for none
     */
    public record Page(String title, String student, List<Line> lines, String total, String most, String late) {}

    /** The page, on paper of a size. */
    public static String html(Page p, Paper paper) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("paper", paper == Paper.LETTER ? "letter" : "A4");
        m.put("title", p.title());
        m.put("student", p.student());
        m.put("lines", p.lines().stream().map(Line::model).toList());
        m.put("total", p.total());
        m.put("most", p.most());
        m.put("late", p.late());
        return Papers.html("feedback.ftlh", m);
    }

    public static byte[] pdf(Page p, Paper paper) {
        return Papers.pdf(html(p, paper));
    }
}
