package eagerneedle.app.station;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.plot.PlotView;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.report.SessionPlots;
import eagerneedle.report.picture.BudgetPicture;
import eagerneedle.report.picture.Ink;
import eagerneedle.report.picture.Lettering;
import eagerneedle.report.picture.Plot;
import eagerneedle.report.picture.Surface;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Reduce: each run with its window, fit and residuals; the table of runs; the line through them; if the window were otherwise. */
public final class ReduceStation implements StationView {
    private static final Map<String, Double> OTHERWISE = new LinkedHashMap<>();

    static {
        OTHERWISE.put("both edges in 10 %", -0.10);
        OTHERWISE.put("both edges in 5 %", -0.05);
        OTHERWISE.put("both edges out 5 %", 0.05);
    }

    private final Desk desk;
    private final HBox all = new HBox(16);
    private final VBox runs = new VBox(1);
    private final ScrollPane runScroll = new ScrollPane(runs);
    private final PlotView trace = new PlotView("Trace of the run");
    private final PlotView residuals = new PlotView("Residuals of the fit");
    private final PlotView columns = new PlotView("Columns over runs");
    private final PictureView otherwise = new PictureView("If the window were otherwise", null);
    private final Label title = Labels.styled("", "section");
    private final Label says = Labels.quiet("");
    private final Label what = Labels.quiet("");
    private final Button leave = new Button("Leave out...");
    private final TextField reason = new TextField();
    private final Button proposal = new Button("Proposed window");
    private final Button longRuns = new Button();
    private java.util.concurrent.CompletableFuture<Void> working;
    private final ChoiceBox<String> which = new ChoiceBox<>();
    private final Label said = Labels.wrapped("");
    private Command dragged;
    private List<String> otherwiseFor = List.of();
    private List<Object[]> otherwiseRows = List.of();

