package eagerneedle.app.classroom;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.marking.Explanation;
import eagerneedle.core.marking.GivenNumber;
import eagerneedle.core.marking.Marked;

/** Marks as JSON: each student with each quantity, what was given and expected, the verdict and what explains it. */
public final class MarksJson {
    private MarksJson() {}

    public static String of(ClassMarking.Marks marks) {
        ObjectNode root = new ObjectMapper().createObjectNode();
        root.put("method", marks.about().method());
        ArrayNode students = root.putArray("students");
        for (StudentMarks s : marks.students()) {
            ObjectNode one = students.addObject().put("id", s.student().id());
            if (!s.student().group().isEmpty()) {
                one.put("group", s.student().group());
            }
            ArrayNode items = one.putArray("items");
            s.items().forEach(m -> item(items.addObject(), m));
            ArrayNode remarks = one.putArray("remarks");
            s.remarks().forEach(remarks::add);
        }
        ArrayNode shared = root.putArray("shared_digits");
        marks.shared().forEach(p -> {
            ObjectNode one = shared.addObject();
            one.putArray("students").add(p.a()).add(p.b());
            ArrayNode q = one.putArray("quantities");
            p.quantities().forEach(q::add);
            one.put("chance", p.chance()).put("says", p.says());
        });
        return root.toPrettyString();
    }

    private static void item(ObjectNode to, Marked m) {
        to.put("quantity", m.quantity());
        GivenNumber g = m.given();
        if (g == null) {
            to.put("given", m.handIn().value().isBlank() ? null : m.handIn().value());
            to.putNull("u").put("unit", m.handIn().unit());
        } else {
            to.put("given", g.value());
            if (g.hasU()) {
                to.put("u", g.u());
            } else {
                to.putNull("u");
            }
            to.put("unit", g.unit());
        }
        if (m.expected() == null) {
            to.putNull("expected").putNull("expected_u").putNull("expected_unit");
        } else {
            to.put("expected", m.expected().value())
                    .put("expected_u", m.expected().u())
                    .put("expected_unit", m.expected().unit().symbol());
        }
        to.put("verdict", m.verdict().id());
        ArrayNode by = to.putArray("explained_by");
        for (Explanation e : m.explanations()) {
            by.addObject()
                    .put("mistake", e.id())
                    .put("label", e.label())
                    .put("says", e.says())
                    .put("nearness", e.nearness());
        }
        to.put("follows_from", m.followsFrom().isEmpty() ? null : String.join(", ", m.followsFrom()));
        ArrayNode notes = to.putArray("notes");
        m.notes().forEach(notes::add);
    }
}
