package eagerneedle.report;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.zxing.BinaryBitmap;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.qrcode.QRCodeReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.stockroom.Stockroom;
import java.awt.image.BufferedImage;
import java.util.Arrays;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

class InstrumentLabelTest {
    /** What is printed is read back by a reader of codes that looks at the picture of the page. */
    @Test
    void theCodeOfEveryInstrumentIsReadFromThePrintedPage() throws Exception {
        try (Stockroom stock = Stockroom.demonstration()) {
            for (String id : Arrays.asList("TH-CP-01", "TH-CM-001")) {
                Instrument i = stock.find(id).orElseThrow();
                try (PDDocument pdf = Loader.loadPDF(InstrumentLabel.pdf(i, "Tarn Hollow College"))) {
                    assertThat(pdf.getNumberOfPages()).isEqualTo(1);
                    assertThat(new PDFTextStripper().getText(pdf))
                            .contains(id)
                            .contains(i.name())
                            .contains("calibrated until");
                    BufferedImage page = new PDFRenderer(pdf).renderImageWithDPI(0, 300);
                    int[] rgb = page.getRGB(0, 0, page.getWidth(), page.getHeight(), null, 0, page.getWidth());
                    String read = new QRCodeReader()
                            .decode(new BinaryBitmap(new HybridBinarizer(
                                    new RGBLuminanceSource(page.getWidth(), page.getHeight(), rgb))))
                            .getText();
                    assertThat(read).isEqualTo(id);
                }
            }
        }
    }
}
