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
import java.util.List;
import java.util.Optional;

/// A table of PostgreSQL: a row has an address of its own, which stays as it is while the table is locked.
record LivePostgresTable(ServerAddress address, ReadOptions.Form.Server form) implements LiveTable {
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

    /// An address is one of a part of the table, where it has several.
    @Override
    public List<String> by(Connection connection, String table) throws SQLException {
        String query =
                "SELECT relkind, EXISTS (SELECT FROM pg_inherits WHERE inhparent = c.oid) FROM pg_class AS c WHERE"
                        + " oid = ?::regclass";
        try (PreparedStatement asked = connection.prepareStatement(query)) {
            asked.setString(1, table);
            try (ResultSet found = asked.executeQuery()) {
                boolean one = found.next();
                if (one && !List.of("r", "p").contains(found.getString(1))) {
                    throw new ProblemException(Problem.about(
                            Code.CANNOT_SAY,
                            address.shown(),
                            shown() + ": It is a view, or another server's table.",
                            "Read the table that it looks at."));
                }
                return one && found.getBoolean(2) ? List.of("tableoid", "ctid") : List.of("ctid");
            }
        }
    }

    @Override
    public String condition(String by) {
        return by + (by.equals("ctid") ? " = ?::tid" : " = ?::oid");
    }

    @Override
    public void begin(Connection connection, String table) throws SQLException {
        try (Statement lock = connection.createStatement()) {
            lock.execute("LOCK TABLE " + table + " IN SHARE ROW EXCLUSIVE MODE");
            lock.execute("SET datestyle = 'ISO, YMD'");
            lock.execute("SET extra_float_digits = 1");
        }
    }

    @Override
    public void each(Connection connection, String table, List<String> by, RowHearer hearer) throws SQLException {
        new ServerTable(address, form).each(connection, table, by, hearer);
    }

    @Override
    public List<String> beside() {
        return List.of(
                "SELECT 'the trigger ' || tgname FROM pg_trigger WHERE tgrelid = ?::regclass AND NOT tgisinternal AND"
                        + " tgtype & 8 <> 0",
                "SELECT conrelid::regclass || ' refers to it: ' || CASE confdeltype WHEN 'c' THEN 'cascade' WHEN 'n' THEN"
                        + " 'set null' WHEN 'd' THEN 'set default' ELSE 'restrict' END FROM pg_constraint WHERE"
                        + " confrelid = ?::regclass AND contype = 'f'",
                "SELECT DISTINCT 'the view ' || r.ev_class::regclass || ' looks at it' FROM pg_depend AS d JOIN pg_rewrite AS r"
                        + " ON r.oid = d.objid WHERE d.refobjid = ?::regclass AND d.classid = 'pg_rewrite'::regclass AND"
                        + " r.ev_class <> d.refobjid");
    }

    @Override
    public String besideOf(String table) {
        return table;
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
