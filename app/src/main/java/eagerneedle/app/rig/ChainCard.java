package eagerneedle.app.rig;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.chain.Advice;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.SampleWatch;
import eagerneedle.picture.ChainPicture;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * One channel at Rig: its ribbon, reach against need, what it reads now, advice with fixes by a click, and what else
 * may stand in its place.
 */
final class ChainCard extends VBox {
    private final Desk desk;
    private final String name;
    private final Label tag = Labels.quiet("");
    private final Label reading = Labels.styled("not connected", "figure-big");
    private final Label under = Labels.quiet("");
    private final PictureView picture;
    private final VBox advice = new VBox(4);
    private final MenuButton change = new MenuButton("Change");
    private String advised = "";
    private WindowStatistics now;
    private String trouble = "";

    ChainCard(Desk desk, String name) {
        this.desk = desk;
        this.name = name;
        getStyleClass().add("card");
        setSpacing(6);
        setId("channel-" + name);
        picture = new PictureView("Chain of " + channel().label(), null);
        picture.setMinHeight(128);
        picture.setPrefHeight(128);
        change.setId("change-" + name);
        change.getStyleClass().add("quiet-button");
        Labels.explained(
                change,
                "Another gain or range, or another instrument of the stockroom in one of the places of this chain");
        change.setOnShowing(e -> fillMenu());
        change.getItems().add(new MenuItem("..."));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        reading.setId("now-" + name);
        reading.setMinWidth(Region.USE_PREF_SIZE);
        under.setMinWidth(Region.USE_PREF_SIZE);
        HBox head = new HBox(10, Labels.section(capital(channel().label())), tag, gap, reading, under, change);
        head.setAlignment(Pos.BASELINE_LEFT);
        getChildren().addAll(head, picture, advice);
        refresh();
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }

    private Channel channel() {
        return desk.bench().session().channel(desk.bench().sheet(), name);
    }

    void refresh() {
        Channel c = channel();
        tag.setText((c.tag() == null ? "" : "tag " + c.tag() + " · ") + "input " + c.inputOr(name)
                + (c.position() == null ? "" : " · at " + c.position())
                + (c.specimen() == null ? "" : " · on " + c.specimen())
                + (c.rate() > 0 ? " · " + Notation.plain(c.rate(), 5) + "/s" : "")
                + (c.average() > 1 ? " · mean of " + c.average() : ""));
        if (desk.rig().isEmpty()) {
            now = null;
            trouble = "";
        }
        paint();
        advise();
    }

    /** Takes the newest samples in. */
    void tick(LiveRig rig) {
        RawSamples raw = rig.last(name, 1.0);
        Channel c = channel();
        now = LiveReadings.of(c, raw).orElse(null);
        trouble = raw.size() == 0
                ? rig.state() == eagerneedle.rig.driver.Driver.State.RUNNING ? "No samples of this channel arrive." : ""
                : new SampleWatch(c.label(), c.toChain(), 0)
                        .look(0, raw.time(), raw.values()).stream()
                                .findFirst()
                                .map(f -> f.message() + " " + f.remedy())
                                .orElse("");
        paint();
        advise();
    }

    private double at() {
        Chain chain = channel().toChain();
        double[] reach = chain.reach();
        return channel()
                .needed()
                .map(n -> Math.max(reach[0], Math.min(reach[1], (n[0] + n[1]) / 2)))
                .orElse((reach[0] + reach[1]) / 2);
    }

