package eagerneedle.app.station;

import eagerneedle.app.station.Cautions.Caution;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import java.util.List;
import javafx.geometry.Pos;
import javafx.geometry.Side;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * The cautions, first of all until they are acknowledged; then one line that can be opened again, or nothing where they
 * stand elsewhere too.
 */
public final class CautionCard extends VBox {
    private final Cautions cautions;
    private final boolean stays;
    private static final double MOST = 150;
    private final VBox list = new VBox(5);
    private final ScrollPane scroll = new ScrollPane(list);
    private final Rows<Caution> rows = Rows.changing(list, Caution::id, this::box, CautionCard::show);
    private final Label head = Labels.section("");
    private final Button staff = new Button("Staff takes them over");
    private final Button show = new Button("Show");
    private boolean opened;

    /** @param stays as one line when they are acknowledged */
    public CautionCard(Desk desk, boolean stays) {
        super(8);
        this.stays = stays;
        cautions = new Cautions(desk.bench());
        setId("cautions");
        staff.setId("cautions-staff");
        staff.setMinWidth(USE_PREF_SIZE);
        staff.setOnAction(e -> Notices.attempt(this, () -> takeOver(desk.site().staff())));
        Labels.explained(
                staff, "The member of staff in charge answers for the cautions (Ctrl+K); the notebook keeps when");
        show.setId("cautions-show");
        show.getStyleClass().add("quiet-button");
        show.setMinWidth(USE_PREF_SIZE);
        show.setOnAction(e -> {
            opened = !opened;
            refresh();
        });
        Labels.explained(show, "Show or fold the cautions");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox top = new HBox(8, head, gap, staff, show);
        top.setAlignment(Pos.CENTER_LEFT);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        // A dozen long cautions must not push what they are about out of the window.
        list.heightProperty()
                .addListener((o, was, is) -> scroll.setMinHeight(Math.min(Theme.px(MOST), is.doubleValue() + 2)));
        scroll.setMaxHeight(Theme.px(MOST));
        getChildren().addAll(top, scroll);
        refresh();
    }

    /** By whom, where the laboratory says who its staff are. */
    private void takeOver(List<String> names) {
        if (names.size() < 2) {
            cautions.takeOver(names);
            return;
        }
        ContextMenu who = new ContextMenu();
        for (String name : names) {
            MenuItem one = new MenuItem(name);
            one.setOnAction(e -> Notices.attempt(this, () -> cautions.takeOver(name)));
            who.getItems().add(one);
        }
        who.show(staff, Side.BOTTOM, 0, 0);
    }

    private CheckBox box(Caution c) {
        CheckBox read = new CheckBox(c.text());
        read.setId(c.id());
        read.setWrapText(true);
        read.setMinHeight(USE_PREF_SIZE);
        Labels.explained(read, "Tick it when it was read and understood; the notebook keeps when");
        read.setOnAction(e -> {
            if (!Notices.attempt(this, () -> cautions.read(c, read.isSelected()))) {
                refresh();
            }
        });
        return read;
    }

    private static void show(CheckBox read, Caution c) {
        read.setSelected(c.read());
        Labels.styled(read, "quiet", c.read());
    }

    /** Brings it up to the session. */
    public void refresh() {
        int all = cautions.all().size();
        boolean pending = cautions.arePending();
        boolean open = pending || opened;
        long read = cautions.all().stream().filter(Caution::read).count();
        String known = cautions.areTakenOver()
                ? ", taken over by " + (cautions.takenOverBy().isEmpty() ? "staff" : cautions.takenOverBy())
                : read == 0 ? "" : ", " + read + " read";
        head.setText(pending ? "▲ Before anything is switched on" : "▲ " + all + " cautions" + known);
        Labels.styled(head, "attention", pending);
        Labels.styled(head, "quiet", !pending);
        Labels.styled(this, "card", open);
        Labels.styled(this, "warns", pending);
        Labels.shown(staff, pending);
        Labels.shown(show, !pending);
        show.setText(open ? "Fold" : "Show");
        rows.show(cautions.all());
        Labels.shown(scroll, open);
        setVisible(all > 0 && (pending || stays));
        setManaged(isVisible());
    }
}
