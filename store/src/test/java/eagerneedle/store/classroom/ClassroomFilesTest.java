package eagerneedle.store.classroom;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.marking.HandIn;
import eagerneedle.store.classroom.ClassList.Student;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ClassroomFilesTest {
    private static final List<Student> CLASS =
            List.of(new Student("s1", "Ann", ""), new Student("s12", "Ben", "G"), new Student("s3", "", "G"));

    @TempDir
    Path folder;

    @Test
    void aListIsReadHoweverItIsWrittenAndSaysWhatIsWrongWithIt() {
        assertThat(ClassList.of("id,name,group\ns1,Ann,\ns2,\"Berg, Ben\",G\n", "l")
                        .students())
                .containsExactly(new Student("s1", "Ann", ""), new Student("s2", "Berg, Ben", "G"));
        assertThat(ClassList.of("\ufeffName;ID\r\nAnn;7\r\n", "l").students())
                .containsExactly(new Student("7", "Ann", ""));
        assertThat(ClassList.of("s1\ns2\n\n", "l").units()).containsOnlyKeys("s1", "s2");
        assertThatThrownBy(() -> ClassList.of("s1\ns1\n", "l")).hasMessageContaining("'s1' stands there twice");
        assertThatThrownBy(() -> ClassList.of("", "l")).hasMessageContaining("names no student");
        assertThatThrownBy(() -> ClassList.of("id,name\n,Ann\n", "l")).hasMessageContaining("has no id");
        assertThatThrownBy(() -> ClassList.of("a/b\na_b\n", "l")).hasMessageContaining("folder of the same name");
        assertThat(ClassList.folder("../x")).isEqualTo("__x");
    }

    @Test
    void aKeyOpensWithItsPassphraseOnlyAndTellsEveryChangedByte() throws IOException {
        char[] words = "eight or more".toCharArray();
        ClassKey key = new ClassKey(
                ClassKey.newSecret(),
                "2026-11-23T09:00:00Z",
                "sheet: 2",
                Map.of(
                        "s1",
                        new ClassKey.Unit(
                                List.of("fault"), Map.of("g", "9.81 m/s^2"), Map.of("a", "9.79 ± 0.08 m/s^2"))));
        Path file = folder.resolve("class.key");
        key.write(file, words);
        assertThat(ClassKey.read(file, words)).isEqualTo(key);
        byte[] bytes = Files.readAllBytes(file);
        assertThat(new String(bytes, java.nio.charset.StandardCharsets.ISO_8859_1))
                .doesNotContain("9.81", "s1", "fault", key.secret());
        assertThatThrownBy(() -> ClassKey.read(file, "eight or less".toCharArray()))
                .hasMessageContaining("passphrase does not open");
        Random random = new Random(5);
        List<Integer> places = new java.util.ArrayList<>(List.of(0, 20, 40, bytes.length - 1));
        for (int i = 0; i < Math.min(10, Integer.getInteger("kills", 1)); i++) {
            places.add(random.nextInt(bytes.length));
        }
        for (int at : places) {
            byte[] changed = bytes.clone();
            changed[at] ^= 1;
            Files.write(file, changed);
            assertThatThrownBy(() -> ClassKey.read(file, words))
                    .as("byte " + at)
                    .isInstanceOf(IllegalArgumentException.class);
        }
        Files.write(file, java.util.Arrays.copyOf(bytes, 30));
        assertThatThrownBy(() -> ClassKey.read(file, words)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void numbersOfASecretAreThoseOfTheStandard() {
        // RFC 2104 over the parts, each after its length; checked with another implementation.
        String secret = java.util.Base64.getEncoder().encodeToString(new byte[32]);
        assertThat(ClassKey.number(secret, "data", "letter-scale", "s1")).isEqualTo(EXPECTED);
        assertThat(ClassKey.number(secret, "data", "letter-scales", "1")).isNotEqualTo(EXPECTED);
    }

    private static final long EXPECTED = -5662377764211692773L;

    @Test
    void formsComeBackAsTheyWereFilledInWithTheirDigits() throws IOException {
        ClassFolder of =
                new ClassFolder(1, "m", "M", List.of(new ClassFolder.Asked("a", "acceleration", "m/s^2")), CLASS);
        Path in = Files.createDirectories(folder.resolve("in"));
        HandInForm.workbook(of, CLASS.get(0), in.resolve("form.xlsx"));
        assertThat(HandIns.read(in, CLASS).numbers()).containsExactly(new HandIn("s1", "a", "", "", ""));
        try (OutputStream out = Files.newOutputStream(in.resolve("form.xlsx"));
                Workbook book = new Workbook(out, "test", "1.0")) {
            Worksheet s = book.newWorksheet("Hand in");
            s.value(1, 0, "student");
            s.value(1, 1, "s12");
            String[] head = {"quantity", "what it is", "value", "standard uncertainty", "unit"};
            for (int c = 0; c < head.length; c++) {
                s.value(4, c, head[c]);
            }
            s.value(5, 0, "a");
            s.value(5, 2, "9.80");
            s.value(5, 3, 0.1 + 0.2);
            s.value(5, 4, "m/s^2");
            s.value(6, 0, "b");
            s.value(6, 2, 12.5);
        }
        Files.writeString(in.resolve("s3-work.csv"), "quantity;value;unit\na;9,8;m/s²\n");
        HandIns read = HandIns.read(in, CLASS);
        assertThat(read.numbers())
                .containsExactly(
                        new HandIn("s12", "a", "9.80", "0.3", "m/s^2"),
                        new HandIn("s12", "b", "12.5", "", ""),
                        new HandIn("s3", "a", "9,8", "", "m/s²"));
        assertThat(read.problems()).isEmpty();
    }

    @Test
    void whatCannotBeReadIsToldAndTheRestIsThere() throws IOException {
        Path in = Files.createDirectories(folder.resolve("in"));
        Files.writeString(in.resolve("good.csv"), "student,quantity,value\ns1,a,1\n");
        Files.writeString(in.resolve("bad.xlsx"), "this is no workbook");
        Files.writeString(in.resolve("nobody.csv"), "quantity,value\na,1\n");
        Files.writeString(in.resolve("other.csv"), "x,y\n1,2\n");
        Files.writeString(in.resolve("unknown.needle"), "x");
        HandIns read = HandIns.read(in, CLASS);
        assertThat(read.numbers()).hasSize(1);
        assertThat(read.problems())
                .hasSize(4)
                .anyMatch(p -> p.contains("bad.xlsx cannot be read as a workbook"))
                .anyMatch(p -> p.contains("nobody.csv, line 2: whose number"))
                .anyMatch(p -> p.contains("other.csv has no row with 'quantity' and 'value'"))
                .anyMatch(p -> p.contains("unknown.needle does not say whose it is"));
        assertThatThrownBy(() -> HandIns.read(folder.resolve("none"), CLASS)).hasMessageContaining("There is no file");
    }
}
