package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.OnPoint;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Picture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.ColumnPlots;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import eagerneedle.picture.ResidualPlots;
import eagerneedle.picture.SessionPlots;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The runs of a session: which there are, the one in hand, whether it takes part, and where its window lies. */
final class ReduceModel {
    /** A line of the list of runs. */
    sealed interface Line {
        /** The runs of a capture follow. */
        record Group(String label) implements Line {}

        /**
         * One run.
         *
         * @param value its headline value with uncertainty; a dash without one
         * @param about its level, and why it is left out
         */
        record Taken(int id, String name, String value, String about, boolean leftOut, boolean chosen) implements Line {
            private Taken withValue(String other) {
                return new Taken(id, name, other, about, leftOut, chosen);
            }
        }
    }

    /** Something that may be done to the windows. */
    record Act(String words, Runnable run) {}

    /**
     * What stands over the run in hand.
     *
     * @param leave words of the button that leaves it out or takes it in again
     * @param moved true when its window is not the proposed one
     */
    record Head(String title, String says, String leave, boolean moved) {}

    private final Desk desk;
    private String seen = "";

    ReduceModel(Desk desk) {
        this.desk = desk;
    }

    private Reduction reduction() {
        return desk.bench().reduction();
    }

    /** The run in hand as it is now; absent when there is none or it was discarded. */
    Optional<Run> run() {
        return desk.run()
                .flatMap(r -> kept().stream().filter(x -> x.id() == r.id()).findFirst());
    }

    /** The runs that were not discarded, those left out that a rule of the sheet leaves out. */
    private List<Run> kept() {
        return reduction().runs().stream().filter(r -> r.discard() == null).toList();
    }

    private Capture capture(Run run) {
        return desk.bench().sheet().capture(run.capture());
    }

    /** The window of a run that is moved by hand: the one on the channel that is seen, otherwise the first. */
    Optional<String> window(Run run) {
        return capture(run)
                .windowOn(seen)
                .or(() -> capture(run).windows().keySet().stream().findFirst());
    }

    /** Which channel of the run in hand is looked at. */
    void see(String channel) {
        seen = channel;
    }

    /** True when the channel that is seen could have a window of its own and has none. */
    boolean lacksWindow() {
        return run().filter(x -> capture(x).channels().contains(seen)
                        && capture(x).windowOn(seen).isEmpty())
                .isPresent();
    }

    /** Puts a window on the channel that is seen, in all runs of its kind. */
    void putWindow() {
        run().ifPresent(x -> {
            Additions.Added a = Additions.window(text(), x.capture(), seen);
            desk.bench()
                    .apply(new SheetCommand.Write(a.text(), "Put a window on " + label(seen) + ": " + a.name() + "."));
        });
    }

    private String text() {
        return desk.bench().session().sheetText();
    }

    private String label(String channel) {
        return desk.bench().sheet().channel(channel).label();
    }

    /** True when the channel that is seen can be fitted over time. */
    boolean mayFit() {
        return run().filter(x -> capture(x).channels().contains(seen)).isPresent();
    }

    /**
     * Fits the channel that is seen, in all runs of its kind.
     *
     * @throws IllegalArgumentException with one sentence where the run in hand cannot be fitted so; nothing changes
     *     then
     */
    void fit(Additions.Curve curve) {
        run().ifPresent(x -> {
            Additions.Added a = Additions.fit(text(), x.capture(), seen, curve);
            SheetCommand.Write act =
                    new SheetCommand.Write(a.text(), "Fitted " + label(seen) + ": " + curve.label() + ".");
            String problem =
                    desk.bench().whatIf(act).outcome(Key.of(x, a.name())).problem();
            if (problem != null) {
                throw new IllegalArgumentException(problem);
            }
            desk.bench().apply(act);
        });
    }

    /** The fits of the channel that is seen that may be taken away: name and what it is. */
    Map<String, String> fits() {
        Map<String, String> out = new LinkedHashMap<>();
        run().ifPresent(x -> capture(x).quantities().forEach((n, d) -> {
            if (n.startsWith("fit_" + seen) && desk.bench().ownsSheet()) {
                out.put(n, d.formula());
            }
        }));
        return out;
    }

    /** Takes a fit away with the parameters that were taken out of it. */
    void unfit(String name) {
        run().ifPresent(x -> {
            SheetText sheet = SheetText.of(text());
            String at = "/captures/" + x.capture() + "/quantities";
            for (String q : sheet.names(at)) {
                String formula = sheet.value(at + "/" + q + "/formula").orElse("");
                if (q.equals(name) || formula.matches("\\w+\\(" + name + "(, .*)?\\)")) {
                    sheet = sheet.without(at + "/" + q);
                }
            }
            desk.bench().apply(new SheetCommand.Write(sheet.text(), "Took the fit " + name + " away."));
        });
    }

    /** True unless the run in hand has nothing on which a window could lie, or to leave samples out of. */
    boolean hasWindows() {
        return run().filter(x -> capture(x).isByEye()).isEmpty();
    }

    /** The list of runs, by capture; empty when nothing was taken yet. */
    List<Line> lines() {
        List<Line> out = new ArrayList<>();
        String group = "";
        for (Run run : kept()) {
            if (!run.capture().equals(group)) {
                group = run.capture();
                Capture c = desk.bench().sheet().captures().get(run.capture());
                out.add(new Line.Group((c == null ? group : c.label()).toUpperCase(Locale.ROOT)));
            }
            out.add(new Line.Taken(
                    run.id(),
                    run.name(),
                    reduction()
                            .headline(run)
                            .flatMap(Ledger.Entry::quantity)
                            .map(q -> Notation.bracketed(q.value(), q.u()))
                            .orElse("—"),
                    SessionPlots.levelLabel(reduction(), run)
                            + (run.leftOut() == null ? "" : " · left out: " + run.leftOut()),
                    run.leftOut() != null,
                    desk.run().map(x -> x.id() == run.id()).orElse(false)));
        }
        return onTheirPoints(out);
    }

