package fixshelf.spark;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.SparkSession;

/// Answers queries, one a line, until its input ends.
public final class SparkProcess {
    private static final ObjectMapper JSON = new ObjectMapper();

    private SparkProcess() {}

    public static void main(String[] arguments) throws IOException {
        PrintStream out =
                new PrintStream(new java.io.FileOutputStream(java.io.FileDescriptor.out), true, StandardCharsets.UTF_8);
        // What Spark itself prints must not come between the answers.
        System.setOut(System.err);
        try (SparkSession spark = SparkSession.builder()
                .master("local[1]")
                .appName("Fix Shelf")
                .config("spark.ui.enabled", "false")
                .config("spark.sql.shuffle.partitions", "1")
                .config("spark.sql.session.timeZone", "UTC")
                .config("spark.sql.datetime.java8API.enabled", "true")
                .config("spark.sql.warehouse.dir", System.getProperty("java.io.tmpdir") + "/fixshelf-spark")
                .getOrCreate()) {
            spark.sparkContext().setLogLevel("OFF");
            out.println(JSON.createObjectNode().put("version", spark.version()));
            BufferedReader in = new BufferedReader(new InputStreamReader(System.in, StandardCharsets.UTF_8));
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                out.println(answer(spark, line));
            }
        }
    }

    private static ObjectNode answer(SparkSession spark, String line) throws JsonProcessingException {
        ObjectNode answer = JSON.createObjectNode();
        try {
            ArrayNode rows = answer.putArray("rows");
            for (Row row : spark.sql(JSON.readTree(line).get("sql").asText()).collectAsList()) {
                ArrayNode values = rows.addArray();
                for (int c = 0; c < row.size(); c++) {
                    add(values, row.get(c));
                }
            }
        } catch (Exception | StackOverflowError e) {
            // Code that is nested too deeply for Spark is an answer too, and the next question can be asked.
            Throwable cause = e;
            while (cause.getCause() != null) {
                cause = cause.getCause();
            }
            answer.removeAll()
                    .put(
                            "error",
                            cause instanceof StackOverflowError
                                    ? "the code is nested too deeply"
                                    : String.valueOf(cause.getMessage()));
        }
        return answer;
    }

    private static void add(ArrayNode values, Object value) {
        switch (value) {
            case null -> values.addNull();
            case String text -> values.add(text);
            case Boolean truth -> values.add(truth);
            case BigDecimal number -> values.addObject().put("decimal", number.toPlainString());
            case Double number -> values.addObject().put("number", number.toString());
            case Number number -> values.add(number.longValue());
            default -> values.add(value.toString());
        }
    }
}
