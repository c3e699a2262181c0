package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.render.JobCode;
import fixshelf.render.sql.SqlLanguage;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// A database server: the one that the user names in a variable, or one that is found on this machine and started for
/// the check.
abstract class ServerEngine implements FixEngine {
    static final int QUERY_SECONDS = Patience.seconds(60);
    private static final long START_MILLIS = 30_000;

    private final SqlLanguage language;
    private final String variable;
    private Optional<Presence> presence = Optional.empty();
    private Optional<String> address = Optional.empty();

    ServerEngine(SqlLanguage language, String variable) {
        this.language = language;
        this.variable = variable;
    }

    /// The program that serves, if it is on this machine.
    abstract Optional<Path> program();

    /// How the named server's address begins.
    abstract String addressForm();

    /// Starts a server of our own and gives its address, with user and password.
    abstract String start(PrivateServer server, Path program) throws IOException;

    abstract PrivateServer prepare() throws IOException;

    /// What is set before the first query; only reading, and a time limit.
    abstract void begin(Statement statement) throws SQLException;

    /// The version that the server says; empty when it is not set up as the language asks for, and why.
    abstract Presence look(Connection connection) throws SQLException;

    @Override
    public SqlLanguage language() {
        return language;
    }

    @Override
    public synchronized Presence presence() {
        if (presence.isEmpty()) {
            presence = Optional.of(look());
        }
        return presence.get();
    }

    private Presence look() {
        String named = System.getenv(variable);
        if (named == null || named.isBlank()) {
            return program()
                    .map(p -> (Presence) new Presence.Here(version(p) + ", started for the check"))
                    .orElseGet(() -> new Presence.Absent(
                            "no server found: install one, or set " + variable + " to " + addressForm()));
        }
        address = Optional.of(named);
        try (Connection connection = connect(named)) {
            return look(connection);
        } catch (SQLException e) {
            return new Presence.Absent("the server does not answer: " + firstLine(e));
        }
    }

    private static String version(Path program) {
        try {
            Process process = new ProcessBuilder(program.toString(), "--version")
                    .redirectErrorStream(true)
                    .start();
            String text = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
            var number =
                    java.util.regex.Pattern.compile("\\d+\\.\\d+(\\.\\d+)?").matcher(text);
            return number.find() ? number.group() : "version unknown";
        } catch (IOException e) {
            return "version unknown";
        }
    }

    /// Where the server is; one of our own is started first.
    synchronized String address() throws IOException {
        presence();
        if (address.isEmpty()) {
            PrivateServer server = prepare();
            String own = start(server, program().orElseThrow(() -> new IOException("no server found")));
            waitUntilUp(server, own);
            address = Optional.of(own);
        }
        return address.get();
    }

    private void waitUntilUp(PrivateServer server, String own) throws IOException {
        long until = System.currentTimeMillis() + START_MILLIS;
        while (true) {
            try (Connection connection = connect(own)) {
                Presence found = look(connection);
                presence = Optional.of(
                        found instanceof Presence.Here(String version)
                                ? new Presence.Here(version + ", started for the check")
                                : found);
                return;
            } catch (SQLException e) {
                if (server.hasEnded() || System.currentTimeMillis() > until) {
                    throw new IOException("the server did not start: " + firstLine(e) + " " + server.lastWords(), e);
                }
                pause();
            }
        }
    }

    private static void pause() throws IOException {
        try {
            Thread.sleep(200);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("stopped", e);
        }
    }

    private Connection connect(String to) throws SQLException {
        Connection connection = DriverManager.getConnection(to);
        connection.setReadOnly(true);
        try (Statement statement = connection.createStatement()) {
            begin(statement);
        }
        return connection;
    }

    static String first(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getString(1);
        }
    }

    private static String firstLine(@Nullable Throwable problem) {
        return String.valueOf(problem == null ? "" : problem.getMessage())
                .lines()
                .findFirst()
                .orElse("");
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        try (Connection connection = connect(address())) {
            SqlEvaluation sql = new SqlEvaluation(language, SqlEvaluation.Runner.of(connection, QUERY_SECONDS));
            return evaluations.stream().map(sql::run).toList();
        } catch (SQLException | IOException e) {
            return FixEngine.failed(evaluations, "the server does not answer: " + firstLine(e));
        }
    }

    @Override
    public Answer.OfJob run(JobCode job, Map<String, List<List<@Nullable String>>> rows) {
        try (Connection connection = connect(address())) {
            return new SqlEvaluation(language, SqlEvaluation.Runner.of(connection, QUERY_SECONDS)).run(job, rows);
        } catch (SQLException | IOException e) {
            return new Answer.OfJob.Stopped("the server does not answer: " + firstLine(e));
        }
    }
}
