package fixshelf.output;

import fixshelf.fetch.ServerAddress;
import fixshelf.fetch.ServerTable;
import fixshelf.fetch.ServerTable.RowHearer;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/// A table of MariaDB, whose rows have no address: they are found by the primary key, and without one by a digest of
/// everything that stands in them. Of rows that are the same in everything, all are deleted and those that stay are put
/// back, in the same transaction, so that triggers, rights and what refers to the table stay as they are.
record LiveMariaTable(ServerAddress address, ReadOptions.Form.Server form) implements LiveTable {
    private static final String GONE = "`fix_shelf_gone`";
    private static final String BACK = "`fix_shelf_back`";

    @Override
    public Connection connect(boolean toWrite) throws SQLException {
        Connection connection = address.connectToWrite(form.user(), form.passwordFrom());
        connection.setReadOnly(!toWrite);
        return connection;
    }

    @Override
    public String quoted(Connection connection) throws SQLException {
        return new ServerTable(address, form).quotedTable(connection);
    }

    @Override
    public List<String> by(Connection connection, String table) throws SQLException {
        wantTransactions(connection, table);
        List<String> key = new ArrayList<>();
        try (ResultSet found =
                connection.getMetaData().getPrimaryKeys(connection.getCatalog(), null, besideOf(table))) {
            Map<Integer, String> columns = new TreeMap<>();
            while (found.next()) {
                columns.put((int) found.getShort("KEY_SEQ"), name(found.getString("COLUMN_NAME")));
            }
            key.addAll(columns.values());
        }
        return key.isEmpty() ? List.of(digest(connection, table)) : key;
    }

    private static String name(String column) {
        return "`" + column.replace("`", "``") + "`";
    }

    private void wantTransactions(Connection connection, String table) throws SQLException {
        String query = "SELECT t.table_type, t.engine, e.transactions FROM information_schema.tables AS t LEFT JOIN"
                + " information_schema.engines AS e ON e.engine = t.engine WHERE t.table_schema = database() AND"
                + " t.table_name = ?";
        try (PreparedStatement asked = connection.prepareStatement(query)) {
            asked.setString(1, besideOf(table));
            try (ResultSet found = asked.executeQuery()) {
                if (found.next() && !"YES".equals(found.getString(3))) {
                    boolean view = "VIEW".equals(found.getString(1));
                    throw new ProblemException(Problem.about(
                            Code.CANNOT_SAY,
                            address.shown(),
                            shown() + ": "
                                    + (view
                                            ? "It is a view."
                                            : "Its engine " + found.getString(2)
                                                    + " has no transactions, so that nothing could be taken back."),
                            view
                                    ? "Read the table that it looks at."
                                    : "Write the rows that stay into another table: an output with `mode: create`."));
                }
            }
        }
    }

    @Override
    public boolean isByContent(List<String> by) {
        return by.getFirst().startsWith("md5(");
    }

    private static String digest(Connection connection, String table) throws SQLException {
        List<String> cells = new ArrayList<>();
        try (Statement asked = connection.createStatement();
                ResultSet none = asked.executeQuery("SELECT * FROM " + table + " LIMIT 0")) {
            for (int i = 1; i <= none.getMetaData().getColumnCount(); i++) {
                String column = name(none.getMetaData().getColumnName(i));
                boolean single = none.getMetaData().getColumnTypeName(i).equals("FLOAT");
                String whole = single ? "(" + column + " + 0e0)" : column;
                cells.add("coalesce(hex(CAST(" + whole + " AS BINARY)), '-')");
            }
        }
        return "md5(concat_ws(',', " + String.join(", ", cells) + "))";
    }

    @Override
    public String told(List<String> by, long count) {
        return isByContent(by)
                ? "everything in it is that of one of " + String.format("%,d", count) + (count == 1 ? " row" : " rows")
                : LiveTable.super.told(by, count);
    }

