package eagerneedle.app.eye;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Typing;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;

/**
 * A field for each thing that is read by eye with a run. Enter goes to the next field that is empty, and from the last
 * one does what keeps the run; cells of a spreadsheet pasted into a field run on into the fields behind it.
 */
public final class EyeFields extends FlowPane {
    private static final int LONG = 16;
    private final Runnable last;
    private final List<Asked> asked = new ArrayList<>();
    private Consumer<String> several = text -> {};
    private String shown = "";

    /** One thing that is asked for: its name in the sheet, and what a reading of it looks like. */
    private record Asked(String name, Sheet.Input input, String expected, TextField field, ReadingField around) {}

    /** @param last what Enter does in the last field */
    public EyeFields(Runnable last) {
        super(12, 6);
        this.last = last;
        setAlignment(Pos.CENTER_LEFT);
    }

    /** What to do with several rows of cells, as they stand on the clipboard. */
    public void onRows(Consumer<String> act) {
        several = act;
    }

    /**
     * Shows a field for all that a run is read for.
     *
     * @param run what was entered with it stands in the fields
     * @param prefix of the ids of the fields
     */
    public void show(Workbench bench, Run run, String prefix) {
        Capture plan = EyeReadings.plan(bench, run.capture());
        // Taken to another level, a row that is half read stays as it is.
        Map<String, String> typed = new HashMap<>();
        String of = run.id() + " " + run.capture();
        if (of.equals(shown)) {
            asked.forEach(a -> typed.put(a.name(), Typing.in(a.field())));
        }
        clear();
        shown = of;
        plan.byEye().forEach((key, input) -> {
            String expected = plan.expected(run.level(), key);
            TextField f = new Cells(key);
            f.setId(prefix + key);
            f.setPrefWidth(input.times() > 1 || expected.length() > LONG ? 230 : 130);
            f.setPromptText(Typing.as(expected));
            f.setAccessibleText(input.label() + ", by eye");
            Typing.show(
                    f,
                    run.entries()
                            .byEye()
                            .getOrDefault(
                                    key,
                                    EyeReadings.known(bench, run.capture(), run.level(), key)
                                            .orElse(typed.getOrDefault(key, ""))));
            Labels.explained(
                    f,
                    (input.by() == null ? "Read by eye" : "By " + input.by())
                            + (input.times() > 1
                                    ? ": " + input.times()
                                            + " readings with semicolons between, the unit behind the last"
                                    : ": value with its uncertainty and unit, for instance " + Typing.as(expected))
                            + (input.isOncePerLevel() ? "; read once, it serves all runs at this level" : ""));
            f.setOnAction(e -> next(f));
            ReadingField around = new ReadingField(f, input.label(), expected, () -> {});
            asked.add(new Asked(key, input, expected, f, around));
            getChildren().add(labelled(input, around));
        });
        pictured(bench, run);
        setVisible(!asked.isEmpty());
        setManaged(!asked.isEmpty());
    }

    /** Shows nothing. */
    public void clear() {
        asked.clear();
        shown = "";
        getChildren().clear();
        setVisible(false);
        setManaged(false);
    }

    private static HBox labelled(Sheet.Input input, ReadingField around) {
        HBox box = new HBox(
                6, Labels.quiet(input.label() + (input.times() > 1 ? ", " + input.times() + " times" : "")), around);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** Offers the pictures of a run to measure on. */
    public void pictured(Workbench bench, Run run) {
        asked.forEach(a -> a.around().offer(run.entries().pictures(), bench.file()::attachment));
    }

    private void next(TextField from) {
        List<TextField> all = asked.stream().map(Asked::field).toList();
        all.stream()
                .skip(all.indexOf(from) + 1L)
                .filter(f -> f.getText().isBlank())
                .findFirst()
                .ifPresentOrElse(TextField::requestFocus, last);
    }

    /** Takes the keyboard to the first field. */
    public void first() {
        asked.stream().map(Asked::field).findFirst().ifPresent(TextField::requestFocus);
    }

    /** Takes the keyboard to the first field that is empty. */
    public void focus() {
        asked.stream()
                .map(Asked::field)
                .filter(f -> f.getText().isBlank())
                .findFirst()
                .or(() -> asked.stream().map(Asked::field).findFirst())
                .ifPresent(TextField::requestFocus);
    }

    /**
     * The run with what stands in the fields.
     *
     * @param all true where nothing may be missing; otherwise what was never read may stay so
     * @throws IllegalArgumentException with one sentence when something is missing or does not fit; its field has the
     *     keyboard then
     */
    public Run entered(Run run, boolean all) {
        Run r = run;
        for (Asked a : asked) {
            if (!all && a.field().getText().isBlank() && !run.entries().byEye().containsKey(a.name())) {
                continue;
            }
            try {
                r = r.entered(
                        r.entries().read(a.name(), EyeReadings.checked(a.input(), a.expected(), Typing.in(a.field()))));
            } catch (IllegalArgumentException bad) {
                a.field().requestFocus();
                throw bad;
            }
        }
        return r;
    }

    /**
     * A time taken with the stopwatch goes into the first field that waits for one; true when there is such a field.
     */
    public boolean stopped(double seconds) {
        String time = String.format(Locale.ROOT, "%.2f", seconds);
        for (Asked a : asked) {
            String there = Typing.in(a.field()).strip();
            int have = there.isEmpty() ? 0 : there.split(";").length;
            if (EyeReadings.unit(a.expected()).fits(LabUnit.SECOND)
                    && have < a.input().times()) {
                Typing.show(
                        a.field(),
                        a.input().times() == 1
                                ? "stopwatch(" + time + " s)"
                                : (there.isEmpty() ? "" : there + "; ") + time + " s");
                return true;
            }
        }
        return false;
    }

    /** A field whose pasted cells run on. */
    private final class Cells extends TextField {
        private final String key;

        Cells(String key) {
            this.key = key;
        }

        @Override
        public void paste() {
            String text = Clipboard.getSystemClipboard().getString();
            if (text == null || !text.strip().contains("\n") && !text.contains("\t")) {
                super.paste();
            } else if (text.strip().contains("\n")) {
                several.accept(Typing.of(text));
            } else {
                Notices.attempt(this, () -> across(text.strip().split("\t", -1)));
            }
        }

        private void across(String[] cells) {
            List<Asked> from =
                    asked.stream().dropWhile(a -> !a.name().equals(key)).toList();
            if (cells.length > from.size()) {
                throw new IllegalArgumentException(cells.length + " cells were pasted, but there are only "
                        + from.size() + " fields from here on; nothing was taken.");
            }
            for (int i = 0; i < cells.length; i++) {
                if (!cells[i].isBlank()) {
                    Asked a = from.get(i);
                    Typing.show(a.field(), EyeReadings.asExpected(a.expected(), Typing.of(cells[i]), ""));
                }
            }
        }
    }
}
