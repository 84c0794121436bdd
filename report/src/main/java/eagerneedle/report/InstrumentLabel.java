package eagerneedle.report;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import eagerneedle.core.stockroom.Instrument;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/**
 * A label to stick on an instrument, 62 mm by 29 mm: name, serial, until when its calibration holds, and the serial as
 * a two-dimensional code (ISO/IEC 18004) that any telephone or scanner reads.
 */
public final class InstrumentLabel {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM uuuu").withLocale(Locale.UK).withZone(ZoneId.systemDefault());

    private InstrumentLabel() {}

    /** The label as one page of PDF. */
    public static byte[] pdf(Instrument i, String place) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("id", i.id());
        m.put("name", i.name());
        m.put("place", place);
        m.put(
                "due",
                i.calibration()
                        .map(c -> "calibrated until " + DAY.format(c.due()))
                        .orElse("not calibrated"));
        m.put("code", code(i.id()));
        return Papers.pdf(Papers.html("label.ftlh", m));
    }

    /** A text as a code, one square a module, in SVG. */
    static String code(String text) {
        BitMatrix bits;
        try {
            bits = new QRCodeWriter()
                    .encode(
                            text,
                            BarcodeFormat.QR_CODE,
                            0,
                            0,
                            Map.of(EncodeHintType.MARGIN, 0, EncodeHintType.ERROR_CORRECTION, ErrorCorrectionLevel.M));
        } catch (WriterException e) {
            throw new IllegalArgumentException("'" + text + "' is too long for a code.", e);
        }
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < bits.getHeight(); y++) {
            for (int x = 0; x < bits.getWidth(); x++) {
                if (bits.get(x, y)) {
                    path.append('M').append(x).append(' ').append(y).append("h1v1h-1z");
                }
            }
        }
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"80\" height=\"80\" viewBox=\"0 0 " + bits.getWidth()
                + " " + bits.getHeight() + "\"><path fill=\"#000000\" d=\"" + path + "\"/></svg>";
    }
}
