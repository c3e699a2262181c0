package fixshelf.source;

import fixshelf.language.tree.Names;
import fixshelf.plan.QueryValues;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;

/// Databases that are files, SQLite and DuckDB: the rows of a table, or of a query. A file is opened for reading only,
/// and a query reaches nothing outside it.
public final class DatabaseFile {
    private final Path file;
    private final ReadOptions.Form.Database form;
    private final boolean sqlite;

    public DatabaseFile(Path file, ReadOptions.Form.Database form) {
        this.file = file;
        this.form = form;
        this.sqlite = form.engine().equals("sqlite");
    }

    Records records() {
        Connection connection;
        try {
            connection = open();
        } catch (SQLException e) {
            throw broken(e);
        }
        try {
            QueryValues query = QueryValues.of(query(connection));
            return new QueryRecords(
                    connection,
                    QueryStatement.of(connection, query.sql(), query, form.engine()),
                    sqlite ? DeclaredTypes::ofSqlite : DeclaredTypes::of,
                    this::broken);
        } catch (SQLException e) {
            close(connection);
            throw form.query().isEmpty()
                    ? broken(e)
                    : problem(
                            Code.NO_SUCH,
                            "The query cannot be run in " + file.getFileName() + ": " + first(e) + ".",
                            "Mend the query; it is one SELECT over the tables of this file.");
        } catch (ProblemException e) {
            close(connection);
            throw e;
        }
    }

    /// The names of its tables.
    List<String> tables() {
        try (Connection connection = open()) {
            return tables(connection);
        } catch (SQLException e) {
            throw broken(e);
        }
    }

    private static void close(Connection connection) {
        try {
            connection.close();
        } catch (SQLException e) {
            System.getLogger(DatabaseFile.class.getName()).log(System.Logger.Level.DEBUG, "not closed", e);
        }
    }

    /// What stands behind such a sign in a path would be taken for settings of the connection: a file that came from a
    /// stranger could switch on by its name what opening it must not do.
    private void wantPlainPath() {
        if (file.toString().chars().anyMatch(c -> "?;#%".indexOf(c) >= 0)) {
            throw problem(
                    Code.FILE_BROKEN,
                    file.getFileName() + " is not opened as a database: there is one of the signs ? ; # % in its path.",
                    "Give it, or its folder, a name without them.");
        }
    }

    /// Opened to read only.
    public Connection open() throws SQLException {
        wantPlainPath();
        Properties properties = new Properties();
        if (sqlite) {
            // SQLITE_OPEN_READONLY
            properties.setProperty("open_mode", "1");
            return DriverManager.getConnection("jdbc:sqlite:" + file, properties);
        }
        properties.setProperty("duckdb.read_only", "true");
        // Rows are handed over as they come.
        properties.setProperty("jdbc_stream_results", "true");
        return closed(properties);
    }

    /// A database of DuckDB whose statements reach nothing outside of it.
    private Connection closed(Properties properties) throws SQLException {
        properties.setProperty("autoinstall_known_extensions", "false");
        properties.setProperty("autoload_known_extensions", "false");
        Connection opened = DriverManager.getConnection("jdbc:duckdb:" + file, properties);
        try (Statement set = opened.createStatement()) {
            set.execute("SET enable_external_access = false");
            set.execute("SET lock_configuration = true");
        }
        return opened;
    }

    /// Opened for a change that its user asked for: in one transaction, in which what refers to a row holds.
    public Connection openToWrite() throws SQLException {
        wantPlainPath();
        Properties properties = new Properties();
        if (sqlite) {
            // SQLITE_OPEN_READWRITE: no file is made.
            properties.setProperty("open_mode", "2");
            properties.setProperty("foreign_keys", "true");
            properties.setProperty("transaction_mode", "IMMEDIATE");
            return DriverManager.getConnection("jdbc:sqlite:" + file, properties);
        }
        return closed(properties);
    }

    private String query(Connection connection) throws SQLException {
        return form.query().isEmpty() ? "SELECT * FROM " + quotedTable(connection) : form.query();
    }

    /// The name of the table, as the database takes it: that of the form, or of the only one.
    public String quotedTable(Connection connection) throws SQLException {
        List<String> tables = tables(connection);
        if (form.table().isEmpty() && tables.size() != 1) {
            throw problem(
                    Code.NO_SUCH,
                    tables.isEmpty()
                            ? "There is no table in " + file.getFileName() + "."
                            : "There are " + tables.size() + " tables in " + file.getFileName()
                                    + ", and none of them is named.",
                    tables.isEmpty()
                            ? "Name another file."
                            : "Write `table:` and one of " + Names.listed(tables) + ".");
        }
        String wanted = form.table().isEmpty() ? tables.getFirst() : form.table();
        String table = tables.stream()
                .filter(wanted::equalsIgnoreCase)
                .findFirst()
                .orElseThrow(() -> problem(
                        Code.NO_SUCH,
                        "There is no table " + wanted + " in " + file.getFileName() + ".",
                        Names.suggest(wanted, tables, "Its tables: " + Names.listed(tables) + ".")));
        return '"' + table.replace("\"", "\"\"") + '"';
    }

    private List<String> tables(Connection connection) throws SQLException {
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
}