    @Override
    public void each(Connection connection, String table, List<String> by, RowHearer hearer) throws SQLException {
        new ServerTable(address, form).each(connection, table, by, hearer);
    }

    @Override
    public long delete(Connection connection, String table, List<String> by, List<List<String>> addresses)
            throws SQLException {
        if (!isByContent(by)) {
            return LiveTable.super.delete(connection, table, by, addresses);
        }
        Map<String, Long> gone = new HashMap<>();
        addresses.forEach(a -> gone.merge(a.getFirst(), 1L, Long::sum));
        String digest = by.getFirst();
        try (Statement run = connection.createStatement()) {
            run.execute("CREATE TEMPORARY TABLE " + GONE + " (h binary(16) PRIMARY KEY, n bigint)");
            try (PreparedStatement put = connection.prepareStatement("INSERT INTO " + GONE + " VALUES (unhex(?), ?)")) {
                for (Map.Entry<String, Long> each : gone.entrySet()) {
                    put.setString(1, each.getKey());
                    put.setLong(2, each.getValue());
                    put.addBatch();
                }
                put.executeBatch();
            }
            String columns = columns(connection, table);
            run.execute("CREATE TEMPORARY TABLE " + BACK + " AS SELECT " + columns + " FROM (SELECT " + columns
                    + ", g.n AS `fix_shelf_n`, row_number() OVER (PARTITION BY g.h) AS `fix_shelf_i` FROM " + table
                    + " AS t JOIN " + GONE + " AS g ON g.h = unhex(" + digest + ")) AS numbered WHERE `fix_shelf_i` >"
                    + " `fix_shelf_n`");
            long deleted = run.executeLargeUpdate(
                    "DELETE FROM " + table + " WHERE unhex(" + digest + ") IN (SELECT h FROM " + GONE + ")");
            long back = run.executeLargeUpdate(
                    "INSERT INTO " + table + " (" + columns + ") SELECT " + columns + " FROM " + BACK);
            run.execute("DROP TEMPORARY TABLE " + GONE + ", " + BACK);
            return deleted - back;
        }
    }

    /// The columns that can be given values: not those that the server works out itself.
    private String columns(Connection connection, String table) throws SQLException {
        List<String> columns = new ArrayList<>();
        String query =
                "SELECT column_name FROM information_schema.columns WHERE table_schema = database() AND table_name"
                        + " = ? AND extra NOT LIKE '%GENERATED%' ORDER BY ordinal_position";
        try (PreparedStatement asked = connection.prepareStatement(query)) {
            asked.setString(1, besideOf(table));
            try (ResultSet found = asked.executeQuery()) {
                while (found.next()) {
                    columns.add(name(found.getString(1)));
                }
            }
        }
        return columns.stream().collect(Collectors.joining(", "));
    }

    @Override
    public List<String> beside() {
        return List.of(
                "SELECT concat('the trigger ', trigger_name) FROM information_schema.triggers WHERE event_object_schema ="
                        + " database() AND event_object_table = ? AND event_manipulation IN ('DELETE', 'INSERT')",
                "SELECT concat(table_name, ' refers to it: ', lower(delete_rule)) FROM"
                        + " information_schema.referential_constraints WHERE constraint_schema = database() AND"
                        + " referenced_table_name = ?",
                "SELECT concat('the view ', table_name, ' looks at it') FROM information_schema.views WHERE table_schema ="
                        + " database() AND instr(view_definition, concat('`', database(), '`.`', ?, '`')) > 0");
    }

    @Override
    public String besideOf(String table) {
        return table.substring(1, table.length() - 1).replace("``", "`");
    }

    @Override
    public String shown() {
        return (form.table().isEmpty() ? "The table" : "Table " + form.table()) + " of " + address.shown();
    }

    @Override
    public Optional<Problem> refusal(SQLException e) {
        return ServerAddress.refusal(e);
    }
}
