package fixshelf.source;

import fixshelf.engine.Stop;
import fixshelf.language.Names;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.Blob;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import org.jspecify.annotations.Nullable;

/// The rows of a table, or of a query, of a database that is a file: SQLite or DuckDB. It is opened for reading only,
/// and a query reaches nothing outside it. Every value comes as text: numbers of SQLite as their shortest digits,
/// bytes as
/// hexadecimal digits.
final class DatabaseRecords implements Records {
    private final Path file;
    private final boolean sqlite;
    private final Connection connection;
    private final Statement statement;
    private final ResultSet rows;
    private final List<String> names = new ArrayList<>();
    private int line;

    DatabaseRecords(Path file, ReadOptions.Form.Database form) {
        this.file = file;
        this.sqlite = form.engine().equals("sqlite");
        try {
            connection = open();
        } catch (SQLException e) {
            throw broken(e);
        }
        try {
            statement = connection.createStatement();
            String query = query(form);
            Stop.began(this::cancel);
            try {
                rows = statement.executeQuery(query);
            } finally {
                Stop.ended();
            }
            ResultSetMetaData meta = rows.getMetaData();
            for (int i = 1; i <= meta.getColumnCount(); i++) {
                names.add(meta.getColumnLabel(i));
            }
        } catch (SQLException e) {
            close();
            throw form.query().isEmpty()
                    ? broken(e)
                    : problem(
                            Code.NO_SUCH,
                            "The query cannot be run in " + file.getFileName() + ": " + first(e) + ".",
                            "Mend the query; it is one SELECT over the tables of this file.");
        } catch (ProblemException e) {
            close();
            throw e;
        }
    }

    private void cancel() {
        try {
            statement.cancel();
        } catch (SQLException e) {
            System.getLogger(DatabaseRecords.class.getName()).log(System.Logger.Level.DEBUG, "nothing to cancel", e);
        }
    }

    private Connection open() throws SQLException {
        Properties properties = new Properties();
        if (sqlite) {
            // SQLITE_OPEN_READONLY
            properties.setProperty("open_mode", "1");
            return DriverManager.getConnection("jdbc:sqlite:" + file, properties);
        }
        properties.setProperty("duckdb.read_only", "true");
        properties.setProperty("autoinstall_known_extensions", "false");
        properties.setProperty("autoload_known_extensions", "false");
        Connection opened = DriverManager.getConnection("jdbc:duckdb:" + file, properties);
        try (Statement set = opened.createStatement()) {
            set.execute("SET enable_external_access = false");
            set.execute("SET lock_configuration = true");
        }
        return opened;
    }

    private String query(ReadOptions.Form.Database form) throws SQLException {
        if (!form.query().isEmpty()) {
            return form.query();
        }
        List<String> tables = tables();
        if (form.table().isEmpty() && tables.size() != 1) {
            throw problem(
                    Code.NO_SUCH,
                    tables.isEmpty()
                            ? "There is no table in " + file.getFileName() + "."
                            : "There are " + tables.size() + " tables in " + file.getFileName()
                                    + ", and none of them is named.",
                    tables.isEmpty() ? "Name another file." : "Write `table:` and one of " + listed(tables) + ".");
        }
        String wanted = form.table().isEmpty() ? tables.getFirst() : form.table();
        String table = tables.stream()
                .filter(wanted::equalsIgnoreCase)
                .findFirst()
                .orElseThrow(() -> problem(
                        Code.NO_SUCH,
                        "There is no table " + wanted + " in " + file.getFileName() + ".",
                        Names.suggest(wanted, tables, "Its tables: " + listed(tables) + ".")));
        return "SELECT * FROM \"" + table.replace("\"", "\"\"") + '"';
    }

    private static String listed(List<String> tables) {
        return String.join(", ", tables.stream().limit(20).toList()) + (tables.size() > 20 ? ", …" : "");
    }

    private List<String> tables() throws SQLException {
        String query = sqlite
                ? "SELECT name FROM sqlite_master WHERE type IN ('table', 'view') AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\'"
                        + " ORDER BY name"
                : "SELECT table_name FROM information_schema.tables WHERE table_schema = 'main' ORDER BY table_name";
        List<String> tables = new ArrayList<>();
        try (Statement asked = connection.createStatement();
                ResultSet found = asked.executeQuery(query)) {
            while (found.next()) {
                tables.add(found.getString(1));
            }
        }
        return tables;
    }

    private static String first(SQLException e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("");
    }

    private ProblemException problem(Code code, String what, String todo) {
        return new ProblemException(Problem.about(code, file.toString(), what, todo));
    }

    private ProblemException broken(SQLException e) {
        return problem(
                Code.FILE_BROKEN,
                file.getFileName() + " cannot be read as a database of " + (sqlite ? "SQLite" : "DuckDB") + ": "
                        + first(e) + ".",
                "Ask for it again, or look whether another program has it open.");
    }

    @Override
    public List<String> names() {
        return names;
    }

    @Override
    public Optional<Row> next() {
        try {
            if (!rows.next()) {
                return Optional.empty();
            }
            List<@Nullable String> cells = new ArrayList<>();
            for (int i = 1; i <= names.size(); i++) {
                cells.add(text(i));
            }
            return Optional.of(new Row(++line, cells));
        } catch (SQLException e) {
            throw broken(e);
        }
    }

    private @Nullable String text(int column) throws SQLException {
        Object value = rows.getObject(column);
        return switch (value) {
            case null -> null;
            case byte[] bytes -> HexFormat.of().formatHex(bytes);
            case Blob blob -> HexFormat.of().formatHex(blob.getBytes(1, Math.toIntExact(blob.length())));
            case Double number when Double.isFinite(number) -> WorkbookRecords.digits(BigDecimal.valueOf(number));
            case BigDecimal number -> number.toPlainString();
            default -> String.valueOf(rows.getString(column));
        };
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            System.getLogger(DatabaseRecords.class.getName()).log(System.Logger.Level.DEBUG, "not closed", e);
        }
    }
}