    private void paint() {
        Channel c = channel();
        Chain chain = c.toChain();
        double live = now == null ? Double.NaN : now.mean();
        double at = at();
        String unit = c.labUnit().difference().pretty();
        reading.setText(
                now == null
                        ? desk.rig().isPresent() ? "out of reach" : ""
                        : Notation.bracketed(now.mean(), Math.max(now.sd(), chain.stepAt(now.mean()) / Math.sqrt(12))));
        under.setText(
                now == null
                        ? desk.rig().isPresent() ? "" : "not connected"
                        : c.labUnit().pretty());
        String step = "one step " + Notation.plain(chain.stepAt(at), 2) + " " + unit + ", u of the chain "
                + Notation.figures(ChainPicture.uncertainty(chain, at), 2) + " " + unit;
        picture.show((s, w, h) -> {
            ChainPicture.ribbon(s, chain, at, 0, 0, w);
            ChainPicture.reach(s, chain, c.needed().orElse(null), live, 46, 92, w - 400);
            s.text(
                    "reach",
                    4,
                    104,
                    eagerneedle.picture.Surface.Align.LEFT,
                    eagerneedle.picture.Lettering.text(12),
                    eagerneedle.picture.Ink.QUIET);
            s.text(
                    step,
                    w - 4,
                    104,
                    eagerneedle.picture.Surface.Align.RIGHT,
                    eagerneedle.picture.Lettering.text(12),
                    eagerneedle.picture.Ink.INK);
        });
    }

    private void advise() {
        List<Advice> all = new ArrayList<>();
        if (!trouble.isEmpty()) {
            all.add(new Advice("signal", false, trouble, null));
        }
        Channel c = channel();
        double[] need = c.needed().orElse(new double[] {Double.NaN, Double.NaN});
        double fastest = c.fastest() == null
                ? Double.NaN
                : Reading.parse(c.fastest())
                        .unit()
                        .convert(Reading.parse(c.fastest()).value(), LabUnit.SECOND);
        // Live noise speaks once there are enough samples; rounded, so that the advice does not flicker with it.
        double noise = now == null || now.n() < 8
                ? Double.NaN
                : Double.parseDouble(String.format(java.util.Locale.ROOT, "%.1g", now.sd()));
        all.addAll(Advice.on(
                c.toChain(), new Advice.Need(need[0], need[1], c.stepWanted(), c.rate(), c.average(), fastest, noise)));
        List<Advice> shown = Advice.pressing(all);
        String words = shown.toString();
        if (words.equals(advised)) {
            return;
        }
        advised = words;
        advice.getChildren().clear();
        for (Advice a : shown) {
            Label says = Labels.wrapped((a.good() ? "● " : "▲ ") + a.says());
            says.getStyleClass().add(a.good() ? "good" : "attention");
            HBox row = new HBox(10, says);
            HBox.setHgrow(says, Priority.ALWAYS);
            says.setMaxWidth(Double.MAX_VALUE);
            row.setAlignment(Pos.CENTER_LEFT);
            if (a.fix() != null) {
                Button fix = new Button(capital(a.fix().label()));
                fix.setId("fix-" + name + "-" + a.about());
                fix.setMinWidth(Region.USE_PREF_SIZE);
                fix.setOnAction(e -> apply(a.fix()));
                Labels.explained(
                        fix,
                        "Changes the chain of this session; runs already captured keep the chain they were "
                                + "captured with");
                row.getChildren().add(fix);
            }
            advice.getChildren().add(row);
        }
    }

    private void apply(Advice.Fix fix) {
        Setup s = desk.bench().session().setup(name);
        Setup changed = fix.chain() != null
                ? s.withChain(fix.chain())
                : fix.rate() != null ? s.withRate(fix.rate()) : s.withAverage(fix.average());
        set(changed, capital(channel().label()) + ": " + fix.label() + ".");
    }

    private void set(Setup changed, String did) {
        Notices.attempt(this, () -> desk.bench().apply(new RigCommand.SetUp(name, changed, did)));
    }