    public ReduceStation(Desk desk) {
        this.desk = desk;
        all.getStyleClass().add("surface");
        runScroll.setFitToWidth(true);
        runScroll.getStyleClass().add("bare");
        VBox.setVgrow(runScroll, Priority.ALWAYS);
        Button copy = new Button("Copy");
        copy.setId("copy-runs");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copyTable());
        Labels.explained(copy, "Copy the table of runs for a spreadsheet: every quantity of every run with its standard uncertainty");
        Region wide = new Region();
        HBox.setHgrow(wide, Priority.ALWAYS);
        HBox runsHead = new HBox(6, Labels.heading("Runs"), wide, what, copy);
        runsHead.setAlignment(Pos.CENTER_LEFT);
        longRuns.setId("long-runs");
        longRuns.setOnAction(e -> workOutLong());
        Labels.explained(longRuns, "Reads every sample of runs that are too long to be worked out whenever the session opens; it may take minutes");
        VBox left = new VBox(6, runsHead, longRuns, runScroll);
        left.setPrefWidth(188);
        left.setMinWidth(180);
        trace.setId("trace");
        trace.emptySays("Capture or import a run first (key 4).");
        columns.emptySays("The line appears when two runs take part.");
        residuals.share(trace);
        trace.hideTimeAxis();
        residuals.setPrefHeight(116);
        residuals.setMinHeight(96);
        leave.setId("leave-out");
        leave.getStyleClass().add("quiet-button");
        leave.setOnAction(e -> leaveOut());
        Labels.explained(leave, "Leave this run out of the results, with a reason; it stays in the session");
        reason.setId("reason");
        reason.setPromptText("why is it left out? Enter keeps, Escape forgets");
        reason.setAccessibleText("Reason for leaving the run out");
        reason.setPrefWidth(330);
        reason.setOnAction(e -> giveReason());
        reason.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                asking(false);
                trace.requestFocus();
            }
        });
        asking(false);
        proposal.getStyleClass().add("quiet-button");
        proposal.setId("proposal");
        proposal.setOnAction(e -> current().ifPresent(run -> windowName(run).ifPresent(w -> desk.bench().apply(new Command.SetWindow(run.id(), w, null)))));
        Labels.explained(proposal, "Take the proposed window again");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(10, title, says, reason, gap, proposal, leave);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(trace, Priority.ALWAYS);
        HBox below = new HBox(14, columns, otherwise);
        HBox.setHgrow(columns, Priority.ALWAYS);
        otherwise.setPrefWidth(320);
        otherwise.setMinWidth(225);
        columns.setPrefWidth(330);
        columns.setMinWidth(245);
        title.setMinWidth(Region.USE_PREF_SIZE);
        proposal.setMinWidth(Region.USE_PREF_SIZE);
        leave.setMinWidth(Region.USE_PREF_SIZE);
        below.setPrefHeight(225);
        below.setMinHeight(190);
        desk.bench().sheet().pictures().forEach(p -> which.getItems().add(p.title()));
        which.getSelectionModel().selectFirst();
        which.setId("which-picture");
        which.setAccessibleText("Picture of columns over runs");
        which.setVisible(which.getItems().size() > 1);
        which.setManaged(which.isVisible());
        which.setOnAction(e -> refresh());
        said.setId("run-says");
        VBox right = new VBox(3, head, said, trace, residuals, which, below);
        HBox.setHgrow(right, Priority.ALWAYS);
        all.getChildren().addAll(left, right);
        refresh();
    }

    private void workOutLong() {
        if (working != null) {
            working.cancel(false);
            working = null;
        } else {
            working = desk.bench().workOutLongRuns(javafx.application.Platform::runLater);
            working.whenComplete((done, failed) -> {
                working = null;
                if (failed != null && !(failed instanceof java.util.concurrent.CancellationException)) {
                    Notices.warn(all, "The long runs could not be worked out: there is not enough memory for them, or the file cannot be read. Nothing was changed.");
                }
                refresh();
            });
        }
        refresh();
    }

    private Optional<Run> current() {
        return desk.run().flatMap(r -> desk.bench().session().run(r.id())).filter(r -> r.discard() == null);
    }

    private Optional<String> windowName(Run run) {
        return desk.bench().sheet().captures().get(run.capture()).windows().keySet().stream().findFirst();
    }

    private void leaveOut() {
        current().ifPresent(run -> {
            if (run.leftOut() != null) {
                desk.bench().apply(new Command.LeaveOut(run.id(), null));
                return;
            }
            asking(true);
            reason.requestFocus();
        });
    }

    private void asking(boolean ask) {
        reason.setVisible(ask);
        reason.setManaged(ask);
        says.setManaged(!ask);
        says.setVisible(!ask);
    }

    private void giveReason() {
        current().filter(run -> !reason.getText().isBlank()).ifPresent(run -> {
            if (Notices.attempt(all, () -> desk.bench().apply(new Command.LeaveOut(run.id(), reason.getText().strip())))) {
                reason.clear();
                asking(false);
                trace.requestFocus();
            }
        });
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(trace);
    }

    @Override
    public void refresh() {
        Reduction r = desk.bench().reduction();
        longRuns.setVisible(working != null || desk.bench().hasLongRuns());
        longRuns.setManaged(longRuns.isVisible());
        longRuns.setText(working == null ? "Work out long runs" : "Working... Cancel");
        list(r);
        Run run = current().orElse(null);
        leave.setDisable(run == null);
        if (run == null) {
            trace.plot(null, false);
            residuals.plot(null, false);
            title.setText("");
            says.setText("");
            proposal.setDisable(true);
        } else {
            show(r, run);
        }
        columns.plot(picture().flatMap(p -> SessionPlots.columns(r, p)).orElse(null), false);
    }

    /** The picture that is chosen; the first one until then. */
    private Optional<Sheet.Picture> picture() {
        return desk.bench().sheet().pictures().stream().filter(p -> p.title().equals(which.getValue())).findFirst();
    }

    /** What stands for a run in lists: the sheet's first quantity that rests on its samples. */
    private static Optional<Ledger.Entry> headline(Reduction r, Run run) {
        Sheet.Capture c = r.sheet().captures().get(run.capture());
        String name = c == null ? null : c.headline();
        return r.ofRun(run).stream().filter(e -> e.name().endsWith("]." + name)).findFirst();
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    private void list(Reduction r) {
        double at = runScroll.getVvalue();
        runs.getChildren().clear();
        String capture = "";
        for (Run run : desk.bench().session().keptRuns()) {
            Sheet.Capture c = desk.bench().sheet().captures().get(run.capture());
            if (!run.capture().equals(capture)) {
                capture = run.capture();
                runs.getChildren().add(Labels.styled((c == null ? capture : c.label()).toUpperCase(java.util.Locale.ROOT), "group"));
            }
            Optional<Ledger.Entry> first = headline(r, run);
            first.flatMap(Ledger.Entry::quantity).ifPresent(q -> what.setText(first.get().symbol() == null ? q.unit().pretty() : first.get().symbol() + ", " + q.unit().pretty()));
            String value = first.flatMap(Ledger.Entry::quantity).map(q -> Notation.bracketed(q.value(), q.u())).orElse("—");
            Label name = Labels.styled(run.name(), "section");
            name.setMinWidth(0);
            Region gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            Label number = Labels.figure(value);
            number.setMinWidth(Region.USE_PREF_SIZE);
            HBox line = new HBox(4, name, gap, number);
            VBox row = new VBox(0, line, Labels.quiet(SessionPlots.levelLabel(r, run) + (run.leftOut() == null ? "" : " · left out: " + run.leftOut())));
            row.getStyleClass().add("run-row");
            row.setId("run-" + run.id());
            row.setFocusTraversable(true);
            row.setAccessibleText(run.name() + ", " + value);
            if (run.leftOut() != null) {
                row.getStyleClass().add("left-out");
            }
            if (desk.run().map(x -> x.id() == run.id()).orElse(false)) {
                row.getStyleClass().add("chosen");
            }
            row.setOnMouseClicked(e -> desk.choose(run));
            row.setOnKeyPressed(e -> {
                if (e.getCode() == KeyCode.ENTER) {
                    desk.choose(run);
                    e.consume();
                } else if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                    step(run, e.getCode() == KeyCode.DOWN ? 1 : -1);
                    e.consume();
                }
            });
            runs.getChildren().add(row);
        }
        if (runs.getChildren().isEmpty()) {
            runs.getChildren().add(Labels.quiet("No runs yet."));
        }
        runScroll.setVvalue(at);
    }

    /** Every quantity of every kept run, one row a run, for a spreadsheet. */
    private void copyTable() {
        Reduction r = desk.bench().reduction();
        StringBuilder b = new StringBuilder();
        desk.bench().sheet().captures().forEach((name, capture) -> {
            List<Run> kept = r.runs().stream().filter(x -> x.discard() == null && x.capture().equals(name)).toList();
            if (kept.isEmpty()) {
                return;
            }
            b.append(capture.label()).append("\nrun\tlevel\ttakes part");
            r.ofRun(kept.get(0)).forEach(e -> b.append('\t').append(e.label()).append(e.quantity().map(q -> q.unit().symbol().isEmpty() ? "" : " / " + q.unit().symbol()).orElse("")).append("\tu"));
            b.append('\n');
            for (Run run : kept) {
                b.append(run.name()).append('\t').append(SessionPlots.levelLabel(r, run)).append('\t').append(run.takesPart() ? "yes" : "no");
                r.ofRun(run).forEach(e -> b.append('\t').append(e.quantity().map(q -> q.value() + "\t" + q.u()).orElse("\t")));
                b.append('\n');
            }
        });
        ClipboardContent c = new ClipboardContent();
        c.putString(b.toString());
        Clipboard.getSystemClipboard().setContent(c);
        Notices.tell(all, "The table of runs is on the clipboard.");
    }

    private void step(Run from, int by) {
        List<Run> kept = desk.bench().session().keptRuns();
        int i = kept.stream().map(Run::id).toList().indexOf(from.id()) + by;
        if (i >= 0 && i < kept.size()) {
            desk.choose(kept.get(i));
            Node row = runs.lookup("#run-" + kept.get(i).id());
            if (row != null) {
                row.requestFocus();
            }
        }
    }

    private void show(Reduction r, Run run) {
        String channel = desk.bench().sheet().captures().get(run.capture()).channels().get(0);
        title.setText(run.name() + ", " + SessionPlots.levelLabel(r, run));
        Optional<Fit> fit = r.fitOfRun(run);
        says.setText(fit.map(f -> f.x().length + " points · residual SD " + SessionPlots.finely(f.residualSd(), f.yUnit()) + " · " + (f.remarks().isEmpty() ? "no pattern" : "a pattern in the residuals")).orElse(""));
        said.setText(String.join("\n", r.ofRun(run).stream().filter(e -> e.quantity().isEmpty() && e.outcome().problem() == null && !e.instead().isEmpty()).map(e -> capital(e.label()) + ": " + e.instead()).toList()));
        said.setVisible(!said.getText().isEmpty());
        said.setManaged(said.isVisible());
        leave.setText(run.leftOut() == null ? "Leave out..." : "Take in again");
        Optional<String> window = windowName(run);
        proposal.setDisable(window.isEmpty() || !run.windows().containsKey(window.get()));
        Optional<Plot> plot = SessionPlots.run(r, run, channel);
        plot = plot.map(p -> p.with(legend(r, run)));
        double step = r.trace(run, channel).map(Trace::interval).orElse(0.02);
        trace.onWindow(step, (from, to, finished) -> window.ifPresent(w -> move(run, w, r.trace(run, channel).orElse(null), from, to, finished)));
        trace.plot(plot.orElse(null), true);
        if (plot.isEmpty()) {
            trace.emptySays(Optional.ofNullable(r.ofRun(run, channel).problem()).orElse("There is no trace."));
        }
        residuals.plot(SessionPlots.residuals(r, run).orElse(null), false);
        otherwise(r, run, window);
    }

    private static Plot.Legend legend(Reduction r, Run run) {
        List<String> lines = new ArrayList<>();
        headline(r, run).filter(e -> e.quantity().isPresent()).ifPresent(e -> lines.add(e.label() + " " + e.quantity().get()));
        r.fitOfRun(run).ifPresent(f -> lines.add(f.model() + " through the window"));
        return new Plot.Legend(lines, false);
    }

    private void move(Run run, String window, Trace t, double from, double to, boolean finished) {
        if (t == null) {
            return;
        }
        double a = Math.max(t.time()[0], Math.min(from, t.time()[t.size() - 1]));
        double b = Math.min(t.time()[t.size() - 1], Math.max(to, t.time()[0]));
        if (!(b > a)) {
            return;
        }
        Command command = new Command.SetWindow(run.id(), window, new Window(a, b, "moved by hand"));
        if (finished) {
            dragged = null;
            Notices.attempt(all, () -> desk.bench().apply(command));
        } else {
            dragged = command;
        }
    }

    /** A drag sends more positions than can be shown; the latest is previewed once a frame. */
    @Override
    public void tick() {
        if (dragged != null) {
            Command latest = dragged;
            dragged = null;
            Notices.attempt(all, () -> desk.bench().preview(latest));
        }
    }

    /** The first quantity of the run under windows a little different from the one chosen. */
    private void otherwise(Reduction r, Run run, Optional<String> window) {
        Optional<Ledger.Entry> entry = headline(r, run).filter(e -> e.quantity().isPresent());
        Optional<Window> chosen = window.flatMap(w -> r.window(run, w));
        if (entry.isEmpty() || chosen.isEmpty()) {
            otherwise.show(null);
            return;
        }
        Quantity now = entry.get().quantity().get();
        List<String> key = List.of(run.id() + entry.get().key(), chosen.get().toString(), now.toString());
        if (!key.equals(otherwiseFor) && !desk.bench().isPreviewing()) {
            List<Object[]> rows = new ArrayList<>();
            rows.add(new Object[] {"as chosen", now});
            OTHERWISE.forEach((label, share) -> whatIf(run, window.get(), chosen.get().grown(share), entry.get().key()).ifPresent(q -> rows.add(new Object[] {label, q})));
            otherwiseRows = rows;
            otherwiseFor = key;
        }
        List<Object[]> rows = otherwiseRows;
        otherwise.show((s, w, h) -> paintOtherwise(s, w, h, entry.get().label(), rows));
    }

    private Optional<Quantity> whatIf(Run run, String window, Window other, String key) {
        try {
            return desk.bench().whatIf(new Command.SetWindow(run.id(), window, new Window(Math.max(0, other.from()), other.to(), "what if"))).quantity(key);
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static void paintOtherwise(Surface s, double w, double h, String label, List<Object[]> rows) {
        s.text("If the window were otherwise", 6, 13, Surface.Align.LEFT, Lettering.heading(12), Ink.INK);
        double lo = Double.POSITIVE_INFINITY;
        double hi = Double.NEGATIVE_INFINITY;
        for (Object[] row : rows) {
            Quantity q = (Quantity) row[1];
            lo = Math.min(lo, q.value() - 1.3 * q.u());
            hi = Math.max(hi, q.value() + 1.3 * q.u());
        }
        double left = 142;
        double right = w - 14;
        double scale = (right - left) / Math.max(hi - lo, 1e-300);
        s.rectangle(0, 22, w, h - 22, Ink.SURFACE, null, 0);
        double centre = left + (((Quantity) rows.get(0)[1]).value() - lo) * scale;
        double bottom = 34 + rows.size() * 26;
        for (double y = 30; y < bottom; y += 6) {
            s.line(centre, y, centre, y + 3, Ink.NEEDLE, 1);
        }
        for (int i = 0; i < rows.size(); i++) {
            Quantity q = (Quantity) rows.get(i)[1];
            double y = 44 + 26 * i;
            s.text(BudgetPicture.fitting(s, (String) rows.get(i)[0], left - 16), 8, y + 4, Surface.Align.LEFT, Lettering.text(12), i == 0 ? Ink.INK : Ink.QUIET);
            double x = left + (q.value() - lo) * scale;
            s.line(x - q.u() * scale, y, x + q.u() * scale, y, Ink.TRACE1, 1.6);
            s.circle(x, y, 3.4, Ink.TRACE1, null, 0);
        }
        double spread = rows.stream().mapToDouble(r -> ((Quantity) r[1]).value()).max().orElse(0) - rows.stream().mapToDouble(r -> ((Quantity) r[1]).value()).min().orElse(0);
        Quantity first = (Quantity) rows.get(0)[1];
        s.text(label + ", spread " + Notation.figures(spread, 2) + " " + first.unit().pretty() + " against u " + Notation.figures(first.u(), 2), 8, bottom + 22, Surface.Align.LEFT, Lettering.text(11.5), Ink.QUIET);
    }
}
