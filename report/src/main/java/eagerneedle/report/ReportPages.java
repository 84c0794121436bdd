package eagerneedle.report;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;

/** The pages of a PDF as pictures, as they will print. */
public final class ReportPages {
    private static final double POINTS_PER_INCH = 72;

    private ReportPages() {}

    /**
     * Draws every page.
     *
     * @param width of a page in pixels
     */
    public static List<BufferedImage> of(byte[] pdf, int width) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            PDFRenderer renderer = new PDFRenderer(document);
            List<BufferedImage> pages = new ArrayList<>();
            for (int i = 0; i < document.getNumberOfPages(); i++) {
                double inches = document.getPage(i).getCropBox().getWidth() / POINTS_PER_INCH;
                pages.add(renderer.renderImageWithDPI(i, (float) (width / inches), ImageType.RGB));
            }
            return pages;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
