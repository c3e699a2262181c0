package fixshelf.engine;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.render.JobCode;
import fixshelf.render.Languages;
import fixshelf.render.sql.SqlLanguage;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.math.BigDecimal;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Apache Spark, run by the module `spark` in a process of its own. The process is started for the first question and
/// then stays; one that dies or hangs is replaced for the next question.
final class SparkEngine implements FixEngine {
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int START_SECONDS = Patience.seconds(90);
    private static final int ANSWER_SECONDS = Patience.seconds(120);
    private static final List<String> OPENS = List.of(
            "java.lang",
            "java.lang.invoke",
            "java.lang.reflect",
            "java.io",
            "java.net",
            "java.nio",
            "java.util",
            "java.util.concurrent",
            "java.util.concurrent.atomic",
            "jdk.internal.ref",
            "sun.nio.ch",
            "sun.nio.cs",
            "sun.security.action",
            "sun.util.calendar");

    private final SqlLanguage language = (SqlLanguage) Languages.find("spark").orElseThrow();
    private Optional<Conversation> open = Optional.empty();
    private Optional<String> version = Optional.empty();
    private Optional<String> cannotStart = Optional.empty();

    /// A running process and the lines that it says.
    private record Conversation(Process process, Writer questions, BlockingQueue<String> answers) {}

    @Override
    public SqlLanguage language() {
        return language;
    }

    @Override
    public synchronized Presence presence() {
        if (version.isPresent()) {
            return new Presence.Here(version.get());
        }
        return folder().map(f -> (Presence) new Presence.Here(jarVersion(f)))
                .orElseGet(
                        () -> new Presence.Absent(
                                "the module spark is not built: mvn -pl spark -am package, or set FIXSHELF_SPARK to its folder"));
    }

