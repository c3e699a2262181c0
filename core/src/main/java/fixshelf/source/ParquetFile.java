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
import java.util.List;
import java.util.Properties;
import java.util.stream.Collectors;

/// Parquet files, with every value as text, as the engine writes it, and with the types that they say.
final class ParquetFile {
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

    /// The relation that reads a file, whose values are texts.
    static String relation(Path file, List<String> names) {
        return "(SELECT "
                + names.stream()
                        .map(n -> "CAST(" + DuckSession.name(n) + " AS VARCHAR) AS " + DuckSession.name(n))
                        .collect(Collectors.joining(", "))
                + " FROM read_parquet(" + DuckSession.text(file.toString()) + "))";
    }
}
