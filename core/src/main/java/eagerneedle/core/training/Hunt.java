package eagerneedle.core.training;

import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;

/**
 * A fault that is hidden at the bench, or none: whoever is trained works as usual, with the watches silent, and says
 * what is wrong and what is to be done.
 *
 * @param faults the faults that a bench of the method can have, in the order of the sheet
 * @param hidden the one that is hidden; empty where all is well
 */
public record Hunt(List<Sheet.Mistake> faults, Optional<Sheet.Mistake> hidden) {
    /** One hunt in so many has no fault: to find nothing where there is nothing is to be learned as well. */
    private static final int NONE_IN = 5;

    public Hunt {
        faults = List.copyOf(faults);
    }

    /** True where the bench of a method can have faults. */
    public static boolean canBe(Sheet sheet) {
        return sheet.mistakes().stream().anyMatch(Sheet.Mistake::isAtBench);
    }

    /**
     * Hides one.
     *
     * @throws IllegalArgumentException with one sentence where the sheet has none to hide
     */
    public static Hunt of(Sheet sheet, RandomGenerator random) {
        List<Sheet.Mistake> faults =
                sheet.mistakes().stream().filter(Sheet.Mistake::isAtBench).toList();
        if (faults.isEmpty()) {
            throw new IllegalArgumentException(
                    sheet.title() + " knows no fault of a bench that could be hidden; choose another method.");
        }
        boolean none = random.nextInt(NONE_IN) == 0;
        return new Hunt(faults, none ? Optional.empty() : Optional.of(faults.get(random.nextInt(faults.size()))));
    }

    /** Ids of what the simulated bench is to do. */
    public List<String> atBench() {
        return hidden.map(m -> List.of(m.id())).orElse(List.of());
    }

    /**
     * What is to be said of an answer.
     *
     * @param fault id of the fault that was named; empty for none
     * @param remedy id of the fault whose remedy was chosen; empty for none
     */
    public Judged judge(String fault, String remedy) {
        String is = hidden.map(Sheet.Mistake::id).orElse("");
        boolean named = fault.equals(is);
        boolean mended = remedy.equals(is);
        List<String> says = new ArrayList<>();
        if (hidden.isEmpty()) {
            says.add(
                    named
                            ? "Right: nothing was wrong at this bench."
                            : "Nothing was wrong at this bench: " + label(fault)
                                    + " would have been looked for in vain.");
        } else {
            Sheet.Mistake m = hidden.get();
            says.add((named
                            ? "Right: "
                            : fault.isEmpty() ? "Something was wrong: " : "It was not " + label(fault) + ": ")
                    + m.label() + ".");
            says.add((mended ? "And the remedy is right: " : "What is to be known of it: ") + m.says());
        }
        return new Judged(named, hidden.isEmpty() ? named : mended, says);
    }

    /** @param says one sentence each */
    public record Judged(boolean fault, boolean remedy, List<String> says) {
        public Judged {
            says = List.copyOf(says);
        }
    }

    private String label(String id) {
        return faults.stream()
                .filter(m -> m.id().equals(id))
                .map(Sheet.Mistake::label)
                .findFirst()
                .orElse("anything");
    }
}
