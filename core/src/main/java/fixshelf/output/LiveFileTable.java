package fixshelf.output;

import fixshelf.fetch.ServerTable.RowHearer;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.source.DatabaseFile;
import fixshelf.source.SqlText;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/// A table of a database that is a file, SQLite or DuckDB: a row has an address of its own. What refers to it holds.
record LiveFileTable(Path file, ReadOptions.Form.Database form) implements LiveTable {
    private static final List<String> ADDRESSES = List.of("rowid", "_rowid_", "oid");

    private boolean isSqlite() {
        return form.engine().equals("sqlite");
    }

    @Override
    public Connection connect(boolean toWrite) throws SQLException {
        DatabaseFile database = new DatabaseFile(file, form);
        return toWrite ? database.openToWrite() : database.open();
    }

    @Override
    public String quoted(Connection connection) throws SQLException {
        return new DatabaseFile(file, form).quotedTable(connection);
    }

    @Override
    public List<String> by(Connection connection, String table) throws SQLException {
        if (isView(connection, besideOf(table))) {
            throw problem("It is a view.", "Read the table that it looks at.");
        }
        Set<String> columns = new HashSet<>();
        TreeMap<Integer, String> key = new TreeMap<>();
        try (Statement asked = connection.createStatement();
                ResultSet found = asked.executeQuery("PRAGMA table_info(" + table + ")")) {
            while (found.next()) {
                columns.add(found.getString("name").toLowerCase(Locale.ROOT));
                if (isSqlite() && found.getInt("pk") > 0) {
                    key.put(found.getInt("pk"), '"' + found.getString("name").replace("\"", "\"\"") + '"');
                }
            }
        }
        List<String> free = ADDRESSES.stream()
                .filter(a -> !columns.contains(a) && (isSqlite() || a.equals("rowid")))
                .toList();
        if (!free.isEmpty() && hasAddress(connection, table, free.getFirst())) {
            return List.of(free.getFirst());
        }
        if (key.isEmpty()) {
            throw problem(
                    "Its columns are called as the address of a row is, so that no row can be found again.",
                    "Write the rows that stay into another table: an output with `mode: create`.");
        }
        return List.copyOf(key.values());
    }

    private static boolean hasAddress(Connection connection, String table, String address) {
        try (Statement asked = connection.createStatement();
                ResultSet rows = asked.executeQuery("SELECT " + address + " FROM " + table + " LIMIT 0")) {
            return rows.getMetaData().getColumnCount() == 1;
        } catch (SQLException e) {
            // SQLite: WITHOUT ROWID, which has a key.
            return false;
        }
    }

    private boolean isView(Connection connection, String table) throws SQLException {
        String query = isSqlite()
                ? "SELECT 1 FROM sqlite_master WHERE type = 'view' AND lower(name) = lower(?)"
                : "SELECT 1 FROM duckdb_views() WHERE NOT internal AND lower(view_name) = lower(?)";
        try (PreparedStatement asked = connection.prepareStatement(query)) {
            asked.setString(1, table);
            try (ResultSet found = asked.executeQuery()) {
                return found.next();
            }
        }
    }

    @Override
    public void each(Connection connection, String table, List<String> by, RowHearer hearer) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet rows =
                        statement.executeQuery("SELECT " + String.join(", ", by) + ", t.* FROM " + table + " AS t")) {
            int all = rows.getMetaData().getColumnCount();
            while (rows.next()) {
                List<String> where = new ArrayList<>();
                for (int i = 1; i <= by.size(); i++) {
                    where.add(rows.getString(i));
                }
                List<@Nullable String> cells = new ArrayList<>();
                for (int i = by.size() + 1; i <= all; i++) {
                    cells.add(SqlText.of(rows, i));
                }
                hearer.row(where, cells);
            }
        }
    }

    @Override
    public String condition(String by) {
        return by.startsWith("\"") ? by + " = ?" : by + " = CAST(? AS " + (isSqlite() ? "INTEGER" : "BIGINT") + ")";
    }

    @Override
    public List<String> beside() {
        return isSqlite()
                ? List.of(
                        "SELECT 'the trigger ' || name FROM sqlite_master WHERE type = 'trigger' AND lower(tbl_name) ="
                                + " lower(?) AND upper(sql) LIKE '%DELETE%ON%'",
                        "SELECT DISTINCT m.name || ' refers to it: ' || lower(f.on_delete) FROM sqlite_master AS m,"
                                + " pragma_foreign_key_list(m.name) AS f WHERE m.type = 'table' AND lower(f.\"table\") ="
                                + " lower(?)",
                        "SELECT 'the view ' || name || ' looks at it' FROM sqlite_master WHERE type = 'view' AND"
                                + " instr(lower(sql), lower(?)) > 0")
                : List.of("SELECT 'the view ' || view_name || ' looks at it' FROM duckdb_views() WHERE NOT internal AND"
                        + " contains(lower(sql), lower(?))");
    }

    @Override
    public String besideOf(String table) {
        return table.substring(1, table.length() - 1).replace("\"\"", "\"");
    }

    @Override
    public String shown() {
        return (form.table().isEmpty() ? "The table" : "Table " + form.table()) + " of " + file.getFileName();
    }

    private ProblemException problem(String what, String todo) {
        return new ProblemException(Problem.about(Code.CANNOT_SAY, file.toString(), shown() + ": " + what, todo));
    }
}
