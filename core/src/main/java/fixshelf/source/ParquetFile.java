package fixshelf.source;

import fixshelf.engine.DuckSession;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Collectors;

/// Parquet files, with every value as text, as the engine writes it, and with the types that they say.
final class ParquetFile {
    private static final int MOST_DIGITS = 18;

    private final Path file;

    ParquetFile(Path file) {
        this.file = file;
    }

    Records records() {
        if (file.toString().chars().anyMatch(c -> "*?[]{}".indexOf(c) >= 0)) {
            throw problem(
                    file.getFileName() + " cannot be read: there is one of the signs * ? [ ] { } in its path.",
                    "Give it, or its folder, a name without them.");
        }
        try {
            Connection connection = open();
            try {
                String rows = " FROM read_parquet(" + DuckSession.text(file.toString()) + ")";
                // Before the rows, as a second question ends those that come one by one.
                List<Type> types = types(connection, "SELECT *" + rows + " LIMIT 0");
                return new QueryRecords(
                        connection,
                        connection.prepareStatement("SELECT CAST(COLUMNS(*) AS VARCHAR)" + rows),
                        _ -> types,
                        this::broken);
            } catch (SQLException e) {
                connection.close();
                throw e;
            }
        } catch (SQLException e) {
            throw broken(e);
        }
    }

    private static List<Type> types(Connection connection, String nothing) throws SQLException {
        try (Statement asked = connection.createStatement();
                ResultSet none = asked.executeQuery(nothing)) {
            return DeclaredTypes.of(none.getMetaData());
        }
    }

    private Connection open() throws SQLException {
        Properties properties = new Properties();
        properties.setProperty("autoinstall_known_extensions", "false");
        properties.setProperty("autoload_known_extensions", "false");
        // Rows are handed over as they come.
        properties.setProperty("jdbc_stream_results", "true");
        Connection opened = DriverManager.getConnection("jdbc:duckdb:", properties);
        try (Statement set = opened.createStatement()) {
            set.execute("SET allowed_paths = [" + DuckSession.text(file.toString()) + "]");
            set.execute("SET TimeZone = 'UTC'");
            set.execute("SET enable_external_access = false");
            set.execute("SET lock_configuration = true");
        }
        return opened;
    }

    private ProblemException broken(SQLException e) {
        System.getLogger(ParquetFile.class.getName()).log(System.Logger.Level.DEBUG, "no Parquet file: " + file, e);
        return problem(
                file.getFileName() + " is no whole Parquet file: it begins like one and cannot be read.",
                "Ask for it again, or write it again: it may be cut off.");
    }

    private ProblemException problem(String what, String todo) {
        return new ProblemException(Problem.about(Code.FILE_BROKEN, file.toString(), what, todo));
    }

    /// The relation that reads a file, whose values have the types that it says; the engine refuses it where one of
    /// them is no value of its type here. Empty where a type is held otherwise here.
    static Optional<String> typed(Path file, List<String> names, List<Type> types) {
        List<String> columns = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            String name = DuckSession.name(names.get(i));
            Optional<String> value = typed(name, types.get(i));
            if (value.isEmpty()) {
                return Optional.empty();
            }
            columns.add(value.get() + " AS " + name);
        }
        return Optional.of("(SELECT " + String.join(", ", columns) + " FROM read_parquet("
                + DuckSession.text(file.toString()) + "))");
    }

    private static Optional<String> typed(String column, Type type) {
        return switch (type) {
            case Type.Text _ -> Optional.of("CAST(" + column + " AS VARCHAR)");
            case Type.Int _ -> Optional.of("CAST(" + column + " AS BIGINT)");
            case Type.Bool _ -> Optional.of(column);
            // Longer ones are read digit by digit.
            case Type.Decimal(int precision, int scale) ->
                precision > MOST_DIGITS
                        ? Optional.empty()
                        : Optional.of("CAST(" + column + " AS DECIMAL(" + precision + ", " + scale + "))");
            // The shortest digits of a short floating-point number are another number than its value; no zero has a
            // sign.
            case Type.Num _ ->
                Optional.of(where(
                        "isfinite(" + column + ")",
                        "CASE WHEN typeof(" + column + ") = 'FLOAT' THEN CAST(CAST(" + column
                                + " AS VARCHAR) AS DOUBLE) ELSE CAST(" + column + " AS DOUBLE) END + 0.0::DOUBLE",
                        column));
            case Type.Date _ ->
                Optional.of(where(column + " BETWEEN DATE '0001-01-01' AND DATE '9999-12-31'", column, column));
            case Type.Timestamp _ ->
                Optional.of(where(
                        column + " >= TIMESTAMP '0001-01-01 00:00:00' AND " + column
                                + " < TIMESTAMP '9999-12-31 00:00:00' + INTERVAL 1 DAY",
                        "CAST(" + column + " AS TIMESTAMP)",
                        column));
            case Type.ListOf _, Type.Mapping _, Type.Unknown _ -> Optional.empty();
        };
    }

    private static String where(String fits, String value, String column) {
        return "CASE WHEN " + fits + " THEN " + value + " WHEN " + column
                + " IS NULL THEN NULL ELSE error('no value') END";
    }

    /// The relation that reads a file, whose values are texts.
    static String relation(Path file, List<String> names) {
        return "(SELECT "
                + names.stream()
                        .map(n -> "CAST(" + DuckSession.name(n) + " AS VARCHAR) AS " + DuckSession.name(n))
                        .collect(Collectors.joining(", "))
                + " FROM read_parquet(" + DuckSession.text(file.toString()) + "))";
    }
}
