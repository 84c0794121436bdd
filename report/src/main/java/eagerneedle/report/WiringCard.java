package eagerneedle.report;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.Apparatus;
import eagerneedle.picture.ChainPicture;
import eagerneedle.picture.DrawingPainter;
import eagerneedle.picture.Ink;
import eagerneedle.picture.SvgSurface;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * A card to be printed and laid on the bench: every channel with its terminals, colours, polarity, settings and tag.
 */
public final class WiringCard {
    private WiringCard() {}

    /** As one page of well-formed HTML. */
    public static String html(Sheet sheet, Session session) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("title", sheet.title());
        m.put("place", sheet.place());
        List<Map<String, Object>> channels = new ArrayList<>();
        sheet.channels()
                .keySet()
                .forEach(name -> channels.add(channel(name, session.channel(sheet, name), channels.size())));
        m.put("drawing", Apparatus.of(sheet).map(WiringCard::drawing).orElse(""));
        m.put("channels", channels);
        m.put("steps", sheet.prepare().stream().map(Sheet.Step::text).toList());
        m.put("cautions", sheet.cautions());
        return Papers.html("wiring.ftlh", m);
    }

    /** The same card as PDF. */
    public static byte[] pdf(Sheet sheet, Session session) {
        return Papers.pdf(html(sheet, session));
    }

    /** The apparatus with its call-outs, which say where each channel sits. */
    private static String drawing(Apparatus a) {
        SvgSurface s = new SvgSurface(640, 330, false, "apparatus");
        new DrawingPainter(a.drawing(), Ink.SURFACE, 0, 0, 640, 330).paint(s, a.words(), "");
        return s.document("Drawing of the apparatus");
    }

    private static Map<String, Object> channel(String name, Channel c, int picture) {
        Chain chain = c.toChain();
        double at = c.needed().map(n -> (n[0] + n[1]) / 2).orElseGet(() -> (chain.reach()[0] + chain.reach()[1]) / 2);
        SvgSurface s = new SvgSurface(640, 88, false, "w" + picture);
        ChainPicture.ribbon(s, chain, at, 0, 2, 640);
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("name", c.label());
        m.put("tag", c.tag() == null ? "" : c.tag());
        m.put("input", c.inputOr(name));
        m.put("position", c.position() == null ? "" : c.position());
        m.put("specimen", c.specimen() == null ? "" : c.specimen());
        m.put(
                "rate",
                (c.rate() > 0 ? Notation.plain(c.rate(), 5) + " samples a second" : "")
                        + (c.average() > 1 ? ", " + c.average() + " conversions each" : ""));
        m.put("svg", s.document("Chain of " + c.label()));
        m.put("links", c.chain().stream().map(WiringCard::link).toList());
        return m;
    }

    private static Map<String, String> link(Link l) {
        Map<String, String> m = new LinkedHashMap<>();
        m.put("label", l.label());
        m.put("instrument", l.instrument() == null ? "" : l.instrument());
        m.put("terminals", l.terminals() == null ? "" : l.terminals());
        m.put("colours", l.colours() == null ? "" : l.colours());
        m.put(
                "setting",
                "converter".equals(l.kind())
                        ? l.range() == null
                                ? ""
                                : Notation.plain(l.range().get(0), 4) + " to "
                                        + Notation.plain(l.range().get(1), 4) + " " + l.from()
                        : l.law() == null && l.gain() != null ? "gain " + l.gain() : "");
        m.put("warm", l.warmUp() == null ? "" : Notation.plain(l.warmUp(), 3) + " min");
        return m;
    }
}
