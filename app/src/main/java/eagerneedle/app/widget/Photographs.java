package eagerneedle.app.widget;

import eagerneedle.core.session.Entries;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** Pictures from files into a bench file, looked at before they are kept. */
public final class Photographs {
    private static final long MOST_PIXELS = 60_000_000;
    private static final int LARGEST = 30_000_000;

    private Photographs() {}

    /** Width times height as the file's head states them, before anything is unpacked; 0 when it is no picture. */
    private static long pixels(byte[] bytes) throws IOException {
        try (var in = javax.imageio.ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            var readers = javax.imageio.ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return 0;
            }
            var reader = readers.next();
            try {
                reader.setInput(in);
                return (long) reader.getWidth(0) * reader.getHeight(0);
            } finally {
                reader.dispose();
            }
        }
    }

    public static boolean isPicture(String fileName) {
        return fileName.toLowerCase(Locale.ROOT).matches(".*\\.(png|jpe?g)");
    }

    /**
     * Keeps a picture in the bench file. @throws IllegalArgumentException with one sentence when it is none, or too
     * large
     */
    public static Entries.Picture keep(BenchFile bench, Path file) {
        String name = FileName.of(file);
        if (!isPicture(name)) {
            throw new IllegalArgumentException(name + " is not a picture; attach a PNG or JPEG file.");
        }
        try {
            if (Files.size(file) > LARGEST) {
                throw new IllegalArgumentException(name + " is larger than 30 MB; make it smaller first.");
            }
            byte[] bytes = Files.readAllBytes(file);
            if (pixels(bytes) > MOST_PIXELS) {
                throw new IllegalArgumentException(name
                        + " has more than %d million pixels; make it smaller first."
                                .formatted(MOST_PIXELS / 1_000_000));
            }
            if (javax.imageio.ImageIO.read(new ByteArrayInputStream(bytes)) == null) {
                throw new IllegalArgumentException(
                        name + " cannot be read as a picture; save it as PNG or JPEG again.");
            }
            return new Entries.Picture(
                    bench.attach(
                            name, name.toLowerCase(Locale.ROOT).endsWith("png") ? "image/png" : "image/jpeg", bytes),
                    name);
        } catch (IOException e) {
            throw new IllegalArgumentException(name + " cannot be read; check its name and folder.", e);
        }
    }
}
