package eagerneedle.store.classroom;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * What stands in the folder of a class for everybody who runs it: which method, who, what is asked. No secret is in it.
 *
 * @param format 1
 * @param method the sheet's id
 * @param title of the method
 * @param asked the quantities that are to be handed in
 */
public record ClassFolder(
        int format, String method, String title, List<Asked> asked, List<ClassList.Student> students) {
    public static final String FILE = "class.json";
    public static final String KEY = "class.key";
    public static final String GIVEN = "give";
    private static final ObjectMapper JSON = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

    /** A quantity that is to be handed in. */
    public record Asked(String quantity, String label, String unit) {}

    public ClassList list() {
        return new ClassList(students);
    }

    /** The bench file with the data of a unit. */
    public Path data(Path folder, String unit) {
        String name = ClassList.folder(unit);
        return folder.resolve(GIVEN).resolve(name).resolve(method + "-" + name + ".needle");
    }

    public void write(Path folder) throws IOException {
        Files.writeString(folder.resolve(FILE), JSON.writeValueAsString(this) + "\n");
    }

    public static boolean is(Path folder) {
        return Files.isRegularFile(folder.resolve(FILE));
    }

    /** @throws IllegalArgumentException with one sentence where the folder is none of a class */
    public static ClassFolder read(Path folder) {
        try {
            ClassFolder c = JSON.readValue(Files.readString(folder.resolve(FILE)), ClassFolder.class);
            if (c.format() != 1) {
                throw new IllegalArgumentException(
                        FileName.of(folder) + " was made by a later edition of the program; open it with that.");
            }
            return c;
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    FileName.of(folder) + " is not the folder of a class: its " + FILE + " is missing or damaged.", e);
        }
    }
}
