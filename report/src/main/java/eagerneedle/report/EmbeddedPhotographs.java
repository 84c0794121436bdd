package eagerneedle.report;

import eagerneedle.core.session.Entries;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Photographs as data that stands in the page itself. */
record EmbeddedPhotographs(SessionReport.Attachments attachments) {
    List<Map<String, String>> of(List<Entries.Picture> list) {
        List<Map<String, String>> out = new ArrayList<>();
        for (Entries.Picture p : list) {
            attachments
                    .picture(p.attachment())
                    .ifPresent(bytes -> out.add(Map.of(
                            "name",
                            p.name(),
                            "data",
                            "data:image/"
                                    + (p.name().toLowerCase(Locale.ROOT).endsWith(".png") ? "png" : "jpeg") + ";base64,"
                                    + Base64.getEncoder().encodeToString(bytes))));
        }
        return out;
    }
}
