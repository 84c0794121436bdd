package eagerneedle.app.widget;

import static eagerneedle.app.OnScreen.act;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** A table that changes keeps what it shows. */
@ExtendWith(ApplicationExtension.class)
class CellGridTest {
    private final CellGrid grid = new CellGrid((label, column) -> label.setMinWidth(10 + column));

    @Start
    void start(Stage stage) {
        stage.setScene(new Scene(grid, 400, 200));
        stage.show();
    }

    private List<String> texts() {
        return grid.getChildren().stream().map(n -> ((Label) n).getText()).toList();
    }

    @Test
    void cellsStayAndAreGivenTheirNewWords() {
        act(() -> grid.show(List.of(
                List.of(Cell.quiet("level"), Cell.quiet("mean")),
                List.of(Cell.plain("a").saying("the first"), Cell.figure("9.81(2)")),
                List.of(Cell.plain("b"), Cell.figure("10.2(1)")))));
        assertThat(texts()).containsExactly("level", "mean", "a", " 9.81(2)", "b", "10.2(1) ");
        List<Node> before = List.copyOf(grid.getChildren());
        assertThat(Hints.of(before.get(2))).isEqualTo("the first");
        assertThat(((Label) before.get(3)).getMinWidth()).isEqualTo(11);
        act(() -> grid.show(List.of(
                List.of(Cell.quiet("level"), Cell.quiet("mean")),
                List.of(new Cell("c", Cell.Look.STRONG, ""), Cell.figure("9.81(2)")))));
        assertThat(grid.getChildren()).as("the same labels, and none more").isEqualTo(before.subList(0, 4));
        assertThat(texts()).containsExactly("level", "mean", "c", "9.81(2)");
        assertThat(before.get(2).getStyleClass()).contains("strong");
        assertThat(Hints.of(before.get(2))).isEmpty();
        act(() -> grid.show(List.of(List.of(Cell.plain("alone")))));
        assertThat(texts()).containsExactly("alone");
        assertThat(before.get(0).getStyleClass()).doesNotContain("quiet");
        act(() -> grid.show(List.of()));
        assertThat(grid.getChildren()).isEmpty();
    }
}
