package eagerneedle.app.record;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Fault;
import eagerneedle.report.ReportPages;
import java.awt.image.BufferedImage;
import java.util.List;
import java.util.function.Supplier;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.ImageView;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;

/**
 * The report's pages as they will print. They are set on a thread of their own, a moment after the last act, and only
 * while somebody can see them; what stands there meanwhile stays.
 */
final class PagesView extends VBox {
    private static final Duration QUIET = Duration.millis(800);
    private static final int WIDTH = 560;
    private final Supplier<byte[]> report;
    private final VBox pages = new VBox(14);
    private final Label state = Labels.quiet("");
    private final PauseTransition pause = new PauseTransition(QUIET);
    private List<?> of = List.of();
    private int wanted;

    /** @param report sets the report as PDF; called on another thread */
    PagesView(Supplier<byte[]> report) {
        super(6);
        this.report = report;
        state.setId("report-pages");
        pages.setAlignment(Pos.TOP_CENTER);
        pages.setPadding(new Insets(4, 12, 12, 4));
        ScrollPane scroll = new ScrollPane(pages);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(state, scroll);
        pause.setOnFinished(e -> set());
    }

    /**
     * The pages follow what they show.
     *
     * @param shown what the report is of; where it is the same as before nothing is set anew
     */
    void refresh(List<?> shown) {
        if (shown.equals(of)) {
            return;
        }
        of = shown;
        wanted++;
        state.setText(
                pages.getChildren().isEmpty() ? "The report is being set ..." : "The report is being set anew ...");
        pause.playFromStart();
    }

    private void set() {
        if (getScene() == null
                || getScene().getWindow() == null
                || !getScene().getWindow().isShowing()) {
            // Whoever comes back sees it set.
            of = List.of();
            return;
        }
        int turn = wanted;
        int width = (int) Theme.px(WIDTH);
        Thread work = new Thread(
                () -> {
                    try {
                        List<BufferedImage> drawn = ReportPages.of(report.get(), width);
                        Platform.runLater(() -> show(turn, drawn));
                    } catch (RuntimeException e) {
                        Platform.runLater(() -> state.setText("The report cannot be set now: " + Fault.said(e)));
                    }
                },
                "report pages");
        work.setDaemon(true);
        work.start();
    }

    private void show(int turn, List<BufferedImage> drawn) {
        if (turn != wanted) {
            return;
        }
        pages.getChildren().clear();
        for (int i = 0; i < drawn.size(); i++) {
            ImageView page = new ImageView(SwingFXUtils.toFXImage(drawn.get(i), null));
            page.setAccessibleRole(AccessibleRole.IMAGE_VIEW);
            page.setAccessibleText("Page " + (i + 1) + " of the report");
            StackPane sheet = new StackPane(page);
            sheet.getStyleClass().add("page");
            sheet.setMaxWidth(USE_PREF_SIZE);
            pages.getChildren().add(sheet);
        }
        state.setText(drawn.size() == 1 ? "One page, as it will print." : drawn.size() + " pages, as they will print.");
    }
}