    private static String jarVersion(Path folder) {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(f -> f.getFileName().toString())
                    .filter(n -> n.startsWith("spark-sql_"))
                    .map(n -> n.replaceAll("^spark-sql_[0-9.]+-(.*)\\.jar$", "$1"))
                    .findFirst()
                    .orElse("version unknown");
        } catch (IOException e) {
            return "version unknown";
        }
    }

    /// The folder with Spark and the module's classes.
    private static Optional<Path> folder() {
        List<Path> candidates = new ArrayList<>();
        for (String named : new String[] {System.getenv("FIXSHELF_SPARK"), System.getProperty("fixshelf.spark")}) {
            if (named != null && !named.isBlank()) {
                candidates.add(Path.of(named));
            }
        }
        if (!candidates.isEmpty()) {
            // Who names a folder means no other.
            return complete(candidates);
        }
        try {
            Path here = Path.of(SparkEngine.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            for (Path up = here; up != null; up = up.getParent()) {
                candidates.add(up.resolve("spark/target/app"));
            }
        } catch (URISyntaxException e) {
            System.getLogger(SparkEngine.class.getName()).log(System.Logger.Level.DEBUG, "no place of its own", e);
        }
        return complete(candidates);
    }

    private static Optional<Path> complete(List<Path> candidates) {
        return candidates.stream()
                .filter(SparkEngine::isComplete)
                .map(Path::toAbsolutePath)
                .findFirst();
    }

    private static boolean isComplete(Path folder) {
        return Files.isDirectory(folder)
                && jarVersion(folder).matches("[0-9].*")
                && Files.isDirectory(folder.resolveSibling("classes"));
    }

    private Conversation conversation() throws SQLException {
        if (open.isPresent() && open.get().process().isAlive()) {
            return open.get();
        }
        if (cannotStart.isPresent()) {
            throw new SQLException(cannotStart.get());
        }
        Path app = folder().orElseThrow(() -> new SQLException("Spark is not here"));
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin/java").toString());
        command.addAll(List.of(
                "-Xmx2g",
                "-Xss32m",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "--enable-native-access=ALL-UNNAMED"));
        command.add("--sun-misc-unsafe-memory-access=allow");
        OPENS.forEach(p -> command.add("--add-opens=java.base/" + p + "=ALL-UNNAMED"));
        command.addAll(List.of(
                "-cp",
                app.resolveSibling("classes") + java.io.File.pathSeparator + app + "/*",
                "fixshelf.spark.SparkProcess"));
        try {
            Process process = new ProcessBuilder(command)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            Runtime.getRuntime().addShutdownHook(new Thread(process::destroy));
            BlockingQueue<String> answers = new LinkedBlockingQueue<>();
            Thread.ofVirtual().start(() -> listen(process, answers));
            Conversation talk = new Conversation(
                    process, new OutputStreamWriter(process.getOutputStream(), StandardCharsets.UTF_8), answers);
            version = Optional.of(next(talk, START_SECONDS).path("version").asText());
            open = Optional.of(talk);
            return talk;
        } catch (IOException | SQLException e) {
            cannotStart = Optional.of("Spark could not be started: " + e.getMessage());
            throw new SQLException(cannotStart.get(), e);
        }
    }

    private static void listen(Process process, BlockingQueue<String> answers) {
        try (BufferedReader in =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                answers.add(line);
            }
        } catch (IOException e) {
            System.getLogger(SparkEngine.class.getName()).log(System.Logger.Level.DEBUG, "listening", e);
        }
        answers.add("");
    }

    private static JsonNode next(Conversation talk, int seconds) throws IOException, SQLException {
        try {
            String line = talk.answers().poll(seconds, TimeUnit.SECONDS);
            if (line == null) {
                talk.process().destroyForcibly();
                throw new SQLException("Spark gave no answer within " + seconds + " seconds and was stopped");
            }
            if (line.isEmpty()) {
                throw new SQLException("Spark ended before it answered");
            }
            return JSON.readTree(line);
        } catch (InterruptedException e) {
            talk.process().destroyForcibly();
            Thread.currentThread().interrupt();
            throw new SQLException("stopped", e);
        }
    }

    /// The rows of a query.
    List<List<@Nullable Object>> rows(String sql) throws SQLException {
        Conversation talk = conversation();
        boolean answered = false;
        Stop.began(talk.process()::destroyForcibly);
        try {
            talk.questions().write(JSON.createObjectNode().put("sql", sql).toString() + "\n");
            talk.questions().flush();
            JsonNode answer = next(talk, ANSWER_SECONDS);
            answered = true;
            if (answer.has("error")) {
                throw new SQLException(answer.get("error").asText());
            }
            List<List<@Nullable Object>> rows = new ArrayList<>();
            for (JsonNode cells : answer.path("rows")) {
                List<@Nullable Object> row = new ArrayList<>();
                cells.forEach(v -> row.add(value(v)));
                rows.add(row);
            }
            return rows;
        } catch (IOException e) {
            throw new SQLException("Spark ended before it answered", e);
        } finally {
            Stop.ended();
            if (!answered) {
                // Whatever is left of it would not answer the next question either; a new one is started for that.
                talk.process().destroyForcibly();
                open = Optional.empty();
            }
        }
    }

    private static @Nullable Object value(JsonNode node) {
        if (node.isNull()) {
            return null;
        }
        if (node.has("number")) {
            return Double.valueOf(node.get("number").asText());
        }
        if (node.isObject()) {
            return new BigDecimal(Objects.requireNonNull(node.get("decimal")).asText());
        }
        return node.isBoolean() ? (Object) node.asBoolean() : node.isNumber() ? (Object) node.asLong() : node.asText();
    }

    @Override
    public synchronized List<List<Answer>> run(List<Evaluation> evaluations) {
        cannotStart = Optional.empty();
        SqlEvaluation sql = new SqlEvaluation(language, this::rows);
        return evaluations.stream().map(sql::run).toList();
    }

    @Override
    public synchronized Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        cannotStart = Optional.empty();
        return new SqlEvaluation(language, this::rows).run(job, rows);
    }
}