    private void fillMenu() {
        change.getItems().clear();
        List<Link> links = channel().chain();
        List<Instrument> stock = desk.stockroom().all();
        for (int i = 0; i < links.size(); i++) {
            Link link = links.get(i);
            Menu place = new Menu(capital(link.kind()) + ": " + link.label());
            int at = i;
            if (link.gains() != null) {
                link.gains()
                        .forEach(g -> item(
                                place,
                                "gain " + Notation.plain(g, 5),
                                at,
                                link.withGain(Notation.plain(g, 12).replace('−', '-'))));
            }
            if (link.ranges() != null) {
                link.ranges()
                        .forEach(r -> item(
                                place,
                                "range " + Notation.plain(r.get(0), 4) + " to " + Notation.plain(r.get(1), 4) + " "
                                        + link.from(),
                                at,
                                link.withRange(r.get(0), r.get(1))));
            }
            for (Instrument other : stock) {
                boolean fits = !other.retired()
                        && other.link() != null
                        && other.link().kind().equals(link.kind())
                        && other.link().from().equals(link.from())
                        && java.util.Objects.equals(other.link().to(), link.to())
                        && !other.id().equals(link.instrument());
                if (fits) {
                    item(
                            place,
                            other.name() + " " + other.id(),
                            at,
                            other.link().named(other.id(), other.link().label()));
                }
            }
            if (links.size() > 2 && link.label().equals("amplifier") && link.instrument() == null) {
                MenuItem out = new MenuItem("take it out");
                out.setOnAction(e -> {
                    List<Link> fewer = new ArrayList<>(links);
                    fewer.remove(at);
                    set(
                            desk.bench().session().setup(name).withChain(fewer),
                            capital(channel().label()) + ": took the amplifier out.");
                });
                place.getItems().add(out);
            }
            if (!place.getItems().isEmpty()) {
                change.getItems().add(place);
            }
        }
        MenuItem tagging = new MenuItem("Tag: position and specimen");
        tagging.setOnAction(e -> editTag());
        change.getItems().addAll(new SeparatorMenuItem(), tagging);
        MenuItem back = new MenuItem("As the sheet says");
        back.setDisable(desk.bench().session().setup(name).equals(Setup.AS_SHEET));
        back.setOnAction(e -> set(Setup.AS_SHEET, capital(channel().label()) + ": set up as the sheet says."));
        change.getItems().addAll(new SeparatorMenuItem(), back);
    }

    /** Two fields in the card for where the sensor sits and on what. */
    private void editTag() {
        Channel c = channel();
        TextField position = new TextField(c.position() == null ? "" : c.position());
        TextField specimen = new TextField(c.specimen() == null ? "" : c.specimen());
        position.setId("tag-position-" + name);
        specimen.setId("tag-specimen-" + name);
        position.setAccessibleText("Position of " + c.label());
        specimen.setAccessibleText("Specimen under " + c.label());
        Button keep = new Button("Tag it");
        keep.setId("tag-keep-" + name);
        HBox row = new HBox(8, Labels.quiet("position"), position, Labels.quiet("specimen"), specimen, keep);
        row.setAlignment(Pos.CENTER_LEFT);
        keep.setOnAction(e -> {
            getChildren().remove(row);
            String p = position.getText().isBlank() ? null : position.getText().strip();
            String s = specimen.getText().isBlank() ? null : specimen.getText().strip();
            set(
                    desk.bench().session().setup(name).tagged(p, s),
                    "Tagged " + c.label() + (p == null ? "" : " at " + p) + (s == null ? "" : " on " + s) + ".");
        });
        position.setOnAction(keep.getOnAction());
        specimen.setOnAction(keep.getOnAction());
        getChildren().add(1, row);
        position.requestFocus();
    }

    private void item(Menu place, String words, int at, Link link) {
        MenuItem item = new MenuItem(words);
        item.setOnAction(e -> {
            List<Link> links = new ArrayList<>(channel().chain());
            links.set(at, link);
            set(
                    desk.bench().session().setup(name).withChain(links),
                    capital(channel().label()) + ": " + words + ".");
        });
        place.getItems().add(item);
    }

    /** What the channel reads now; empty without a reading. */
    Optional<WindowStatistics> reading() {
        return Optional.ofNullable(now);
    }
}
