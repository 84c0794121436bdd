package eagerneedle.app.training;

import eagerneedle.app.widget.Sentence;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Face;
import eagerneedle.core.training.Drill;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;

/** The reading drill: what is asked now, what was said of the last answer, and how it has gone so far. */
public final class DrillModel {
    /** A face never read is asked as often as one that was always read wrongly. */
    private static final double LEAST = 0.15;

    private final RandomGenerator random;
    private final Path kept;
    private TrainingProgress progress;
    private Optional<Face> only = Optional.empty();
    private Drill asked;
    private Optional<Drill.Judged> judged = Optional.empty();

    /** @param kept the file of the progress */
    public DrillModel(RandomGenerator random, Path kept) {
        this.random = random;
        this.kept = kept;
        progress = TrainingProgress.read(kept);
        asked = Drill.of(chosen(), random);
    }

    /** Asks for one face only, or for all of them when it is empty. */
    public void only(Optional<Face> face) {
        only = face;
        next();
    }

    /** Draws the next. */
    public void next() {
        asked = Drill.of(only.orElseGet(this::chosen), random);
        judged = Optional.empty();
    }

    /** Those that go badly come more often. */
    private Face chosen() {
        double[] weight = Drill.FACES.stream().mapToDouble(this::missing).toArray();
        double all = java.util.Arrays.stream(weight).sum();
        double at = random.nextDouble() * all;
        for (int i = 0; i < weight.length; i++) {
            at -= weight[i];
            if (at <= 0) {
                return Drill.FACES.get(i);
            }
        }
        return Drill.FACES.get(0);
    }

    private double missing(Face face) {
        TrainingProgress.Read r = progress.faces().getOrDefault(face.name(), new TrainingProgress.Read(0, 0, 0));
        return LEAST + 1 - (r.values() + r.uncertainties()) / (2.0 * Math.max(1, r.asked()));
    }

    public Drill asked() {
        return asked;
    }

    /** What was said of the answer; empty while it is awaited. */
    public Optional<Drill.Judged> judged() {
        return judged;
    }

    /**
     * Takes an answer.
     *
     * @param value a number in the unit asked for, or a reading with its own unit and uncertainty such as
     *     {@code 7.734(1) mm}
     * @param u standard uncertainty; empty where the value says it, or none is given
     * @throws IllegalArgumentException with one sentence where it cannot be read; then nothing is counted
     */
    public void answer(String value, String u) {
        if (judged.isPresent()) {
            return;
        }
        if (value.isBlank()) {
            throw new IllegalArgumentException("Write what you read first.");
        }
        Quantity read = quantity(value, "what you read");
        double own = read.u() > 0 ? read.u() : Double.NaN;
        double said = u.isBlank() ? own : quantity(u, "the uncertainty").value();
        if (said < 0) {
            throw new IllegalArgumentException("An uncertainty is not negative.");
        }
        Drill.Judged j = asked.judge(read.value(), said);
        judged = Optional.of(j);
        progress = TrainingProgress.read(kept).with(asked.face().name(), j.value(), j.u());
        progress.keep(kept);
    }

    private Quantity quantity(String text, String what) {
        String plain = text.strip().replace(',', '.');
        boolean number = plain.matches("[-+]?[0-9.]+([eE][-+]?[0-9]+)?(\\([0-9.]+\\))?");
        String whole = number ? plain + " " + asked.right().unit().symbol() : plain;
        try {
            Quantity q = Written.quantity(whole, what, what, what);
            if (!q.unit().fits(asked.right().unit())) {
                throw new IllegalArgumentException(
                        "It is read in " + asked.right().unit().named() + "; " + text.strip() + " is something else.");
            }
            return q.to(asked.right().unit());
        } catch (eagerneedle.core.formula.FormulaException e) {
            throw new IllegalArgumentException(
                    text.strip() + Typing.as(" is not a number: write one such as 12.34."), e);
        }
    }

    /** What is to be said of the answer: of its value and of its uncertainty; nothing while it is awaited. */
    List<Sentence> says() {
        return judged.map(j -> List.of(
                        said(j.value(), j.says().get(0)), said(j.u(), j.says().get(1))))
                .orElse(List.of());
    }

    private static Sentence said(boolean good, String words) {
        return good ? Sentence.good(words) : Sentence.attention(words);
    }

    /** How each face has gone: how often it was asked, and how many values and uncertainties were right. */
    public List<String> faces() {
        if (progress.faces().isEmpty()) {
            return List.of("Nothing has been read yet.");
        }
        return Drill.FACES.stream()
                .filter(f -> progress.faces().containsKey(f.name()))
                .map(f -> {
                    TrainingProgress.Read r =
                            java.util.Objects.requireNonNull(progress.faces().get(f.name()));
                    return f.label() + ": " + r.values() + " of " + r.asked() + " values, " + r.uncertainties() + " of "
                            + r.asked() + " uncertainties";
                })
                .toList();
    }
}
