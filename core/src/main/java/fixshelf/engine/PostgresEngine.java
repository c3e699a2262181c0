package fixshelf.engine;

import fixshelf.engine.Answer.Evaluation;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// A PostgreSQL server that the user names in `FIXSHELF_POSTGRESQL`, as `jdbc:postgresql://host/db?user=…`.
final class PostgresEngine implements FixEngine {
    private static final String VARIABLE = "FIXSHELF_POSTGRESQL";

    private final Language language = Languages.find("postgresql").orElseThrow();
    private Optional<Presence> presence = Optional.empty();

    @Override
    public Language language() {
        return language;
    }

    @Override
    public synchronized Presence presence() {
        if (presence.isEmpty()) {
            presence = Optional.of(look());
        }
        return presence.get();
    }

    private static Presence look() {
        String address = System.getenv(VARIABLE);
        if (address == null || address.isBlank()) {
            return new Presence.Absent("no server named: set " + VARIABLE + " to jdbc:postgresql://…");
        }
        try (Connection connection = connect(address)) {
            String encoding = first(connection, "SHOW server_encoding");
            return encoding.equals("UTF8")
                    ? new Presence.Here(first(connection, "SHOW server_version").split(" ")[0])
                    : new Presence.Absent("the database has encoding " + encoding + ", not UTF8");
        } catch (SQLException e) {
            return new Presence.Absent("the server does not answer: "
                    + String.valueOf(e.getMessage()).lines().findFirst().orElse(""));
        }
    }

    private static Connection connect(String address) throws SQLException {
        Connection connection = DriverManager.getConnection(address);
        connection.setReadOnly(true);
        try (Statement statement = connection.createStatement()) {
            statement.execute("SET statement_timeout = '30s'");
        }
        return connection;
    }

    private static String first(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getString(1);
        }
    }

    @Override
    public List<List<Answer>> run(List<Evaluation> evaluations) {
        try (Connection connection = connect(System.getenv(VARIABLE))) {
            SqlEvaluation sql = new SqlEvaluation(language, text -> column(connection, text));
            return evaluations.stream().map(sql::run).toList();
        } catch (SQLException e) {
            Answer failed = new Answer.Failed("the server does not answer: " + e.getMessage());
            return evaluations.stream()
                    .map(v -> v.rows().stream().map(_ -> failed).toList())
                    .toList();
        }
    }

    private static List<@Nullable Object> column(Connection connection, String sql) throws SQLException {
        List<@Nullable Object> values = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(sql)) {
            while (rows.next()) {
                values.add(plain(rows.getObject(1)));
            }
        }
        return values;
    }

    private static @Nullable Object plain(@Nullable Object value) {
        return value instanceof Integer number ? (Object) number.longValue() : value;
    }
}
