package eagerneedle.app.judge;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Labels;
import eagerneedle.core.judge.School;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.NeedlePicture;
import eagerneedle.picture.Surface;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What one school says of the data, and the button that lets it speak. */
final class SchoolCard extends VBox {
    SchoolCard(UnderSchool u, Consumer<School> letSpeak) {
        super(8);
        getStyleClass().add("card");
        setStyle("-fx-padding: 6 8 8 10;");
        School s = u.school();
        PictureView small = new PictureView(s.label(), (surface, w, h) -> {
            if (s == School.PERCENT) {
                surface.text("%", w / 2, h / 2 + 8, Surface.Align.CENTRE, Lettering.figures(22), Ink.QUIET);
            } else {
                NeedlePicture.paint(surface, u.of(), s, 0, 6, w, h - 8, true);
            }
        });
        small.setMinSize(80, 46);
        small.setPrefSize(80, 46);
        Label verdict = Labels.styled(
                u.verdict(), u.good().map(good -> good ? "good" : "attention").orElse("plain"));
        Label more = Labels.wrapped(u.more());
        more.getStyleClass().add("quiet");
        Button let = new Button(u.speaks() ? "in use" : "use it");
        let.getStyleClass().setAll("button", "quiet-button");
        if (u.speaks()) {
            let.setDisable(true);
            let.setOpacity(1);
            let.setStyle("-fx-text-fill: -needle;");
            getStyleClass().add("speaks");
        }
        let.setId("speak-" + s.name().toLowerCase(Locale.ROOT));
        let.setMinWidth(USE_PREF_SIZE);
        let.setOnAction(e -> letSpeak.accept(s));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        Label name = Labels.section(s.label());
        name.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(4, name, gap, let);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox words = new VBox(0, head, verdict, more);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox row = new HBox(10, small, words);
        row.setAlignment(Pos.CENTER_LEFT);
        getChildren().add(row);
    }
}
