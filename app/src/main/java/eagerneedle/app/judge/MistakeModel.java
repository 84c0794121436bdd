package eagerneedle.app.judge;

import eagerneedle.app.station.Desk;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What a mistake that people make would have done to the answers of this session. */
final class MistakeModel {
    /** One answer with the mistake in it; {@code judged} is absent where it cannot be compared. */
    record Consequence(Optional<Comparison> judged, String words) {}

    private final Desk desk;

    MistakeModel(Desk desk) {
        this.desk = desk;
    }

    List<Sheet.Mistake> mistakes() {
        return desk.bench().sheet().reckoningMistakes();
    }

    List<Consequence> of(Sheet.Mistake m) {
        Reduction real = desk.bench().reduction();
        Reduction wrong = desk.bench().mistaken(m);
        List<Consequence> out = new ArrayList<>();
        for (Sheet.Comparison c : desk.bench().sheet().comparisons()) {
            String words = answer(real, wrong, c.result());
            Optional<Comparison> judged = wrong.comparisons().stream()
                    .filter(x -> x.id().equals(c.id()))
                    .findFirst();
            if (judged.isPresent()) {
                boolean agrees = judged.get().agrees(wrong.speaks(c.id()));
                words += agrees
                        ? "; it would still agree, so this comparison does not notice."
                        : "; it would not agree.";
            } else if (!words.endsWith(".")) {
                words += ".";
            }
            out.add(new Consequence(judged, words));
        }
        return out;
    }

    private String answer(Reduction real, Reduction wrong, String result) {
        Optional<Quantity> is = real.quantity(result);
        Derived d = desk.bench().sheet().results().get(result);
        String name = d == null || d.label() == null ? result : d.label();
        return wrong.quantity(result)
                .map(q -> name + " would be " + Notation.bracket(q)
                        + is.filter(x -> x.unit().fits(q.unit()) && x.value() != 0)
                                .map(x -> same(x, q)
                                        ? ", as it is"
                                        : ", off by " + Notation.plain(100 * (q.in(x.unit()) / x.value() - 1), 2)
                                                + " %")
                                .orElse(""))
                .orElse(name + " could not be found: " + wrong.outcome(result).problem());
    }

    private static boolean same(Quantity a, Quantity b) {
        return Math.abs(b.in(a.unit()) - a.value()) <= 1e-9 * Math.abs(a.value());
    }
}
