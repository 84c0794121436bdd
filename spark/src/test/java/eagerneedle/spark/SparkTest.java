package eagerneedle.spark;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.archive.Question;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.apache.spark.sql.Dataset;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.SparkSession;
import org.apache.spark.sql.functions;
import org.apache.spark.sql.types.DataTypes;
import org.apache.spark.sql.types.StructType;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * The same files, the same five questions, another engine: Apache Spark in local mode. On a cluster the same steps are
 * taken with the archive on shared storage, as docs/archive.md says.
 */
class SparkTest {
    private static final Path ARCHIVE = Path.of(System.getProperty("forSpark", "../archive/target/for-spark"));

    private static final SparkSession SPARK = SparkSession.builder()
            .master("local[2]")
            .config("spark.ui.enabled", "false")
            .config("spark.sql.session.timeZone", "UTC")
            .config("spark.driver.bindAddress", "127.0.0.1")
            .config("spark.driver.host", "127.0.0.1")
            .getOrCreate();

    @ParameterizedTest
    @EnumSource
    void itGivesTheSameAnswers(Question q) throws IOException {
        tables();
        List<Row> theirs = SPARK.sql(q.sql("2026-11-30")).collectAsList();
        List<Row> ours = SPARK.read()
                .option("header", true)
                .option("escape", "\"")
                .option("multiLine", true)
                .csv(ARCHIVE.resolve(q.title() + ".csv").toString())
                .collectAsList();
        assertThat(theirs).hasSize(ours.size()).isNotEmpty();
        for (int r = 0; r < ours.size(); r++) {
            for (int c = 0; c < ours.get(r).size(); c++) {
                same(
                        q + " row " + r + ", column " + c,
                        ours.get(r).getString(c),
                        theirs.get(r).get(c));
            }
        }
    }

    /** Every table from the files that batches list, of each session the batch that counts. */
    private static void tables() throws IOException {
        Dataset<Row> batches = SPARK.read()
                .option("multiLine", true)
                .json(ARCHIVE.resolve("batches").toString() + "/*.json")
                .cache();
        Dataset<Row> current = batches.select(
                        functions.col("batch"),
                        functions.explode(functions.col("sessions")).as("s"))
                .groupBy(functions.col("s.session").as("session"))
                .agg(functions.max("batch").as("batch"));
        Map<String, List<String>> files = new LinkedHashMap<>();
        for (Row row : batches.select(functions.explode(functions.col("files"))).collectAsList()) {
            String f = row.getString(0);
            files.computeIfAbsent(f.substring(0, f.indexOf('/')), k -> new ArrayList<>())
                    .add(ARCHIVE.resolve(f).toString());
        }
        files.forEach((table, parts) -> SPARK.read()
                .option("basePath", ARCHIVE.resolve(table).toString())
                .parquet(parts.toArray(new String[0]))
                .join(current, new String[] {"session", "batch"})
                .drop("batch")
                .createOrReplaceTempView(table));
        if (!files.containsKey("marks")) {
            StructType none = new StructType()
                    .add("session", DataTypes.StringType)
                    .add("verdict", DataTypes.StringType)
                    .add("mistake", DataTypes.StringType);
            SPARK.createDataFrame(List.of(), none).createOrReplaceTempView("marks");
        }
        try (Stream<Path> answers = Files.list(ARCHIVE)) {
            assertThat(answers.filter(p -> p.toString().endsWith(".csv"))).hasSize(Question.values().length);
        }
    }

    private static void same(String where, String ours, Object theirs) {
        if (ours == null || theirs == null || ours.isEmpty()) {
            assertThat(theirs == null || theirs.toString().isEmpty()).as(where).isTrue();
        } else if (theirs instanceof Number b) {
            double a = Double.parseDouble(ours);
            assertThat(b.doubleValue()).as(where).isCloseTo(a, within(1e-9 * Math.max(1e-12, Math.abs(a))));
        } else {
            String b = theirs.toString().replace(' ', 'T').replaceFirst("[.]0$", "");
            String a = ours.replace(' ', 'T');
            assertThat(a.startsWith(b) || b.startsWith(a))
                    .as("%s: %s and %s", where, a, b)
                    .isTrue();
        }
    }
}
