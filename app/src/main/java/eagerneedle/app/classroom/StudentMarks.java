package eagerneedle.app.classroom;

import eagerneedle.core.marking.Marked;
import eagerneedle.store.classroom.ClassList;
import java.util.List;

/**
 * What became of one student's hand-in.
 *
 * @param remarks what else is to be said of it, each a sentence
 */
public record StudentMarks(ClassList.Student student, List<Marked> items, List<String> remarks) {
    public StudentMarks {
        items = List.copyOf(items);
        remarks = List.copyOf(remarks);
    }
}
