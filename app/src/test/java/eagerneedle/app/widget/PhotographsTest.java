package eagerneedle.app.widget;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PhotographsTest {
    @TempDir
    private Path folder;

    /** A picture of a few bytes that claims to be 90 000 by 90 000 pixels: unpacked it would fill the memory. */
    private Path enormous() throws IOException {
        ByteBuffer head = ByteBuffer.allocate(17)
                .put("IHDR".getBytes())
                .putInt(90_000)
                .putInt(90_000)
                .put(new byte[] {8, 2, 0, 0, 0});
        CRC32 crc = new CRC32();
        crc.update(head.array());
        ByteBuffer png = ByteBuffer.allocate(8 + 4 + 17 + 4)
                .put(new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'})
                .putInt(13)
                .put(head.array())
                .putInt((int) crc.getValue());
        return Files.write(folder.resolve("enormous.png"), png.array());
    }

    @Test
    void onlyPicturesOfAReasonableSizeAreKept() throws IOException {
        try (BenchFile bench = BenchFile.create(
                folder.resolve("p.needle"),
                Session.start(SheetReader.shippedText("drying-cabinet"), "p", Instant.EPOCH))) {
            Path good = folder.resolve("good.png");
            ImageIO.write(new BufferedImage(40, 30, BufferedImage.TYPE_INT_RGB), "png", good.toFile());
            assertThat(bench.attachment(Photographs.keep(bench, good).attachment()))
                    .isEqualTo(Files.readAllBytes(good));
            Path large = enormous();
            assertThatThrownBy(() -> Photographs.keep(bench, large))
                    .hasMessage("enormous.png has more than 60 million pixels; make it smaller first.");
            Path words = Files.writeString(folder.resolve("words.png"), "no picture");
            assertThatThrownBy(() -> Photographs.keep(bench, words))
                    .hasMessageContaining("cannot be read as a picture");
            assertThatThrownBy(() -> Photographs.keep(bench, folder.resolve("letter.txt")))
                    .hasMessageContaining("attach a PNG or JPEG");
        }
    }
}
