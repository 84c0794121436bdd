package eagerneedle.store.classroom;

import eagerneedle.store.FileName;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;

/**
 * Who is in a class.
 *
 * @param students in the order of the list
 */
public record ClassList(List<Student> students) {
    private static final int MOST = 2000;

    /**
     * One student.
     *
     * @param id by which hand-ins and gradebooks know them
     * @param name empty where the list has none
     * @param group whose data they share; empty for data of their own
     */
    public record Student(String id, String name, String group) {
        /** Who has one data set: a group, or a student alone. */
        public String unit() {
            return group.isEmpty() ? id : group;
        }
    }

    public ClassList {
        students = List.copyOf(students);
    }

    /** Who shares each data set, in the order of the list. */
    public Map<String, List<Student>> units() {
        Map<String, List<Student>> out = new LinkedHashMap<>();
        students.forEach(
                s -> out.computeIfAbsent(s.unit(), u -> new ArrayList<>()).add(s));
        return out;
    }

    /**
     * Reads a list: CSV with a header that has {@code id}, and {@code name} and {@code group} where there are any, or
     * one id a line.
     *
     * @throws IllegalArgumentException with one sentence where it is no such list
     */
    public static ClassList read(Path file) {
        try {
            return of(Files.readString(file, StandardCharsets.UTF_8), FileName.of(file));
        } catch (IOException e) {
            throw new IllegalArgumentException(FileName.of(file) + " cannot be read as a list of students.", e);
        }
    }

    static ClassList of(String text, String file) {
        String plain = text.startsWith("\ufeff") ? text.substring(1) : text;
        String first = plain.strip().lines().findFirst().orElse("");
        char delimiter = first.contains(";") ? ';' : first.contains("\t") ? '\t' : ',';
        List<CSVRecord> records;
        try {
            records = CSVFormat.DEFAULT
                    .builder()
                    .setDelimiter(delimiter)
                    .setTrim(true)
                    .setIgnoreEmptyLines(true)
                    .get()
                    .parse(new StringReader(plain))
                    .getRecords();
        } catch (IOException | RuntimeException e) {
            throw new IllegalArgumentException(file + " cannot be read as a list of students.", e);
        }
        Map<String, Integer> columns = new LinkedHashMap<>();
        if (!records.isEmpty()) {
            for (int c = 0; c < records.get(0).size(); c++) {
                columns.put(records.get(0).get(c).toLowerCase(Locale.ROOT), c);
            }
        }
        Integer id = columns.containsKey("id") ? columns.get("id") : columns.get("student");
        boolean headed = id != null;
        List<Student> out = new ArrayList<>();
        Set<String> ids = new HashSet<>();
        Set<String> folders = new HashSet<>();
        for (CSVRecord r : headed ? records.subList(1, records.size()) : records) {
            Student s = headed
                    ? new Student(cell(r, id), cell(r, columns.get("name")), cell(r, columns.get("group")))
                    : new Student(r.get(0), "", "");
            if (s.id().isEmpty()) {
                throw new IllegalArgumentException(file + ", line " + r.getRecordNumber() + ": a student has no id.");
            }
            if (!ids.add(s.id())) {
                throw new IllegalArgumentException(file + ": the id '" + s.id() + "' stands there twice.");
            }
            out.add(s);
        }
        if (out.isEmpty()) {
            throw new IllegalArgumentException(
                    file + " names no student; write one id a line, or a header with id," + " name and group.");
        }
        if (out.size() > MOST) {
            throw new IllegalArgumentException(file + " names more than " + MOST + " students.");
        }
        ClassList list = new ClassList(out);
        for (String unit : list.units().keySet()) {
            if (!folders.add(folder(unit).toLowerCase(Locale.ROOT))) {
                throw new IllegalArgumentException(
                        file + ": '" + unit + "' and another would have a folder of the same name.");
            }
        }
        return list;
    }

    private static String cell(CSVRecord r, @org.jspecify.annotations.Nullable Integer column) {
        return column == null || column >= r.size() ? "" : r.get(column);
    }

    /** A name of a folder that every file system takes. */
    public static String folder(String unit) {
        String plain = unit.replaceAll("[^\\p{L}\\p{N}._-]+", "_").replaceAll("^[.]+", "_");
        return plain.isEmpty() ? "_" : plain;
    }
}
