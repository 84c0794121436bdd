package eagerneedle.app.command;

import eagerneedle.app.classroom.ClassSet;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.classroom.ClassFolder;
import eagerneedle.store.classroom.ClassKey;
import eagerneedle.store.classroom.ClassList;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** A class of invented students who went wrong here and there, always the same. */
final class DemonstrationClass {
    static final String PASSPHRASE = "a class that never was";
    private static final String METHOD = "potters-wheel";
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final List<String> NAMES = List.of(
            "Aune", "Brisk", "Corvin", "Dell", "Ember", "Fenn", "Gale", "Harrow", "Ivers", "Jessop", "Kestrel", "Lark",
            "Marlow", "Nettle", "Orrin", "Pell", "Quill", "Rowan", "Sedge", "Tamsin", "Ull", "Vesper", "Wren",
            "Yarrow");

    private DemonstrationClass() {}

    /** Makes the folder of the class, and what it handed in beside it as {@code in.csv}. */
    static Path make(Path at) throws IOException {
        List<ClassList.Student> students = new ArrayList<>();
        for (int i = 0; i < NAMES.size(); i++) {
            students.add(new ClassList.Student("w" + (i + 1), "Student " + NAMES.get(i), ""));
        }
        // A secret that is none, so that the pictures stay the same.
        ClassKey known =
                new ClassKey(java.util.Base64.getEncoder().encodeToString(new byte[32]), DAY.toString(), "", Map.of());
        Path folder = at.resolve("class");
        ClassSet.fromRig(SheetTrial.read(SheetReader.shippedText(METHOD), METHOD), new ClassList(students), known, DAY)
                .make(folder, PASSPHRASE.toCharArray(), 0, (n, of) -> true);
        ClassKey key = ClassKey.read(folder.resolve(ClassFolder.KEY), PASSPHRASE.toCharArray());
        Random random = new Random(8);
        StringBuilder csv = new StringBuilder("student,quantity,value,u,unit\n");
        key.units()
                .forEach((who, unit) -> unit.expected().forEach((q, text) -> {
                    Reading r = Reading.parse(text);
                    double p = random.nextDouble();
                    double factor = p < 0.07
                            ? 2
                            : p < 0.12 ? 1.1 + 0.5 * random.nextDouble() : p < 0.16 ? 10 : p < 0.19 ? -1 : 1;
                    String u = p > 0.95 ? "" : Notation.plain(r.u(), 2);
                    String value = new BigDecimal(r.value() * factor)
                            .round(new MathContext(4))
                            .toPlainString();
                    if (p < 0.9 || p > 0.93) {
                        csv.append(who + "," + q + "," + value + "," + u + ","
                                + (p > 0.93 && p < 0.95 ? "" : r.unit().symbol()) + "\n");
                    }
                }));
        Files.writeString(at.resolve("in.csv"), csv);
        return folder;
    }
}