    /** Numbers stand on their points. */
    private static List<Line> onTheirPoints(List<Line> lines) {
        Iterator<String> values = OnPoint.of(lines.stream()
                        .flatMap(l -> l instanceof Line.Taken t ? Stream.of(t.value()) : Stream.empty())
                        .toList())
                .iterator();
        return lines.stream()
                .map(l -> l instanceof Line.Taken t ? t.withValue(values.next()) : l)
                .toList();
    }

    /** What the numbers in the list are. */
    String listed() {
        return kept().stream()
                .flatMap(run -> reduction().headline(run).stream())
                .filter(e -> e.quantity().isPresent())
                .reduce((a, b) -> b)
                .map(e -> (e.symbol() == null ? "" : (e.symbol().contains("_") ? e.label() : e.symbol()) + ", ")
                        + e.quantity().get().unit().pretty())
                .orElse("");
    }

    /** The course of a run as a sketch; empty where there is none. */
    Optional<RunSketch> sketch(int id) {
        return desk.bench().session().run(id).flatMap(run -> RunSketch.of(desk.bench(), run));
    }

    void choose(int id) {
        desk.bench().session().run(id).ifPresent(desk::choose);
    }

    /** Takes the next run in hand, or the one before; its id, or nothing at the ends. */
    Optional<Integer> step(int from, int by) {
        List<Run> kept = kept();
        int i = kept.stream().map(Run::id).toList().indexOf(from) + by;
        if (i < 0 || i >= kept.size()) {
            return Optional.empty();
        }
        desk.choose(kept.get(i));
        return Optional.of(kept.get(i).id());
    }

    Optional<Head> head() {
        return run().map(run -> new Head(
                run.name() + ", " + SessionPlots.levelLabel(reduction(), run),
                run.leftOut() != null
                        ? "left out: " + run.leftOut()
                        : reduction()
                                .fitOfRun(run)
                                .map(f -> f.x().length + " points · residual SD "
                                        + SessionPlots.finely(f.residualSd(), f.yUnit()) + " · "
                                        + (f.remarks().isEmpty() ? "no pattern" : "a pattern in the residuals"))
                                .orElse(""),
                run.leftOut() == null ? "Leave out..." : "Take in again",
                window(run).filter(w -> run.windows().containsKey(w)).isPresent()));
    }

    /** True when the run in hand is fitted with more than one model, or has pictures of its own. */
    boolean hasModels() {
        return run().filter(x -> ModelsModel.has(desk.bench().sheet(), x)).isPresent();
    }

    /** What the main result would be without the run in hand; empty when there is none. */
    String without() {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        Optional<Run> run = run();
        if (main == null || run.isEmpty()) {
            return "";
        }
        Optional<Quantity> now = reduction().quantity(main.result());
        if (now.isEmpty()) {
            return "";
        }
        Derived derived = desk.bench().sheet().results().get(main.result());
        String label = derived == null ? main.result() : derived.label();
        return desk.bench()
                .whatIf(new RunCommand.LeaveOut(run.get().id(), "tried"))
                .quantity(main.result())
                .map(then -> "Without it " + label + " would be " + then + "; with it, it is " + now.get() + ".")
                .orElse("Without it there is no " + label + ".");
    }

    /** Leaves the run in hand out, for a reason; it takes part again with null. */
    void leaveOut(@Nullable String reason) {
        run().ifPresent(run ->
                desk.bench().apply(new RunCommand.LeaveOut(run.id(), reason == null ? null : reason.strip())));
    }

    /** Takes the proposed window of the run in hand again. */
    void propose() {
        run().ifPresent(run ->
                window(run).ifPresent(w -> desk.bench().apply(new ReducingCommand.SetWindow(run.id(), w, null))));
    }

    /** What may be done to the windows and the samples of the run in hand and its likes. */
    List<Act> windowActs() {
        return run().map(run -> new WindowActs(desk.bench(), run).all(window(run)))
                .orElse(List.of());
    }

    /** Titles of the pictures over runs. */
    List<String> pictures() {
        return desk.bench().sheet().pictures().stream().map(Picture::title).toList();
    }

    private Optional<Picture> picture(String title) {
        return desk.bench().sheet().pictures().stream()
                .filter(p -> p.title().equals(title))
                .findFirst();
    }

    Optional<Plot> columns(String title) {
        return picture(title).flatMap(p -> ColumnPlots.columns(reduction(), p));
    }

    Optional<Plot> columnResiduals(String title) {
        return picture(title).flatMap(p -> ResidualPlots.of(reduction(), p));
    }

    /** Takes the run behind a point of a picture in hand; false when there is none behind it. */
    boolean choosePoint(Layer.Points layer, int index) {
        Optional<Run> run = ColumnPlots.runOf(reduction(), layer, index);
        run.ifPresent(desk::choose);
        return run.isPresent();
    }

    /** The tables of all captures, for a spreadsheet. */
    String tables() {
        StringBuilder b = new StringBuilder();
        desk.bench().sheet().captures().forEach((name, capture) -> {
            String rows = TableModel.tabbed(reduction(), name);
            b.append(rows.isEmpty() ? "" : capture.label() + "\n" + rows);
        });
        return b.toString();
    }
}
