package eagerneedle.report;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import com.openhtmltopdf.util.XRLog;
import freemarker.core.HTMLOutputFormat;
import freemarker.template.Configuration;
import freemarker.template.TemplateException;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.Map;

/**
 * From a template and its data to a page of HTML, and from a page of well-formed HTML to a PDF with the fonts that
 * ship.
 */
final class Papers {
    private static final Configuration TEMPLATES = templates();
    private static final String BOLD = "Inter Bold";
    private static final String ITALIC = "Inter Italic";
    private static final String TEXT = "font-family=\"Inter, 'Segoe UI', sans-serif\"";

    /**
     * The fonts once more, as the page itself would bring them: who draws pictures looks nowhere else, and knows one
     * face of a family.
     */
    private static final String FACES =
            face("Inter-Regular.ttf", "Inter") + face("Inter-SemiBold.ttf", BOLD) + face("Inter-Italic.ttf", ITALIC);

    private static String face(String file, String family) {
        try (InputStream in = PrintFaces.open(file)) {
            return "@font-face{font-family:'" + family + "';src:url(data:font/ttf;base64,"
                    + Base64.getEncoder().encodeToString(in.readAllBytes()) + ");-fs-pdf-font-embed:embed}";
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Papers() {}

    static String html(String template, Map<String, Object> data) {
        try (StringWriter out = new StringWriter()) {
            TEMPLATES.getTemplate(template).process(data, out);
            // Words that people typed may hold characters that no page may: they show as what they are, unreadable.
            // On paper the figures of pictures are those of the text.
            return out.toString()
                    .replace("font-family=\"'JetBrains Mono', monospace\"", TEXT)
                    .replaceAll("[\\x00-\\x08\\x0B\\x0C\\x0E-\\x1F]", "\uFFFD");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (TemplateException e) {
            throw new IllegalStateException("The template " + template + " does not fit its data.", e);
        }
    }

    static byte[] pdf(String xhtml) {
        XRLog.setLoggingEnabled(false);
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            PdfRendererBuilder b = new PdfRendererBuilder();
            font(b, "Inter-Regular.ttf", "Inter", 400, FontStyle.NORMAL);
            font(b, "Inter-SemiBold.ttf", "Inter", 600, FontStyle.NORMAL);
            font(b, "Inter-Italic.ttf", "Inter", 400, FontStyle.ITALIC);
            font(b, "JetBrainsMono-Regular.ttf", "JetBrains Mono", 400, FontStyle.NORMAL);
            b.useSVGDrawer(new BatikSVGDrawer());
            b.withHtmlContent(
                    xhtml.replaceFirst("<style>", "<style>" + FACES)
                            .replace(TEXT + " font-weight=\"600\"", "font-family=\"" + BOLD + "\"")
                            .replace(TEXT + " font-style=\"italic\"", "font-family=\"" + ITALIC + "\""),
                    null);
            b.toStream(out);
            b.run();
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void font(PdfRendererBuilder b, String file, String family, int weight, FontStyle style) {
        b.useFont(() -> PrintFaces.open(file), family, weight, style, true);
    }

    private static Configuration templates() {
        Configuration c = new Configuration(Configuration.VERSION_2_3_34);
        c.setClassForTemplateLoading(Papers.class, "");
        c.setDefaultEncoding("UTF-8");
        c.setOutputFormat(HTMLOutputFormat.INSTANCE);
        c.setLogTemplateExceptions(false);
        return c;
    }
}
